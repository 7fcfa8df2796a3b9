/** Picking leaves with a box drawn over the lanes. */
import { type Ref, ref } from "vue";
import type { Lane } from "@/composables/useLanes";
import { keysAt, usePicks } from "@/stores/picks";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const LANE = 24;
/** How far, in pixels, a press goes before it draws a box. */
const SLACK = 4;

export function useBoxPick(list: Ref<HTMLElement | undefined>, lanes: () => readonly Lane[]) {
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
    const target = list.value;
    target.setPointerCapture(event.pointerId);

    const move = (e: PointerEvent): void => {
      const to = place(e);
      if (!shown.value && Math.hypot(to.x - from.x, to.y - from.y) < SLACK) return;
      const [left, top] = [Math.max(NAMES, Math.min(from.x, to.x)), Math.min(from.y, to.y)];
      shown.value = { left, top, width: Math.max(from.x, to.x) - left, height: Math.abs(to.y - from.y) };
      const frameAt = (x: number): number => (x - NAMES - AIR + time.scroll) / time.perFrame;
      const [low, high] = [frameAt(left), frameAt(left + shown.value.width)];
      const touched = lanes().filter((_, i) => (i + 1) * LANE > top && i * LANE < top + shown.value!.height);
      picks.set([...before, ...touched.flatMap((lane) => keysAt(lane.thing, lane.channels, new Set(lane.frames.filter((frame) => frame >= low && frame <= high))))]);
    };
    const end = (): void => {
      target.removeEventListener("pointermove", move);
      // A mere click on an empty place lets go of what was picked.
      if (!shown.value && !event.shiftKey) picks.clear();
      shown.value = null;
    };
    target.addEventListener("pointermove", move);
    target.addEventListener("pointerup", end, { once: true });
    target.addEventListener("pointercancel", end, { once: true });
  }

  return { shown, begin };
}
