/** Making a group of the picked objects, and hanging them all on another. */
import { newId } from "@/api/ids";
import type { Edit, SceneObject } from "@/api/types";
import { usePicked } from "@/composables/several/usePicked";
import { newObject } from "@/composables/troupe/kinds";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useGrouping() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const { tops } = usePicked();

  /**
   * Make a group of them; they stay where they are. Only the children of the same can be grouped: else the answer says
   * so.
   */
  async function group(): Promise<string | null> {
    const all = tops();
    const parents = new Set(all.map((one) => one.parent ?? null));
    const [parent = null] = parents;
    if (parents.size > 1) return "Attach them to the same parent first: grouped objects move together.";
    const id = newId();
    const base = (one: SceneObject, name: string): number => Number(one.channels?.[name]?.base ?? 0);
    const mean = (name: string): number =>
      Number((all.reduce((sum, one) => sum + base(one, name), 0) / Math.max(1, all.length)).toFixed(2));
    const object = { ...newObject("group", id, { x: mean("x"), y: mean("y") }), parent };
    const hang = all.map((one): Edit => ({ edit: "reparent-object", id: one.id, parent: id, keep_at: playback.frame }));
    if (await scene.edit([{ edit: "add-object", object }, ...hang])) {
      selection.pick(id);
      selection.renaming = id;
    }
    return null;
  }

  /** Hang all of them on another object or on nothing, where it is none of them and is attached to none of them. */
  const hangOn = (parent: string | null) =>
    scene.attempt(
      tops().map((one): Edit => ({ edit: "reparent-object", id: one.id, parent, keep_at: playback.frame })),
    );

  return { group, hangOn };
}
