/** Shortcuts of the picked objects: which are picked, their order, moving them, and what becomes of them. */
import { nudges } from "@/composables/shortcuts/nudges";
import { rowsOf, type WorkspaceActions } from "@/composables/shortcuts/table";
import { useCopies } from "@/composables/several/useCopies";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useSeveral } from "@/composables/several/useSeveral";
import type { Shortcut } from "@/composables/useShortcuts";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { useInside } from "@/stores/inside";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const one = rowsOf("Picked object");

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
    one(["Ctrl+x"], "Cut the picked leaves; without any, the picked objects", () => {
      if (picks.count) copies.last.value = "keys";
      void (picks.count ? leaf.cut() : copies.cut());
    }),
    one(["Ctrl+Alt+a"], "Pick every object that hangs on nothing", () =>
      selection.pickAll(scene.wholes.map((it) => it.id)),
    ),
    one(["Ctrl+Alt+i"], "Pick all others instead", () =>
      selection.pickAll(scene.wholes.map((it) => it.id).filter((id) => !selection.picked.includes(id))),
    ),
    one(["Alt+PageUp"], "One nearer in the drawing order", () => void several.order("forward")),
    one(["Alt+PageDown"], "One farther back", () => void several.order("backward")),
    one(["Alt+Home"], "In front of all others beside it", () => void several.order("front")),
    one(["Alt+End"], "Behind all others beside it", () => void several.order("back")),
    one(["Ctrl+Alt+l"], "Lock against picking and moving in the picture, or unlock", () => {
      void several.lock(!selection.picked.every((id) => scene.locked.has(id)));
    }),
    one(["Ctrl+g"], "Make a group of what is picked", () => void several.group()),
    one(["Ctrl+Alt+k"], "Pick all of the same kind", () => several.pickAlike("kind")),
    one(["Ctrl+Alt+c"], "Pick all of the same colour", () => several.pickAlike("colour")),
    one(["Ctrl+Alt+t"], "Pick all with the same colour tag", () => several.pickAlike("tag")),
    one(["PageDown"], "Pick the next object of the troupe", () => troupe.pickNext(1)),
    one(["PageUp"], "Pick the previous one", () => troupe.pickNext(-1)),
    ...nudges(actions.nudge),
    one(
      ["r"],
      "Rename",
      withThing((id) => (selection.renaming = id)),
    ),
    one(
      ["Ctrl+d"],
      "Duplicate",
      withThing((id) => void (selection.several ? several.duplicate() : troupe.duplicate([id]))),
    ),
    one(
      ["Delete"],
      "Delete the picked leaves or points, else the object",
      withThing((id) => {
        if (picks.count) void leaf.remove();
        else if (selection.several) void several.remove();
        else if (!actions.points("remove")) void troupe.remove(id);
      }),
    ),
    one(
      ["h"],
      "Go inside an inset",
      withThing((id) => inside.enter(id)),
    ),
    one(["Shift+h"], "Go back out", () => inside.leave()),
  ];
}
