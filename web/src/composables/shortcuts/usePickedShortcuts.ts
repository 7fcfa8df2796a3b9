/** Shortcuts of the picked objects: which are picked, their order, moving them, and what becomes of them. */
import { nudges } from "@/composables/shortcuts/nudges";
import { inGroup, type WorkspaceActions } from "@/composables/shortcuts/table";
import { useCopies } from "@/composables/several/useCopies";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useSeveral } from "@/composables/several/useSeveral";
import type { Shortcut } from "@/composables/useShortcuts";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { useInside } from "@/stores/inside";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const shortcut = inGroup("Picked object");

export function usePickedShortcuts(actions: Pick<WorkspaceActions, "nudge" | "points">): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  const troupe = useTroupe();
  const several = useSeveral();
  const leaf = useLeafActions();
  const copies = useCopies();
  const inside = useInside();

  const withThing = (work: (id: string) => void) => (): void => {
    if (selection.objectId) work(selection.objectId);
  };

  return [
    shortcut(["Ctrl+x"], "Cut the selected keys, or the selected objects", () => {
      if (picks.count) copies.last.value = "keys";
      void (picks.count ? leaf.cut() : copies.cut());
    }),
    shortcut(["Ctrl+Alt+a"], "Select every unattached object", () =>
      selection.pickAll(scene.wholes.map((it) => it.id)),
    ),
    shortcut(["Ctrl+Alt+i"], "Invert the selection", () =>
      selection.pickAll(scene.wholes.map((it) => it.id).filter((id) => !selection.picked.includes(id))),
    ),
    shortcut(["Alt+PageUp"], "Bring forward", () => void several.order("forward")),
    shortcut(["Alt+PageDown"], "Send backward", () => void several.order("backward")),
    shortcut(["Alt+Home"], "Bring to front", () => void several.order("front")),
    shortcut(["Alt+End"], "Send to back", () => void several.order("back")),
    shortcut(["Ctrl+Alt+l"], "Lock against picking and moving in the picture, or unlock", () => {
      void several.lock(!selection.picked.every((id) => scene.locked.has(id)));
    }),
    shortcut(["Ctrl+g"], "Group the selection", () => void several.group()),
    shortcut(["Ctrl+Alt+k"], "Select all of the same kind", () => several.pickAlike("kind")),
    shortcut(["Ctrl+Alt+c"], "Select all of the same colour", () => several.pickAlike("colour")),
    shortcut(["Ctrl+Alt+t"], "Select all with the same tag", () => several.pickAlike("tag")),
    shortcut(["PageDown"], "Select the next object in the Troupe", () => troupe.pickNext(1)),
    shortcut(["PageUp"], "Select the previous object", () => troupe.pickNext(-1)),
    ...nudges(actions.nudge),
    shortcut(
      ["r"],
      "Rename",
      withThing((id) => (selection.renaming = id)),
    ),
    shortcut(
      ["Ctrl+d"],
      "Duplicate",
      withThing((id) => void (selection.several ? several.duplicate() : troupe.duplicate([id]))),
    ),
    shortcut(
      ["Delete"],
      "Delete the selected keys or points, or the object",
      withThing((id) => {
        if (picks.count) void leaf.remove();
        else if (selection.several) void several.remove();
        else if (!actions.points("remove")) void troupe.remove(id);
      }),
    ),
    shortcut(
      ["h"],
      "Go inside an inset",
      withThing((id) => inside.enter(id)),
    ),
    shortcut(["Shift+h"], "Go back out", () => inside.leave()),
  ];
}
