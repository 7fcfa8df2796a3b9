/** Which keys are picked, on any lanes of any objects. */
import { defineStore } from "pinia";
import { computed, shallowRef } from "vue";
import { keyedNames, keysOf } from "@/api/channels";
import type { Key, SceneObject } from "@/api/types";
import { useScene } from "@/stores/scene";

/** Some keys of one channel, by their frames. */
export interface Picked {
  object: string;
  channel: string;
  frames: number[];
}

/** The keys an object has in some channels at some frames (at any, if none are given). */
export function keysAt(thing: SceneObject, channels: readonly string[], frames: ReadonlySet<number> | null): Picked[] {
  return channels.flatMap((channel) => {
    const own = keysOf(thing, channel)
      .map((key) => key.frame)
      .filter((frame) => !frames || frames.has(frame));
    return own.length ? [{ object: thing.id, channel, frames: own }] : [];
  });
}

/** All keys of an object. */
export const allKeysOf = (thing: SceneObject): Picked[] => keysAt(thing, keyedNames(thing), null);

const lineOf = (object: string, channel: string): string => `${object} ${channel}`;

export const usePicks = defineStore("picks", () => {
  const scene = useScene();
  const lines = shallowRef<ReadonlyMap<string, ReadonlySet<number>>>(new Map());

  /** The picked keys that there are (still). */
  const keys = computed((): Picked[] =>
    [...lines.value].flatMap(([line, frames]) => {
      const [object = "", channel = ""] = line.split(" ");
      const thing = scene.byId.get(object);
      return thing ? keysAt(thing, [channel], frames) : [];
    }),
  );
  const frames = computed(() => [...new Set(keys.value.flatMap((one) => one.frames))].sort((a, b) => a - b));
  const count = computed(() => keys.value.reduce((sum, one) => sum + one.frames.length, 0));

  const has = (object: string, channel: string, frame: number): boolean =>
    lines.value.get(lineOf(object, channel))?.has(frame) ?? false;
  /** Whether all of some keys are picked; never if there are none. */
  const hasAll = (picked: readonly Picked[]): boolean =>
    picked.length > 0 && picked.every((one) => one.frames.every((frame) => has(one.object, one.channel, frame)));

  function clear(): void {
    if (lines.value.size) lines.value = new Map();
  }

  function add(picked: readonly Picked[], to: ReadonlyMap<string, ReadonlySet<number>> = lines.value): void {
    const next = new Map(to);
    for (const one of picked) {
      const line = lineOf(one.object, one.channel);
      next.set(line, new Set([...(next.get(line) ?? []), ...one.frames]));
    }
    lines.value = next;
  }

  const set = (picked: readonly Picked[]): void => add(picked, new Map());

  function remove(picked: readonly Picked[]): void {
    const next = new Map(lines.value);
    for (const one of picked) {
      const left = new Set(
        [...(next.get(lineOf(one.object, one.channel)) ?? [])].filter((frame) => !one.frames.includes(frame)),
      );
      if (left.size) next.set(lineOf(one.object, one.channel), left);
      else next.delete(lineOf(one.object, one.channel));
    }
    lines.value = next;
  }

  /** The same keys after they were moved to other frames. */
  const moved = (to: (frame: number) => number): Picked[] =>
    keys.value.map((one) => ({ ...one, frames: one.frames.map(to) }));

  return { keys, frames, count, has, hasAll, clear, add, set, remove, moved };
});

export const keyAt = (thing: SceneObject, channel: string, frame: number): Key | undefined =>
  keysOf(thing, channel).find((key) => key.frame === frame);
