/** What can be done with the picked keys, wherever they are, or with the whole row they are in. */
import { computed, ref, shallowRef } from "vue";
import { isSetting, keyedNames, keysOf } from "@/api/channels";
import { deleteKeys, type Keep } from "@/api/edits";
import type { Edit, Key, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { allKeysOf, keysAt, type Picked, usePicks } from "@/stores/picks";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Keys copied from one object, by channel. Kept while the page is open, so they can go to another scene too. */
export interface Copied {
  readonly from: string;
  readonly keys: ReadonlyMap<string, readonly Key[]>;
  readonly count: number;
}

export interface PasteHow {
  readonly replace: boolean;
  /** Numbers as they are, or shifted so that they begin where each object is. */
  readonly place: "exact" | "own start";
  /** Frames each further object comes later. */
  readonly delay: number;
  readonly onto: readonly string[];
}

const copied = shallowRef<Copied | null>(null);
/** What is about to be deleted to the last key, while the page asks which value stays. */
const clearing = ref<{ name: string; picked: Picked[] } | null>(null);
const pasting = ref(false);
export type Scope = "row" | "object" | "scene" | "frame";

export function useLeafActions() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();

  const rowChannels = computed(() => selection.row?.channels.map((channel) => channel.name) ?? []);
  const keyedChannels = computed(() => rowChannels.value.filter((name) => selection.keysOf(name).length > 0));
  const frames = computed(() => picks.frames);
  const rowFrames = computed(() =>
    [...new Set(keyedChannels.value.flatMap((name) => selection.keysOf(name).map((key) => key.frame)))].sort(
      (a, b) => a - b,
    ),
  );

  const make = (edit: Edit): Promise<boolean | undefined> => scene.edit([edit]);

  /** All keys of the picked row, the picked object, the scene, or all at the playhead. */
  function within(scope: Scope): Picked[] {
    if (scope === "scene") return scene.objects.flatMap(allKeysOf);
    if (scope === "frame")
      return scene.objects.flatMap((thing) => keysAt(thing, keyedNames(thing), new Set([playback.frame])));
    // Of all that are picked together.
    const things = selection.thing ? [selection.thing, ...selection.others] : [];
    return things.flatMap((thing) => (scope === "object" ? allKeysOf(thing) : keysAt(thing, rowChannels.value, null)));
  }
  const pickAll = (scope: Scope = "row"): void => picks.set(within(scope));

  const reverse = () => make({ edit: "reverse-keys", keys: picks.keys });

  async function spread(): Promise<void> {
    const all = frames.value;
    const [first, last] = [all[0]!, all.at(-1)!];
    const places = new Map(all.map((frame, i) => [frame, first + ((last - first) * i) / (all.length - 1)]));
    const next = picks.moved((frame) => places.get(frame) ?? frame);
    if (await make({ edit: "spread-keys", keys: picks.keys })) picks.set(next);
  }

  /** The edit that stretches the picked keys in time about a frame. */
  const stretchEdit = (about: number, factor: number): Edit => ({
    edit: "stretch-keys",
    keys: picks.keys,
    about,
    factor,
  });

  async function stretch(about: number, factor: number): Promise<void> {
    const next = picks.moved((frame) => about + (frame - about) * factor);
    if (await make(stretchEdit(about, factor))) picks.set(next);
  }

  const evenSpeed = async (): Promise<void> => {
    if (
      selection.thing &&
      (await make({ edit: "even-speed", object: selection.thing.id, channels: keyedChannels.value }))
    )
      picks.clear();
  };
  const closeLoop = async (): Promise<void> => {
    if (selection.thing) await make({ edit: "close-loop", object: selection.thing.id, channels: keyedChannels.value });
  };
  const hold = async (frame: number, count: number, push: boolean): Promise<void> => {
    if (selection.thing)
      await make({
        edit: "hold-here",
        object: selection.thing.id,
        channels: keyedChannels.value,
        frame,
        frames: count,
        push,
      });
  };

  const turn = async (times: number, clockwise: boolean): Promise<void> => {
    if (selection.thing && frames.value.length)
      await make({ edit: "turn-times", object: selection.thing.id, frame: frames.value[0]!, times, clockwise });
  };

  /** Copy the picked keys of the picked object; without any, all of its keys. */
  function copy(): number {
    const thing = selection.thing;
    if (!thing) return 0;
    const own = picks.keys.filter((one) => one.object === thing.id);
    const found = new Map(
      (own.length ? own : allKeysOf(thing))
        // All keys of an object are copied without those of its rules; picked ones are meant.
        .filter((one) => own.length || !isSetting(one.channel))
        .map((one) => [one.channel, keysOf(thing, one.channel).filter((key) => one.frames.includes(key.frame))]),
    );
    const count = [...found.values()].reduce((sum, keys) => sum + keys.length, 0);
    copied.value = count ? { from: thing.name, keys: found, count } : null;
    return count;
  }

  /** The edits that paste what was copied onto objects, the first key of the first of them at the playhead. */
  function pasteEdits({ replace, place, delay, onto }: PasteHow): Edit[] {
    if (!copied.value) return [];
    const { keys } = copied.value;
    const first = Math.min(...[...keys.values()].flat().map((key) => key.frame));
    return onto.flatMap((id, n) => {
      const thing = scene.byId.get(id);
      if (!thing) return [];
      // Settings belong to a rule, and outlines to points, that another object may not have.
      const takes = (channel: string): boolean =>
        isSetting(channel)
          ? thing.rules.some((rule) => channel.startsWith(`${rule.id}:`))
          : channel !== "outline" || hasPoints(thing);
      const taken = [...keys].filter(([channel]) => takes(channel));
      return taken.map(([channel, list]): Edit => ({
        edit: "paste-keys",
        object: id,
        channel,
        keys: place === "exact" ? [...list] : list.map((key) => shifted(key, list[0]!, startOf(thing, channel))),
        at: playback.frame + delay * n + Math.min(...list.map((key) => key.frame)) - first,
        replace,
      }));
    });
  }

  /** Where an object is on a channel at the playhead. */
  function startOf(thing: SceneObject, channel: string): Key["value"] | null {
    const baked = scene.motion?.objects.get(thing.id)?.channels;
    const at = (name: string): number | null => {
      const rows = baked?.[name];
      return rows?.width === 1
        ? Number((rows.data[rows.rows > 1 ? Math.min(playback.frame, rows.rows - 1) : 0] ?? 0).toPrecision(7))
        : null;
    };
    if (channel === "path") return [at("x") ?? 0, at("y") ?? 0];
    return at(channel);
  }

  /** Paste onto the picked object, as it is. */
  async function paste(): Promise<void> {
    if (selection.objectId)
      await scene.edit(pasteEdits({ replace: false, place: "exact", delay: 0, onto: [selection.objectId] }));
  }

  const isWhole = (one: Picked): boolean => {
    const thing = scene.byId.get(one.object);
    return Boolean(thing && one.frames.length > 1 && one.frames.length === keysOf(thing, one.channel).length);
  };

  /** Delete keys. Before a moving channel loses its last key, the page asks which value stays. */
  async function remove(which: readonly Picked[] = picks.keys): Promise<void> {
    if (which.some(isWhole)) {
      const names = [...new Set(which.map((one) => scene.byId.get(one.object)?.name ?? ""))];
      clearing.value = { name: names.length > 2 ? `${names.length} objects` : names.join(" and "), picked: [...which] };
      return;
    }
    await drop(which, "first");
  }

  const dropEdits = (which: readonly Picked[], keep: Keep): Edit[] =>
    which.map((one) => deleteKeys(one.object, one.channel, one.frames, keep, playback.frame));

  async function drop(which: readonly Picked[], keep: Keep): Promise<void> {
    if (await scene.edit(dropEdits(which, keep))) picks.clear();
  }

  return {
    frames,
    rowFrames,
    keyedChannels,
    copied,
    clearing,
    pasting,
    within,
    pickAll,
    reverse,
    spread,
    stretch,
    stretchEdit,
    evenSpeed,
    closeLoop,
    hold,
    turn,
    copy,
    pasteEdits,
    paste,
    remove,
    drop,
    dropEdits,
  };
}

/**
 * A key moved so that the first of its list comes to lie at `start`. Colours and what is not known stay as they are.
 */
function shifted(key: Key, first: Key, start: Key["value"] | null): Key {
  if (typeof key.value === "number" && typeof first.value === "number" && typeof start === "number")
    return { ...key, value: Number((key.value - first.value + start).toPrecision(10)) };
  if (isPoint(key.value) && isPoint(first.value) && isPoint(start)) {
    return { ...key, value: [key.value[0] - first.value[0] + start[0], key.value[1] - first.value[1] + start[1]] };
  }
  return key;
}

const isPoint = (held: Key["value"] | null): held is [number, number] => Array.isArray(held);
