/** What can be done with the picked leaves, or with the whole row they are in. */
import { computed, ref, shallowRef } from "vue";
import { deleteKeys, type Keep } from "@/api/edits";
import type { Edit, Key, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Some keys of one channel, by their frames. */
export interface Picked {
  object: string;
  channel: string;
  frames: number[];
}

/** The keys an object has in some channels at some frames. */
export function keysAt(thing: SceneObject, channels: readonly string[], frames: ReadonlySet<number>): Picked[] {
  return channels.flatMap((channel) => {
    const own = (thing.channels?.[channel]?.keys ?? []).map((key) => key.frame).filter((frame) => frames.has(frame));
    return own.length ? [{ object: thing.id, channel, frames: own }] : [];
  });
}

/** Keys copied from an object, by channel. Kept while the page is open, so they can go to another scene too. */
const copied = shallowRef<ReadonlyMap<string, readonly Key[]> | null>(null);
/** What is about to be deleted to the last key, while the page asks which value stays. */
const clearing = ref<{ name: string; picked: Picked[] } | null>(null);

export function useLeafActions() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  const keysOf = (thing: SceneObject, channel: string): readonly Key[] => thing.channels?.[channel]?.keys ?? [];
  const rowChannels = computed(() => selection.row?.channels.map((channel) => channel.name) ?? []);
  const keyedChannels = computed(() => rowChannels.value.filter((name) => selection.keysOf(name).length > 0));

  /** The picked keys, by channel of the picked row. */
  const picked = computed((): Picked[] => (selection.thing ? keysAt(selection.thing, rowChannels.value, selection.leaves) : []));
  const frames = computed(() => [...new Set(picked.value.flatMap((one) => one.frames))].sort((a, b) => a - b));
  const rowFrames = computed(() => [...new Set(keyedChannels.value.flatMap((name) => selection.keysOf(name).map((key) => key.frame)))].sort((a, b) => a - b));

  const make = (edit: Edit): Promise<boolean | undefined> => scene.edit([edit]);
  const pickAll = (): void => void (selection.leaves = new Set(rowFrames.value));
  const reverse = () => make({ edit: "reverse-keys", keys: picked.value });

  async function spread(): Promise<void> {
    const [first, last] = [frames.value[0]!, frames.value.at(-1)!];
    const count = frames.value.length;
    if (await make({ edit: "spread-keys", keys: picked.value })) selection.leaves = new Set(frames.value.map((_, i) => first + ((last - first) * i) / (count - 1)));
  }

  /** The edit that stretches the picked leaves in time about a frame. */
  const stretchEdit = (about: number, factor: number): Edit => ({ edit: "stretch-keys", keys: picked.value, about, factor });

  async function stretch(about: number, factor: number): Promise<void> {
    const moved = new Set(frames.value.map((frame) => about + (frame - about) * factor));
    if (await make(stretchEdit(about, factor))) selection.leaves = moved;
  }

  const evenSpeed = async (): Promise<void> => {
    if (selection.thing && (await make({ edit: "even-speed", object: selection.thing.id, channels: keyedChannels.value }))) selection.leaves = new Set();
  };
  const closeLoop = async (): Promise<void> => {
    if (selection.thing) await make({ edit: "close-loop", object: selection.thing.id, channels: keyedChannels.value });
  };
  const hold = async (frame: number, count: number, push: boolean): Promise<void> => {
    if (selection.thing) await make({ edit: "hold-here", object: selection.thing.id, channels: keyedChannels.value, frame, frames: count, push });
  };

  /** Copy the picked leaves; without any, all keys of the picked object. */
  function copy(): number {
    const thing = selection.thing;
    if (!thing) return 0;
    const wanted = selection.leaves.size ? rowChannels.value : Object.keys(thing.channels ?? {});
    const found = wanted.flatMap((channel): [string, readonly Key[]][] => {
      const keys = keysOf(thing, channel).filter((key) => !selection.leaves.size || selection.leaves.has(key.frame));
      return keys.length ? [[channel, keys]] : [];
    });
    copied.value = found.length ? new Map(found) : null;
    return found.reduce((sum, [, keys]) => sum + keys.length, 0);
  }

  /** Paste what was copied onto the picked object, its first key at the playhead. */
  async function paste(replace = false): Promise<void> {
    const thing = selection.thing;
    if (!thing || !copied.value) return;
    const first = Math.min(...[...copied.value.values()].flat().map((key) => key.frame));
    const edits = [...copied.value].map(([channel, keys]): Edit => ({
      edit: "paste-keys",
      object: thing.id,
      channel,
      keys: [...keys],
      at: playback.frame + Math.min(...keys.map((key) => key.frame)) - first,
      replace,
    }));
    await scene.edit(edits);
  }

  /** Delete the picked leaves. Before a moving channel loses its last key, the page asks which value stays. */
  async function remove(which: readonly Picked[] = picked.value): Promise<void> {
    const thing = selection.thing;
    const all = thing && which.some((one) => one.frames.length > 1 && one.frames.length === keysOf(thing, one.channel).length);
    if (thing && all) {
      clearing.value = { name: `${thing.name}, ${selection.row?.name.toLowerCase() ?? ""}`, picked: [...which] };
      return;
    }
    await drop(which, "first");
  }

  const dropEdits = (which: readonly Picked[], keep: Keep): Edit[] => which.map((one) => deleteKeys(one.object, one.channel, one.frames, keep, playback.frame));

  async function drop(which: readonly Picked[], keep: Keep): Promise<void> {
    if (await scene.edit(dropEdits(which, keep))) selection.leaves = new Set();
  }

  return { picked, frames, rowFrames, keyedChannels, copied, clearing, pickAll, reverse, spread, stretch, stretchEdit, evenSpeed, closeLoop, hold, copy, paste, remove, drop, dropEdits };
}
