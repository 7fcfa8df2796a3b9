/** What the time sheet shows: a lane per object, and for opened ones a lane per row that has keys. */
import { computed, ref, type Ref } from "vue";
import { channelOf, keysOf } from "@/api/channels";
import type { BakedObject } from "@/api/motion";
import type { Channel, End, SceneObject } from "@/api/types";
import { useTroupeTree } from "@/composables/useTroupeTree";
import { speeds } from "@/geometry/curves";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Family, type Row, useVocabulary } from "@/stores/vocabulary";

export interface Lane {
  readonly key: string;
  readonly thing: SceneObject;
  /** How many objects it hangs on, one after the other. */
  readonly depth: number;
  /** Null for the lane of a whole object. */
  readonly row: Row | null;
  /** Of the lane of a figure's limb, under which its rows are folded: the limb. */
  readonly part: string | null;
  readonly family: Family;
  /** Channels with keys that the lane stands for. */
  readonly channels: readonly string[];
  /** Frames of its leaves, in order. */
  readonly frames: readonly number[];
  readonly speed: Float32Array;
  readonly most: number;
  /** Where repeating ends begin a new turn. */
  readonly turns: readonly number[];
  /** Frames at which it meets something: a floor, say. */
  readonly contacts: readonly number[];
  /** What happens after the last key, in words; none where it just holds. */
  readonly after: string;
  /** Whether no channel of it has a second key. */
  readonly lone: boolean;
}

export function useLanes(): {
  lanes: Ref<readonly Lane[]>;
  opened: Ref<ReadonlySet<string>>;
  open: (id: string) => void;
} {
  const scene = useScene();
  const selection = useSelection();
  const vocabulary = useVocabulary();
  const { entries } = useTroupeTree();
  const opened = ref<ReadonlySet<string>>(new Set());

  function open(id: string): void {
    const next = new Set(opened.value);
    if (!next.delete(id)) next.add(id);
    opened.value = next;
  }

  const lanes = computed(() => {
    const list: Lane[] = [];
    for (const { thing, depth } of [...entries.value, ...scene.dials.map((thing) => ({ thing, depth: 0 }))]) {
      const baked = scene.motion?.objects.get(thing.id);
      if (!baked) continue;
      const keyedRows = [...vocabulary.rowsOf(thing), ...vocabulary.settingRowsOf(thing)].filter((row) =>
        row.channels.some((channel) => keysOf(thing, channel.name).length > 0),
      );
      if (selection.onlyMoving && !keyedRows.length && !thing.rules.length && selection.objectId !== thing.id) continue;
      const from = [thing, depth, baked, scene.motion?.length];
      list.push(kept(thing.id, from, () => objectLane(thing, depth, baked, keyedRows)));
      // The lane of a dial is that of its one value.
      if (thing.kind === "dial") continue;
      if (opened.value.has(thing.id) || selection.objectId === thing.id)
        for (const [part, rows] of Map.groupBy(keyedRows, (row) => row.part ?? null)) {
          // One row alone needs no fold.
          const folds = part !== null && rows.length > 1;
          if (folds) list.push(kept(`${thing.id} part ${part}`, from, () => partLane(thing, depth, baked, part, rows)));
          if (!folds || selection.isLimbOpen(thing.id, part))
            list.push(
              ...rows.map((row) => kept(`${thing.id} ${row.name}`, from, () => rowLane(thing, depth, baked, row))),
            );
        }
    }
    return list;
  });

  /** Lanes as last made, so that what has not changed is the same lane and is not drawn again. */
  const made = new Map<string, { from: readonly unknown[]; lane: Lane }>();

  function kept(key: string, from: readonly unknown[], make: () => Lane): Lane {
    const was = made.get(key);
    if (was && was.from.every((part, i) => part === from[i])) return was.lane;
    const lane = make();
    made.set(key, { from, lane });
    return lane;
  }

  function objectLane(thing: SceneObject, depth: number, baked: BakedObject, rows: readonly Row[]): Lane {
    const channels = rows
      .flatMap((row) => row.channels.map((channel) => channel.name))
      .filter((name) => keysOf(thing, name).length > 0);
    const leading = rows[0];
    // What moves by rules alone has a stem too, with no leaves on it.
    const ruled = thing.rules.flatMap((rule) => (rule.on && rule.channels !== "keyed" ? rule.channels : []));
    const family =
      leading?.family ?? vocabulary.channelsOf(thing).find((channel) => channel.name === ruled[0])?.family ?? "travel";
    return lane(
      thing,
      depth,
      baked,
      thing.kind === "dial" ? (vocabulary.rowsOf(thing)[0] ?? null) : null,
      family,
      channels,
      leading ? leading.channels.map((channel) => channel.name) : ruled,
    );
  }

  /** The lane of a limb: the leaves of all its rows. */
  function partLane(thing: SceneObject, depth: number, baked: BakedObject, part: string, rows: readonly Row[]): Lane {
    const all: Row = {
      name: `all of ${part}`,
      family: rows[0]?.family ?? "travel",
      channels: rows.flatMap((row) => row.channels),
    };
    return { ...rowLane(thing, depth, baked, all), key: `${thing.id} part ${part}`, part };
  }

  function rowLane(thing: SceneObject, depth: number, baked: BakedObject, row: Row): Lane {
    const channels = row.channels.map((channel) => channel.name).filter((name) => keysOf(thing, name).length > 0);
    return lane(
      thing,
      depth,
      baked,
      row,
      row.family,
      channels,
      row.channels.map((channel) => channel.name),
    );
  }

  function lane(
    thing: SceneObject,
    depth: number,
    baked: BakedObject,
    row: Row | null,
    family: Family,
    channels: readonly string[],
    moving: readonly string[],
  ): Lane {
    const lists = channels.map((name) => keysOf(thing, name));
    const frames = [...new Set(lists.flatMap((keys) => keys.map((key) => key.frame)))].sort((a, b) => a - b);
    const speed = speeds(
      moving.flatMap((name) => (baked.channels[name]?.width === 1 ? [baked.channels[name].data] : [])),
      scene.motion?.length ?? 0,
    );
    const ends = channels
      .map((name) => channelOf(thing, name))
      .find((channel) => channel && channel.after.mode !== "hold") as Channel | undefined;
    return {
      key: `${thing.id} ${row?.name ?? ""}`,
      thing,
      depth,
      row,
      part: null,
      family,
      channels,
      frames,
      speed,
      most: speed.reduce((a, b) => Math.max(a, b), 0),
      turns: row ? [...new Set(channels.flatMap((name) => baked.turns[name] ?? []))].sort((a, b) => a - b) : [],
      contacts: !row || row.name === "Travel" ? baked.contacts : [],
      after: ends ? endWords(ends.after) : "",
      lone: lists.length > 0 && lists.every((keys) => keys.length === 1),
    };
  }

  return { lanes, opened, open };
}

/** An end in words, such as "ping-pong ∞" or "loop ×3". */
export const endWords = (end: End): string =>
  end.mode === "hold" ? "hold" : `${end.mode} ${end.times === null || end.times === undefined ? "∞" : `×${end.times}`}`;
