/** Linking by hand: dragging from what drives onto what it shall drive, and the dialogs that follow. */
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import type { Place } from "@/api/types";
import { beginDrag, SLACK } from "@/composables/useDrag";

/** What a drag is over: an object or a dial, and one of its channels if it is over that very value. */
export interface Target {
  readonly object: string;
  readonly channel: string | null;
}

export interface Drag {
  readonly from: Place;
  readonly start: { x: number; y: number };
  readonly at: { x: number; y: number };
  readonly over: Target | null;
}

export const useLinking = defineStore("linking", () => {
  const drag = shallowRef<Drag | null>(null);
  /** The link that is being made. */
  const asked = shallowRef<{ readonly from: Place; readonly to: Target } | null>(null);
  /** The dial that objects shall take. */
  const takers = ref<string | null>(null);
  /** Finds what is under a point of the picture; the picture sets it. */
  const finder = shallowRef<((event: PointerEvent) => string | null) | null>(null);

  function targetAt(event: PointerEvent): Target | null {
    const hit = document.elementFromPoint(event.clientX, event.clientY);
    const place = hit?.closest<HTMLElement>("[data-link-object]");
    if (place) return { object: place.dataset.linkObject!, channel: place.dataset.linkChannel ?? null };
    const object = hit?.closest("[role=application]") ? finder.value?.(event) : null;
    return object ? { object, channel: null } : null;
  }

  /**
   * Follow a press until it is released; released over something, the link is asked for. A press that does not
   * move is a click.
   */
  function begin(event: PointerEvent, from: Place): void {
    if (event.button !== 0) return;
    const start = { x: event.clientX, y: event.clientY };
    const move = (e: PointerEvent): void => {
      if (!drag.value && Math.hypot(e.clientX - start.x, e.clientY - start.y) < SLACK) return;
      drag.value = { from, start, at: { x: e.clientX, y: e.clientY }, over: targetAt(e) };
    };
    const end = (kept: boolean): void => {
      const over = kept ? drag.value?.over : null;
      drag.value = null;
      if (over && !(over.object === from.object && (over.channel === null || over.channel === from.channel)))
        asked.value = { from, to: over };
    };
    beginDrag(event, { move, end });
    event.preventDefault();
  }

  return { drag, asked, takers, finder, begin };
});
