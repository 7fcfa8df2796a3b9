/** Shortcuts that move, turn and size the picked objects step by step. */
import { inGroup, type WorkspaceActions } from "@/composables/shortcuts/table";
import type { Shortcut } from "@/composables/useShortcuts";
import { ARROWS } from "@/geometry/arrows";

/** Moving, turning and sizing from the keyboard: small steps, and larger ones with Shift. */
export function nudges(nudge: WorkspaceActions["nudge"]): Shortcut[] {
  const shortcut = inGroup("Picked object");
  const along = (prefix: string, step: number, kind: "move" | "pivot", says: string): Shortcut =>
    shortcut(
      Object.keys(ARROWS).map((arrow) => prefix + arrow),
      says,
      (key) => {
        const [dx, dy] = ARROWS[key.slice(prefix.length)] ?? [0, 0];
        const [x, y] = kind === "move" ? ["x", "y"] : ["pivot.x", "pivot.y"];
        nudge(kind, dx ? { [x]: dx * step } : { [y]: dy * step });
      },
    );
  const turn = (keys: [string, string], by: number, says: string): Shortcut =>
    shortcut(keys, says, (key) => nudge("turn", { rotation: key === keys[0] ? -by : by }));
  const size = (key: string): void => {
    const factor = key === "-" ? 1 / 1.02 : 1.02;
    nudge("scale", { "scale.x": factor, "scale.y": factor });
  };
  return [
    along("", 1, "move", "Move by 1 px"),
    along("Shift+", 10, "move", "Move by 10 px"),
    along("Alt+", 1, "pivot", "Move the pivot by 1 px"),
    turn(["[", "]"], 1, "Rotate by 1° left or right"),
    turn(["{", "}"], 15, "Rotate by 15° left or right"),
    shortcut(["-", "="], "A little smaller, a little larger", size),
  ];
}
