/** Dials of the scene: adding, naming, ranging and removing them. */
import { newId } from "@/api/ids";
import type { Dial, DialThing, Edit } from "@/api/types";
import { useDeleting } from "@/stores/deleting";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const HOLD = { mode: "hold" as const, times: null };

export function useDials() {
  const scene = useScene();
  const selection = useSelection();
  const deleting = useDeleting();

  /** Put a dial into the scene and begin to name it: a share from 0 to 1, or a colour. */
  async function add(kind: "number" | "colour"): Promise<void> {
    const id = newId();
    const colour = kind === "colour";
    const dial = {
      id,
      name: colour ? "Light" : "Dial",
      unit: "",
      low: colour ? null : 0,
      high: colour ? null : 1,
      channel: { base: colour ? "#F6D58A" : 0.5, keys: [], before: HOLD, after: HOLD },
    } as Dial;
    if (await scene.edit([{ edit: "add-dial", dial }])) {
      selection.pick(`dial:${id}`);
      selection.renaming = `dial:${id}`;
    }
  }

  const set = (thing: DialThing, change: Partial<Pick<Dial, "name" | "unit" | "low" | "high" | "follows">>) =>
    scene.attempt([{ edit: "set-dial", id: thing.dial.id, ...change } as Edit]);
  const remove = (thing: DialThing): void => void deleting.ask(thing);

  return { add, set, remove };
}
