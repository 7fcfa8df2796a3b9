/** How curves are in their view: how far each channel's scale reaches, and where frames and values come to lie. */
import { useLocalStorage } from "@vueuse/core";
import { computed, type Ref, shallowRef, watch } from "vue";
import type { Key } from "@/api/types";
import type { KeyedCurve } from "@/composables/curves/useKeyedCurves";
import { extent } from "@/geometry/curves";
import { usePicks } from "@/stores/picks";
import { AIR, useTimeView } from "@/stores/timeView";

/** What is left free above and below the curves, px. */
export const PAD = 16;

/**
 * `curves`: all that are shown; `chosen`: those shown with their keys; `height`: of the view, px; `held`: whether a
 * hand holds something, so that no scale may slide away from under it; `isPicked`: whether a key is.
 */
export function useCurveScales(
  curves: Ref<readonly KeyedCurve[]>,
  chosen: Ref<readonly KeyedCurve[]>,
  height: Ref<number>,
  held: () => boolean,
  isPicked: (one: KeyedCurve, key: Key) => boolean,
) {
  const time = useTimeView();
  const picks = usePicks();
  /** Each curve to its own height, or all to one scale. */
  const normalised = useLocalStorage("curves-normalised", true);
  const inside = computed(() => Math.max(20, height.value - PAD * 2));
  /** Lowest and highest value of each channel's scale. */
  const ranges = shallowRef<ReadonlyMap<string, { low: number; high: number }>>(new Map());
  const valueOf = (one: KeyedCurve, key: Key): number =>
    one.isNumber
      ? Number(key.value)
      : (one.values[Math.min(Math.max(Math.round(key.frame), 0), one.values.length - 1)] ?? 0);
  const reach = (list: readonly KeyedCurve[]) =>
    extent(list.flatMap((one) => [one.values, one.keyed ?? [], one.keys.map((key) => valueOf(one, key))]));
  const rangeOf = (name: string): { low: number; high: number } => ranges.value.get(name) ?? { low: -1, high: 1 };
  const perValue = (name: string): number => inside.value / (rangeOf(name).high - rangeOf(name).low);
  const y = (name: string, value: number): number => PAD + (rangeOf(name).high - value) * perValue(name);
  const x = (frame: number): number => AIR + frame * time.perFrame - time.scroll;

  /** Every channel's scale: its own, or that of all chosen ones together (the others are drawn to it too). */
  const now = computed(() => {
    const shared = normalised.value || !chosen.value.length ? null : reach(chosen.value);
    return new Map(curves.value.map((one) => [one.words.name, shared ?? reach([one])]));
  });
  // The view finds its height again when the hand releases: a scale that slid along would carry the key away from under
  // it.
  watch(
    () => ({ held: held(), to: now.value }),
    (state) => !state.held && (ranges.value = state.to),
    { immediate: true },
  );

  /** Show the picked keys, or all keys of the chosen channels, as large as they can be. */
  function frameKeys(): void {
    const frames =
      picks.frames.length > 1
        ? picks.frames
        : chosen.value.flatMap((one) => one.keys.map((key) => key.frame)).sort((a, b) => a - b);
    if (frames.length > 1) time.show(frames[0]!, frames.at(-1)!);
    const keys = chosen.value.map((one) => ({
      one,
      keys: picks.frames.length > 1 ? one.keys.filter((key) => isPicked(one, key)) : one.keys,
    }));
    ranges.value = new Map([
      ...now.value,
      ...keys.flatMap(({ one, keys }) =>
        keys.length ? [[one.words.name, extent([keys.map((key) => valueOf(one, key))])] as const] : [],
      ),
    ]);
  }

  return { normalised, inside, valueOf, rangeOf, perValue, x, y, frameKeys };
}
