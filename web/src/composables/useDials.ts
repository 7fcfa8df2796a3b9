/** Dials of the scene: adding, naming, ranging and removing them. */
import { still } from "@/api/channels";
import { newId } from "@/api/ids";
import type { Dial, DialThing, Edit } from "@/api/types";
import { useDeleting } from "@/stores/deleting";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useDials() {
  const scene = useScene();
  const selection = useSelection();
  const deleting = useDeleting();

  /**
   * Put a dial into the scene and pick it, with whatever else goes with it in one step; its id, or null where it is
   * refused.
   */
  async function make(
    dial: Partial<Dial> & Pick<Dial, "name" | "channel">,
    also: (id: string) => Edit[] = () => [],
  ): Promise<string | null> {
    const id = newId();
    const whole: Dial = { unit: "", low: 0, high: 1, ...dial, id, name: dial.name.slice(0, 80) };
    if (!(await scene.edit([{ edit: "add-dial", dial: whole }, ...also(id)]))) return null;
    selection.pick(`dial:${id}`);
    return id;
  }

  /** Put a dial into the scene and begin to name it: a share from 0 to 1, or a colour. */
  async function add(kind: "number" | "colour"): Promise<void> {
    const id = await (kind === "colour"
      ? make({ name: "Light", low: null, high: null, channel: still("#F6D58A") })
      : make({ name: "Dial", channel: still(0.5) }));
    if (id) selection.renaming = `dial:${id}`;
  }

  const set = (thing: DialThing, change: Partial<Pick<Dial, "name" | "unit" | "low" | "high" | "follows">>) =>
    scene.attempt([{ edit: "set-dial", id: thing.dial.id, ...change } as Edit]);
  const remove = (thing: DialThing): void => void deleting.ask(thing);

  return { add, make, set, remove };
}
