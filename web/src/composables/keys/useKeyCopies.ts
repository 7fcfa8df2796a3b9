/** Copying the picked keys of an object, and pasting them onto that or onto others. */
import { ref, shallowRef } from "vue";
import { isSetting, keysOf } from "@/api/channels";
import { writtenAt } from "@/api/motion";
import type { Edit, Key, SceneObject } from "@/api/types";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import { allKeysOf, type Picked, usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
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
const pasting = ref(false);

export function useKeyCopies() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();

  /** The picked keys of the picked object. */
  const own = (): Picked[] => picks.keys.filter((one) => one.object === selection.thing?.id);

  /** Copy the picked keys of the picked object; without any, all of its keys. */
  function copy(): number {
    const thing = selection.thing;
    if (!thing) return 0;
    const picked = own();
    const found = new Map(
      (picked.length ? picked : allKeysOf(thing))
        // All keys of an object are copied without those of its rules; picked ones are meant.
        .filter((one) => picked.length || !isSetting(one.channel))
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
      return rows?.width === 1 ? writtenAt(rows, playback.frame) : null;
    };
    if (channel === "path") return [at("x") ?? 0, at("y") ?? 0];
    return at(channel);
  }

  /** Paste onto the selected object. */
  async function paste(): Promise<void> {
    if (selection.objectId)
      await scene.edit(pasteEdits({ replace: false, place: "exact", delay: 0, onto: [selection.objectId] }));
  }

  return { copied, pasting, own, copy, pasteEdits, paste };
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
