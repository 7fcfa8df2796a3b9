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
    shortcut(["k"], "Add or remove a key of the selected row", keyRow),
    shortcut(["m"], "Key as I move: on or off", () => (selection.keyAsIMove = !selection.keyAsIMove)),
    shortcut(["Enter"], "Key a trial change; finish a drawing", () => {
      if (!actions.drawing("finish")) void scene.keepLook();
    }),
    shortcut(["Escape"], "Cancel the trial change; deselect keys, then the object", letGo),
    shortcut(["Ctrl+a"], "Select every key of the row", () => leaf.pickAll()),
    shortcut(["a"], "Select every key on this frame", () => leaf.pickAll("frame")),
    shortcut(["Ctrl+Shift+a"], "Select every key of the object", () => leaf.pickAll("object")),
    shortcut(["Ctrl+c"], "Copy the selected keys, or the selected objects", () => {
      leaf.copy();
      if (picks.count) copies.last.value = "keys";
      else void copies.copy();
    }),
    shortcut(["Ctrl+v"], "Paste keys from the playhead on, or paste objects", () => {
      if (copies.last.value === "keys") void leaf.paste();
      else void copies.paste();
    }),
    shortcut(
      ["Ctrl+Shift+v"],
      "Paste special: onto several objects",
      () => void (leaf.copied.value && (leaf.pasting.value = true)),
    ),
    shortcut(["Ctrl+Alt+f"], "Choose the ease between keys", () => openMenu("feel")),
    shortcut(["Ctrl+Alt+e"], "Choose what happens before and after the keys", () => openMenu("ends")),
    shortcut(["Ctrl+Alt+r"], "Add a rule to the selected row", () => openMenu("rules")),
    shortcut(["(", ")"], "Previous or next key of the selected row", (key) => toKey(key === "(" ? -1 : 1, true)),
    shortcut(["Alt+b"], "Put motion on beats", () => sounds.lay()),
  ];
}
