/** Making the lanes of the time sheet: of a whole object, of a limb of a figure, of a row. */
import { channelOf, keysOf } from "@/api/channels";
import { isDial } from "@/api/kinds";
import type { BakedObject } from "@/api/motion";
import type { End, SceneObject } from "@/api/types";
import { speeds } from "@/geometry/curves";
import { useScene } from "@/stores/scene";
import { type Family, namesOf, type Row, useVocabulary } from "@/stores/vocabulary";

export interface Lane {
  readonly key: string;
  readonly thing: SceneObject;
  /** How many objects it is attached to, one after the other. */
  readonly depth: number;
  /** Null for the lane of a whole object. */
  readonly row: Row | null;
  /** Of the lane of a figure's limb, under which its rows are folded: the limb. */
  readonly part: string | null;
  readonly family: Family;
  /** Channels with keys that the lane represents. */
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

/**
 * What a lane is made from: where it belongs, its row, the channels whose keys it shows, and those whose speed it
 * shows.
 */
type Origin = Pick<Lane, "thing" | "depth" | "row" | "family" | "channels"> & { readonly moving: readonly string[] };

export function useLaneMaking() {
  const scene = useScene();
  const vocabulary = useVocabulary();

  function objectLane(thing: SceneObject, depth: number, baked: BakedObject, rows: readonly Row[]): Lane {
    const channels = rows.flatMap((row) => keyedIn(thing, row));
    const leading = rows[0];
    // What moves by rules alone has a stem too, with no leaves on it.
    const ruled = thing.rules.flatMap((rule) => (rule.on && rule.channels !== "keyed" ? rule.channels : []));
    const family =
      leading?.family ?? vocabulary.channelsOf(thing).find((channel) => channel.name === ruled[0])?.family ?? "travel";
    const row = isDial(thing) ? (vocabulary.rowsOf(thing)[0] ?? null) : null;
    return lane({ thing, depth, row, family, channels, moving: leading ? namesOf(leading) : ruled }, baked);
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

  const rowLane = (thing: SceneObject, depth: number, baked: BakedObject, row: Row): Lane =>
    lane({ thing, depth, row, family: row.family, channels: keyedIn(thing, row), moving: namesOf(row) }, baked);

  function lane({ moving, ...origin }: Origin, baked: BakedObject): Lane {
    const { thing, row, channels } = origin;
    const lists = channels.map((name) => keysOf(thing, name));
    const frames = [...new Set(lists.flatMap((keys) => keys.map((key) => key.frame)))].sort((a, b) => a - b);
    const speed = speeds(
      moving.flatMap((name) => (baked.channels[name]?.width === 1 ? [baked.channels[name].data] : [])),
      scene.calmMotion?.length ?? 0,
    );
    const ends = channels
      .map((name) => channelOf(thing, name))
      .find((channel) => channel && channel.after.mode !== "hold");
    return {
      ...origin,
      key: `${thing.id} ${row?.name ?? ""}`,
      part: null,
      frames,
      speed,
      most: speed.reduce((a, b) => Math.max(a, b), 0),
      turns: row ? [...new Set(channels.flatMap((name) => baked.turns[name] ?? []))].sort((a, b) => a - b) : [],
      contacts: !row || row.name === "Travel" ? baked.contacts : [],
      after: ends ? endWords(ends.after) : "",
      lone: lists.length > 0 && lists.every((keys) => keys.length === 1),
    };
  }

  return { objectLane, partLane, rowLane };
}

/** The channels of a row that have keys. */
const keyedIn = (thing: SceneObject, row: Row): string[] =>
  namesOf(row).filter((name) => keysOf(thing, name).length > 0);

/** An end in words, such as "ping-pong ∞" or "loop ×3". */
export const endWords = (end: End): string =>
  end.mode === "hold" ? "hold" : `${end.mode} ${end.times === null || end.times === undefined ? "∞" : `×${end.times}`}`;
