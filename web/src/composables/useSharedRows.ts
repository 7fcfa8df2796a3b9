/** The values that all picked objects have, row by row, and whether they agree at the playhead. */
import { computed } from "vue";
import { holdsNumbers, keysOf } from "@/api/channels";
import { writtenAt, valuesAt } from "@/api/motion";
import type { ChannelWords, SceneObject } from "@/api/types";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Row, useVocabulary } from "@/stores/vocabulary";

/** A channel of all of them: the value they share, or null where they differ, and what they lie between. */
export interface SharedChannel {
  readonly words: ChannelWords;
  readonly number: number | null;
  readonly colour: string | null;
  readonly from: number;
  readonly to: number;
}
export interface SharedRow {
  readonly row: Row;
  readonly channels: readonly SharedChannel[];
  /** Whether all have a key here, some have keys, or none has any. */
  readonly leaf: "here" | "elsewhere" | "none";
}

/** Numbers that differ by less than this share of their size are one: they came through 32 bits. */
const SAME = 1e-6;

export function useSharedRows() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  const things = computed(() => selection.picked.flatMap((id): SceneObject | [] => scene.byId.get(id) ?? []));
  /** The rows all of them have, with only the channels all of them have. */
  const rows = computed((): Row[] => {
    const [lead, ...others] = things.value;
    if (!lead) return [];
    const known = others.map((one) => new Set(vocabulary.channelsOf(one).map((words) => words.name)));
    return vocabulary.rowsOf(lead).flatMap((row): Row[] => {
      const channels = row.channels.filter(
        (words) => (holdsNumbers(words) || words.unit === "colour") && known.every((names) => names.has(words.name)),
      );
      const seen = row.name !== "Depth" || (scene.camera !== null && things.value.every((one) => !one.parent));
      return channels.length && seen ? [{ ...row, channels }] : [];
    });
  });

  function shared(words: ChannelWords): SharedChannel {
    const baked = things.value.flatMap((one) => scene.motion?.objects.get(one.id)?.channels[words.name] ?? []);
    if (words.unit === "colour") {
      const all = new Set(baked.map((array) => hexOf(valuesAt(array, playback.textFrame))));
      return { words, number: null, colour: all.size === 1 ? [...all][0]! : null, from: 0, to: 0 };
    }
    const all = baked.map((array) => writtenAt(array, playback.textFrame));
    const [from, to] = [Math.min(...all), Math.max(...all)];
    const same = to - from <= SAME * Math.max(1, Math.abs(from), Math.abs(to));
    return { words, number: same && all.length ? (all[0] ?? null) : null, colour: null, from, to };
  }

  function leafOf(row: Row): SharedRow["leaf"] {
    // Where an object follows a path, the keys of its place are those of the path.
    const keyed = things.value.map((one) =>
      (vocabulary.rowsOf(one).find((other) => other.name === row.name)?.channels ?? []).flatMap((words) =>
        keysOf(one, words.name),
      ),
    );
    if (keyed.every((keys) => keys.some((key) => key.frame === playback.textFrame))) return "here";
    return keyed.some((keys) => keys.length) ? "elsewhere" : "none";
  }

  return computed((): SharedRow[] =>
    rows.value.map((row) => ({ row, channels: row.channels.map(shared), leaf: leafOf(row) })),
  );
}
