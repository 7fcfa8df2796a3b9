/**
 * What can be done to objects of the troupe: copying them, hanging them on each other, ordering and taking them out.
 */
import { isDial } from "@/api/dials";
import { newId } from "@/api/ids";
import type { Edit } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useDeleting } from "@/stores/deleting";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useTroupe() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const deleting = useDeleting();

  /** Copy objects with their descendants, in one step, and pick the copies; dials are not copied. */
  async function duplicate(ids: readonly string[]): Promise<void> {
    const objects = ids.filter((id) => !isDial(id));
    const prefix = newId();
    if (objects.length && (await scene.edit([{ edit: "duplicate-objects", objects, prefix }])))
      selection.pickAll(objects.map((_, n) => `${prefix}-${n + 1}`));
  }

  /** Take an object out, with its descendants, or a dial. What others read is asked about first. */
  async function remove(id: string): Promise<void> {
    const thing = scene.byId.get(id);
    if (thing) await deleting.ask(thing);
  }

  const hangOn = (id: string, parent: string | null) =>
    scene.edit([{ edit: "reparent-object", id, parent, keep_at: playback.frame }]);
  const pin = (id: string, pinned: boolean) => scene.edit([{ edit: "pin-object", id, pinned }]);
  const show = (id: string, shown: boolean) => scene.edit([{ edit: "show-object", id, shown }]);

  const lock = (ids: readonly string[], locked: boolean) =>
    scene.edit([{ edit: "lock-objects", objects: [...ids], locked }]);
  const tag = (ids: readonly string[], colour: string | null) =>
    scene.edit([{ edit: "tag-objects", objects: [...ids], tag: colour }]);

  /** Move objects, with their descendants, within the drawing order. */
  const order = (
    ids: readonly string[],
    to: Extract<Edit, { edit: "order-objects" }>["to"],
    other: string | null = null,
  ) => scene.attempt([{ edit: "order-objects", objects: [...ids], to, other }]);

  /** Select the next object in the Troupe, towards the back (1) or the front (−1). */
  function pickNext(by: 1 | -1): void {
    const ids = scene.objects.map((one) => one.id).reverse();
    const at = selection.objectId ? ids.indexOf(selection.objectId) : by > 0 ? -1 : ids.length;
    selection.pick(ids[(at + by + ids.length) % ids.length] ?? null);
  }

  return { duplicate, remove, hangOn, pin, show, lock, tag, order, pickNext };
}
