/** Shortcuts of keys: setting, picking, copying and pasting them, and what lies between them. */
import { openMenu } from "@/composables/shortcuts/openMenu";
import { inGroup, type WorkspaceActions } from "@/composables/shortcuts/table";
import { useChanging } from "@/composables/useChanging";
import { useCopies } from "@/composables/several/useCopies";
import { useKeyTravel } from "@/composables/useKeyTravel";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useSeveral } from "@/composables/several/useSeveral";
import type { Shortcut } from "@/composables/useShortcuts";
import { usePanels } from "@/stores/panels";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";
import { namesOf } from "@/stores/vocabulary";

const shortcut = inGroup("Keys");

export function useKeyShortcuts(actions: Pick<WorkspaceActions, "drawing" | "points">): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  const panels = usePanels();
  const several = useSeveral();
  const changing = useChanging();
  const leaf = useLeafActions();
  const copies = useCopies();
  const sounds = useSounds();
  const { toKey } = useKeyTravel();

  const keyRow = (): void => {
    if (selection.several && selection.row) void several.toggleKeys(selection.row.name);
    else if (selection.thing && selection.row) void changing.toggleKeys(selection.thing, namesOf(selection.row));
  };
  const letGo = (): void => {
    if (actions.drawing("drop")) return;
    if (panels.big) panels.big = false;
    else if (scene.look) scene.letGo();
    else if (actions.points("clear")) return;
    else if (picks.count) picks.clear();
    else selection.pick(null);
  };

  return [
    shortcut(["k"], "Key the chosen row here, or take its key away", keyRow),
    shortcut(["m"], "Key as I move: on or off", () => (selection.keyAsIMove = !selection.keyAsIMove)),
    shortcut(["Enter"], "Key what is for looking only; finish what is drawn", () => {
      if (!actions.drawing("finish")) void scene.keepLook();
    }),
    shortcut(["Escape"], "Let go: of a look, of leaves, of the object", letGo),
    shortcut(["Ctrl+a"], "Pick every leaf of the row", () => leaf.pickAll()),
    shortcut(["a"], "Pick every leaf on this frame", () => leaf.pickAll("frame")),
    shortcut(["Ctrl+Shift+a"], "Pick every leaf of the object", () => leaf.pickAll("object")),
    shortcut(["Ctrl+c"], "Copy the picked leaves; without any, the picked objects", () => {
      leaf.copy();
      if (picks.count) copies.last.value = "keys";
      else void copies.copy();
    }),
    shortcut(["Ctrl+v"], "Paste leaves on the picked object, from the playhead on, or the copied objects", () => {
      if (copies.last.value === "keys") void leaf.paste();
      else void copies.paste();
    }),
    shortcut(
      ["Ctrl+Shift+v"],
      "Paste onto several objects, or another way",
      () => void (leaf.copied.value && (leaf.pasting.value = true)),
    ),
    shortcut(["Ctrl+Alt+f"], "Choose the feel between keys", () => openMenu("feel")),
    shortcut(["Ctrl+Alt+e"], "Choose what happens past the keys", () => openMenu("ends")),
    shortcut(["Ctrl+Alt+r"], "Put a rule on the chosen row", () => openMenu("rules")),
    shortcut(["(", ")"], "Previous, next key of the chosen row", (key) => toKey(key === "(" ? -1 : 1, true)),
    shortcut(["Alt+b"], "Put motion on beats", () => sounds.lay()),
  ];
}
