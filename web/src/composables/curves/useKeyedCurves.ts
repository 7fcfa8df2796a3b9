/** The curves of the picked object's channels that are keyed or ruled, whatever their values are. */
import { computed, ref, watch } from "vue";
import { isSetting, holdsNumbers } from "@/api/channels";
import { api } from "@/api/client";
import type { Rows } from "@/api/motion";
import type { ChannelWords, Key } from "@/api/types";
import { luma } from "@/geometry/colour";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export interface KeyedCurve {
  readonly words: ChannelWords;
  readonly keys: readonly Key[];
  /** One number per frame: the value, the way passed along a path, or how light a colour is. */
  readonly values: readonly number[];
  /** The values its keys alone give, where rules act on it. */
  readonly keyed: readonly number[] | null;
  /** Whether its keys can be dragged up and down. */
  readonly isNumber: boolean;
}

export function useKeyedCurves() {
  const scene = useScene();
  const selection = useSelection();
  const vocabulary = useVocabulary();
  const ruled = ref<ReadonlyMap<string, readonly number[]>>(new Map());

  const actsOn = (name: string): boolean =>
    !isSetting(name) &&
    (selection.thing?.rules ?? []).some(
      (rule) => rule.on && (rule.channels === "keyed" || rule.channels.includes(name)),
    );
  /** Whether a rule says by name that it acts on a channel, keyed or not. */
  const isRuled = (name: string): boolean =>
    (selection.thing?.rules ?? []).some((rule) => rule.on && rule.channels !== "keyed" && rule.channels.includes(name));
  const channels = computed(() =>
    selection.thing
      ? [
          ...vocabulary
            .channelsOf(selection.thing)
            .filter(
              (one) =>
                selection.keysOf(one.name).length > 0 ||
                ((holdsNumbers(one) || one.unit === "outline" || one.unit === "look") && isRuled(one.name)),
            ),
          ...vocabulary.settingRowsOf(selection.thing).flatMap((row) => row.channels),
        ]
      : [],
  );
  const curves = computed((): KeyedCurve[] => {
    const baked = scene.motion?.objects.get(selection.thing?.id ?? "")?.channels ?? {};
    return channels.value.map((words) => ({
      words,
      keys: selection.keysOf(words.name),
      values: drawn(baked[words.name]),
      keyed: ruled.value.get(words.name) ?? null,
      isNumber: holdsNumbers(words),
    }));
  });

  let asked = 0;
  watch(
    () => [scene.id, scene.revision, selection.objectId, channels.value.map((one) => one.name).join()] as const,
    async ([id, , object]) => {
      const mine = ++asked;
      const names = channels.value.map((one) => one.name).filter(actsOn);
      const vines =
        id && object ? await Promise.all(names.map((name) => api.vine(id, object, name).catch(() => null))) : [];
      if (mine !== asked) return;
      ruled.value = new Map(
        names.flatMap((name, i) =>
          vines[i] ? [[name, vines[i].steps.find((step) => step.kind === "ends")?.values ?? []] as const] : [],
        ),
      );
    },
    { immediate: true },
  );

  return { curves };
}

/** What is drawn of a baked channel. */
function drawn(rows: Rows | undefined): readonly number[] {
  if (!rows) return [0, 0];
  const { data, width } = rows;
  const count = rows.rows;
  let way = 0;
  const list = Array.from({ length: count }, (_, i) => {
    if (width === 1) return data[i] ?? 0;
    if (width === 4) return luma(data[i * 4] ?? 0, data[i * 4 + 1] ?? 0, data[i * 4 + 2] ?? 0);
    if (i > 0)
      way += Math.hypot((data[i * 2] ?? 0) - (data[i * 2 - 2] ?? 0), (data[i * 2 + 1] ?? 0) - (data[i * 2 - 1] ?? 0));
    return way;
  });
  return list.length > 1 ? list : [list[0] ?? 0, list[0] ?? 0];
}
