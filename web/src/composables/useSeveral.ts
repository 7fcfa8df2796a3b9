/** Several picked objects: moving, aligning, spreading, grouping, copying and deleting them together. */
import { newId } from "@/api/ids";
import type { Edit, SceneObject } from "@/api/types";
import { still } from "@/api/channels";
import { useTroupe } from "@/composables/useTroupe";
import { withParts } from "@/picture/boxes";
import { useDeleting } from "@/stores/deleting";
import { useDrives } from "@/stores/drives";
import { usePlayback } from "@/stores/playback";
import { useSaid } from "@/stores/said";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

type Side = Extract<Edit, { edit: "align-objects" }>["side"];
type Order = NonNullable<Extract<Edit, { edit: "spread-in-time" }>["order"]>;

export function useSeveral() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const troupe = useTroupe();
  const deleting = useDeleting();
  const drives = useDrives();
  const said = useSaid();

  /** Which they are, where the playhead is, and whether what has no keys shall get some. */
  const together = () => ({ objects: [...selection.picked], frame: playback.frame, key: selection.keyAsIMove });
  /** The picked ones that hang on no other of them. */
  function tops(): SceneObject[] {
    const under = new Set(selection.picked.flatMap((id) => withParts(id, scene.parts).slice(1)));
    return selection.picked.flatMap((id) => (under.has(id) ? [] : (scene.byId.get(id) ?? [])));
  }

  const moveEdit = (dx: number, dy: number): Edit => ({ edit: "move-objects", ...together(), dx, dy });
  const align = (side: Side, to: "each-other" | "picture") =>
    scene.edit([{ edit: "align-objects", ...together(), side, to }]);
  const distribute = (along: "across" | "down", what: "gaps" | "middles") =>
    scene.attempt([{ edit: "distribute-objects", ...together(), along, what }]);
  const spread = (later: number, order: Order, how: "keys" | "rule", seed: number) =>
    scene.edit([{ edit: "spread-in-time", ...together(), later, order, how, seed }]);

  /** Make a group of them; they stay where they are. Only what hangs on the same can be grouped: else the answer says so. */
  async function group(): Promise<string | null> {
    const all = tops();
    const parents = new Set(all.map((one) => one.parent ?? null));
    const [parent = null] = parents;
    if (parents.size > 1) return "Hang them on the same thing first: what is grouped moves together.";
    const id = newId();
    const base = (one: SceneObject, name: string): number => Number(one.channels?.[name]?.base ?? 0);
    const mean = (name: string): number =>
      Number((all.reduce((sum, one) => sum + base(one, name), 0) / Math.max(1, all.length)).toFixed(2));
    const object = {
      ...{ id, name: "Group", kind: "group" as const, parent, shown: true, pinned: false, blurred: true },
      ...{ blend: "normal" as const, span: {}, rules: [] },
      channels: { x: still(mean("x")), y: still(mean("y")) },
    };
    const hang = all.map((one): Edit => ({ edit: "reparent-object", id: one.id, parent: id, keep_at: playback.frame }));
    if (await scene.edit([{ edit: "add-object", object }, ...hang])) {
      selection.pick(id);
      selection.renaming = id;
    }
    return null;
  }

  async function duplicate(): Promise<void> {
    await troupe.duplicateAll(tops().map((one) => one.id));
  }

  /** Take them out together, but for those that others read: the first of these is picked and asked about. */
  async function remove(): Promise<void> {
    const all = tops();
    const read = all.filter((one) => drives.readersOf(one.id).length);
    const free = all.filter((one) => !read.includes(one));
    if (free.length) {
      const done = await scene.edit(free.map((one): Edit => ({ edit: "delete-object", id: one.id })));
      if (!done) return;
      said.withUndo(`${free.length} objects are deleted.`, "Undo", () => void scene.undo());
    }
    selection.pick(read[0]?.id ?? null);
    if (read[0]) await deleting.ask(read[0]);
  }

  const show = (shown: boolean) => scene.edit(selection.picked.map((id): Edit => ({ edit: "show-object", id, shown })));

  return { moveEdit, align, distribute, spread, group, duplicate, remove, show };
}
