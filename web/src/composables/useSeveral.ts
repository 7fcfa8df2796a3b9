/** Several picked objects: moving, aligning, spreading, grouping, copying and deleting them together. */
import { newId } from "@/api/ids";
import type { Edit, SceneObject } from "@/api/types";
import { keysOf, still } from "@/api/channels";
import { deleteKeys } from "@/api/edits";
import { keyable } from "@/composables/useChanging";
import { useTroupe } from "@/composables/useTroupe";
import type { Point } from "@/geometry/matrix";
import type { Change, TypedChange } from "@/geometry/together";
import { colourAt, withParts } from "@/picture/boxes";
import { useDeleting } from "@/stores/deleting";
import { useDrives } from "@/stores/drives";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

type Side = Extract<Edit, { edit: "align-objects" }>["side"];
export type Place = Extract<Edit, { edit: "order-objects" }>["to"];
type Order = NonNullable<Extract<Edit, { edit: "spread-in-time" }>["order"]>;

export function useSeveral() {
  const scene = useScene();
  const selection = useSelection();
  const vocabulary = useVocabulary();
  const playback = usePlayback();
  const troupe = useTroupe();
  const deleting = useDeleting();
  const drives = useDrives();
  const messages = useMessages();

  /** Which they are, where the playhead is, and whether what has no keys shall get some. */
  const together = () => ({ objects: [...selection.picked], frame: playback.frame, key: selection.keyAsIMove });
  /** The picked ones that hang on no other of them. */
  function tops(): SceneObject[] {
    const under = new Set(selection.picked.flatMap((id) => withParts(id, scene.parts).slice(1)));
    return selection.picked.flatMap((id) => (under.has(id) ? [] : (scene.byId.get(id) ?? [])));
  }
  /** Those that are not locked, and no camera: what can be moved, turned and sized. */
  const free = (): string[] =>
    selection.picked.filter((id) => !scene.locked.has(id) && scene.byId.get(id)?.kind !== "camera");
  const handled = () => ({ ...together(), objects: free() });

  const moveEdit = (dx: number, dy: number): Edit => ({ edit: "move-objects", ...handled(), dx, dy });
  const changeEdit = (about: Point, { turn, scale }: Change): Edit => ({
    edit: "transform-objects",
    ...handled(),
    about: [about.x, about.y],
    turn,
    scale: [...scale],
  });
  const align = (side: Side, to: "each-other" | "picture") =>
    scene.edit([{ edit: "align-objects", ...handled(), side, to }]);
  const distribute = (along: "across" | "down", what: "gaps" | "middles") =>
    scene.attempt([{ edit: "distribute-objects", ...handled(), along, what }]);
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
      ...{
        id,
        name: "Group",
        kind: "group" as const,
        parent,
        shown: true,
        pinned: false,
        blurred: true,
        locked: false,
      },
      ...{ tag: null, blend: "normal" as const, span: {}, rules: [] },
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
      messages.withUndo(`${free.length} objects are deleted.`, "Undo", () => void scene.undo());
    }
    selection.pick(read[0]?.id ?? null);
    if (read[0]) await deleting.ask(read[0]);
  }

  /** Give one channel of all that have it a value, or change what each has. */
  const wish = (channel: string, { how, value }: TypedChange | { how: "set"; value: string }): Edit => ({
    edit: "change-values",
    ...together(),
    channel,
    how,
    value,
    key: false,
  });
  const order = (to: Place) => troupe.order(selection.picked, to);
  const lock = (locked: boolean) => troupe.lock(selection.picked, locked);
  const tag = (colour: string | null) => troupe.tag(selection.picked, colour);
  /** Hang all of them on another object or on nothing, where it is none of them and hangs on none of them. */
  const hangOn = (parent: string | null) =>
    scene.attempt(
      tops().map((one): Edit => ({ edit: "reparent-object", id: one.id, parent, keep_at: playback.frame })),
    );

  /** The channels of an object in a row that can have keys in any object. */
  const namesIn = (thing: SceneObject, row: string): string[] =>
    (vocabulary.rowsOf(thing).find((one) => one.name === row)?.channels ?? [])
      .map((one) => one.name)
      .filter((name) => name !== "outline" && name !== "look");

  /** Key a row of all of them that have it as it is, or take those keys away if all have one here. */
  async function toggleKeys(row: string): Promise<void> {
    const frame = playback.frame;
    const all = selection.picked.flatMap((id) => {
      const thing = scene.byId.get(id);
      return thing ? keyable(thing, namesIn(thing, row)).map((channel) => ({ thing, channel })) : [];
    });
    const keyed = all.filter(({ thing, channel }) => keysOf(thing, channel).some((key) => key.frame === frame));
    if (!all.length) return;
    const channels = [
      ...new Set(selection.picked.flatMap((id) => (scene.byId.has(id) ? namesIn(scene.byId.get(id)!, row) : []))),
    ];
    await scene.edit(
      keyed.length === all.length
        ? all.map(({ thing, channel }) => deleteKeys(thing.id, channel, [frame]))
        : [{ edit: "key-objects", objects: [...selection.picked], channels, frame }],
    );
  }

  /** Pick all objects that are like the first picked one. */
  function pickAlike(what: "kind" | "colour" | "tag"): void {
    const lead = selection.object;
    if (!lead) return;
    const like = (one: SceneObject): string =>
      what === "kind"
        ? vocabulary.kindOf(one)
        : what === "tag"
          ? String(one.kind === "dial" ? null : one.tag)
          : colourAt(scene.motion, one, playback.frame);
    const wanted = like(lead);
    const found = scene.objects.filter((one) => like(one) === wanted && !scene.locked.has(one.id));
    selection.pickAll([lead.id, ...found.map((one) => one.id).filter((id) => id !== lead.id)]);
  }

  const show = (shown: boolean) => scene.edit(selection.picked.map((id): Edit => ({ edit: "show-object", id, shown })));

  return {
    ...{ tops, free, moveEdit, changeEdit, align, distribute, spread, group, duplicate, remove, show },
    ...{ wish, order, lock, tag, hangOn, toggleKeys, pickAlike },
  };
}
