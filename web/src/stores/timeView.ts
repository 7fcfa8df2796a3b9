/** Which stretch of time the time sheet shows, and how large. The same for lanes, curves and speed. */
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import { usePlayback } from "@/stores/playback";

/** The column of names, and the air on both sides of the track, in pixels. */
export const NAMES = 244;
export const AIR = 22;
const MOST_PER_FRAME = 80;

export const useTimeView = defineStore("time view", () => {
  const playback = usePlayback();
  /** Width of the whole sheet; set by it. */
  const width = ref(1280);
  /** 1 shows the whole scene. */
  const zoom = ref(1);
  /** The frame at the left edge of the track. */
  const from = ref(0);

  /** Where the last frame ends: keys that close a loop lie there, and are to be taken hold of. */
  const end = computed(() => playback.last + 1);
  const room = computed(() => Math.max(50, width.value - NAMES - AIR * 2));
  const fitted = computed(() => room.value / end.value);
  const most = computed(() => Math.max(1, MOST_PER_FRAME / fitted.value));
  const perFrame = computed(() => Math.max(0.02, fitted.value * Math.min(zoom.value, most.value)));
  const shown = computed(() => room.value / perFrame.value);
  const scroll = computed(
    () => Math.min(Math.max(from.value, 0), Math.max(0, end.value - shown.value)) * perFrame.value,
  );
  const first = computed(() => scroll.value / perFrame.value);
  const zoomed = computed(() => zoom.value > 1.001);

  const panTo = (frame: number): void =>
    void (from.value = Math.min(Math.max(frame, 0), Math.max(0, end.value - shown.value)));

  /** Zoom by a factor so that a frame stays where it is. */
  function zoomBy(factor: number, about: number = playback.frame): void {
    const at = (about - first.value) * perFrame.value;
    zoom.value = Math.min(Math.max(zoom.value * factor, 1), most.value);
    panTo(about - at / perFrame.value);
  }

  /** Show some frames, with a little air. */
  function show(low: number, high: number): void {
    const air = Math.max(1, (high - low) * 0.06);
    zoom.value = Math.min(Math.max(end.value / (high - low + air * 2), 1), most.value);
    panTo(low - air);
  }

  function fit(): void {
    zoom.value = 1;
    from.value = 0;
  }

  /** Bring a frame into view if it is not. */
  function reveal(frame: number): void {
    if (frame < first.value || frame > first.value + shown.value) panTo(frame - shown.value / 4);
  }

  return { width, zoom, end, room, perFrame, shown, scroll, first, zoomed, panTo, zoomBy, show, fit, reveal };
});
