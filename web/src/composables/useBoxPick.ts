/** Picking leaves with a box drawn over the lanes. */
import { beginDrag } from "@/composables/useDrag";
import { type Ref, ref } from "vue";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { keysAt, usePicks } from "@/stores/picks";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

/** How far, in pixels, a press goes before it draws a box. */
const SLACK = 4;

export function useBoxPick(
  list: Ref<HTMLElement | null>,
  lanes: () => readonly Lane[],
  heights: () => readonly number[],
) {
  const picks = usePicks();
  const time = useTimeView();
  const shown = ref<{ left: number; top: number; width: number; height: number } | null>(null);

  function place(event: PointerEvent): { x: number; y: number } {
    const rect = list.value!.getBoundingClientRect();
    return { x: event.clientX - rect.left, y: event.clientY - rect.top + list.value!.scrollTop };
  }

  function begin(event: PointerEvent): void {
    if (event.button !== 0 || !list.value || (event.target as Element).closest("button")) return;
    const from = place(event);
    if (from.x < NAMES) return;
    event.preventDefault();
    const before = event.shiftKey ? picks.keys : [];
    const move = (e: PointerEvent): void => {
      const to = place(e);
      if (!shown.value && Math.hypot(to.x - from.x, to.y - from.y) < SLACK) return;
      const [left, top] = [Math.max(NAMES, Math.min(from.x, to.x)), Math.min(from.y, to.y)];
      shown.value = { left, top, width: Math.max(from.x, to.x) - left, height: Math.abs(to.y - from.y) };
      const frameAt = (x: number): number => (x - NAMES - AIR + time.scroll) / time.perFrame;
      const [low, high] = [frameAt(left), frameAt(left + shown.value.width)];
      const bottom = top + shown.value.height;
      let next = 0;
      const touched = lanes().filter((_, i) => {
        const from = next;
        next += heights()[i] ?? 0;
        return next > top && from < bottom;
      });
      picks.set([
        ...before,
        ...touched.flatMap((lane) =>
          keysAt(lane.thing, lane.channels, new Set(lane.frames.filter((frame) => frame >= low && frame <= high))),
        ),
      ]);
    };
    const end = (): void => {
      // A mere click on an empty place releases what was picked.
      if (!shown.value && !event.shiftKey) picks.clear();
      shown.value = null;
    };
    beginDrag(event, { move, end });
  }

  return { shown, begin };
}
