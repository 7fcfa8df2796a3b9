/** Which row of the picked object is picked, the channel of it that the vine explains, and the leaves picked there. */
import { computed, type Ref, ref } from "vue";
import { keysOf as keysIn } from "@/api/channels";
import type { Key, SceneObject } from "@/api/types";
import { keysAt, type usePicks } from "@/stores/picks";
import { namesOf, type Row, type useVocabulary } from "@/stores/vocabulary";

/** The selected object or dial. */
export function usePickedRow(
  thing: Readonly<Ref<SceneObject | null>>,
  vocabulary: ReturnType<typeof useVocabulary>,
  picks: ReturnType<typeof usePicks>,
) {
  const rowName = ref("Travel");
  const channelName = ref<string | null>(null);

  const rows = computed(() => (thing.value ? vocabulary.rowsOf(thing.value) : []));
  /** The picked row, which can be a keyed setting of a rule. */
  const row = computed<Row | null>(
    () =>
      (thing.value
        ? [...rows.value, ...vocabulary.settingRowsOf(thing.value)].find((one) => one.name === rowName.value)
        : undefined) ??
      rows.value[0] ??
      null,
  );
  const keysOf = (name: string): readonly Key[] => (thing.value ? keysIn(thing.value, name) : []);
  /** The channel the vine explains: the one chosen, else the row's first with keys, else its first. */
  const channel = computed(() => {
    const within = row.value?.channels ?? [];
    return (
      within.find((one) => one.name === channelName.value) ??
      within.find((one) => keysOf(one.name).length > 0) ??
      within.find((one) => one.unit !== "point") ??
      null
    );
  });

  const names = computed(() => (row.value ? namesOf(row.value) : []));
  /** Frames of the picked leaves within the picked row; setting them picks those and no others. */
  const leaves = computed<ReadonlySet<number>>({
    get: () =>
      new Set(
        picks.keys
          .filter((one) => one.object === thing.value?.id && names.value.includes(one.channel))
          .flatMap((one) => one.frames),
      ),
    set: (frames) => picks.set(thing.value ? keysAt(thing.value, names.value, frames) : []),
  });

  /** Pick a row; picked keys of another are released unless they are to be kept. */
  function pickRow(name: string, channel: string | null = null, keepKeys = false): void {
    if (name !== rowName.value && !keepKeys) picks.clear();
    rowName.value = name;
    channelName.value = channel;
  }

  return { rowName, channelName, rows, row, channel, leaves, keysOf, pickRow };
}
