/** Where the playhead is and whether it runs. */
import { useRafFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, watch } from "vue";
import { useHearing } from "@/stores/hearing";
import { useScene } from "@/stores/scene";

/**
 * While it plays, text that tells of the frame is brought up to date every this many milliseconds: nobody reads faster,
 * and layout is expensive.
 */
const TEXT_EVERY = 100;

export const usePlayback = defineStore("playback", () => {
  const scene = useScene();
  const hearing = useHearing();
  const frame = ref(0);
  const loop = ref(true);
  const range = ref<{ from: number; to: number } | null>(null);

  const fps = computed(() => scene.head?.fps ?? 24);
  const last = computed(() => Math.max(0, (scene.head?.length ?? 1) - 1));
  const from = computed(() => Math.min(range.value?.from ?? 0, last.value));
  const to = computed(() => Math.min(range.value?.to ?? last.value, last.value));

  let begun = { time: 0, frame: 0 };
  const raf = useRafFn(({ timestamp }) => advance(timestamp), { immediate: false });
  const playing = computed(() => raf.isActive.value);

  function advance(now: number): void {
    // The first callback sets the clock: time spent before it does not skip frames.
    if (begun.time === 0) begun.time = now;
    // What is heard goes before what is seen: a frame late is not noticed, a jump in a sound is.
    const seconds = hearing.heard() ?? (now - begun.time) / 1000;
    const passed = Math.floor(seconds * fps.value + 1e-6);
    const span = to.value - from.value + 1;
    const at = begun.frame - from.value + passed;
    if (!loop.value && at >= span) {
      frame.value = to.value;
      pause();
      return;
    }
    frame.value = from.value + (((at % span) + span) % span);
  }

  function play(): void {
    const inside = frame.value >= from.value && frame.value <= to.value && (loop.value || frame.value < to.value);
    begun = { time: 0, frame: inside ? frame.value : from.value };
    listen();
    raf.resume();
  }

  function pause(): void {
    raf.pause();
    hearing.stop();
  }

  /** Let what is played be heard from where the run began. */
  function listen(): void {
    hearing.start({ frame: begun.frame, from: from.value, to: to.value, loop: loop.value, fps: fps.value });
  }
  // What is changed while it plays is heard at once: it goes on from the frame that is shown.
  watch(
    () => [hearing.audible, hearing.buffers.size, from.value, to.value, loop.value, fps.value],
    () => {
      if (!playing.value) return;
      begun = { time: 0, frame: Math.min(Math.max(frame.value, from.value), to.value) };
      listen();
    },
  );

  /** The frame that numbers and words are shown of: that of the playhead, but ten times a second while it plays. */
  const textFrame = ref(0);
  let toldAt = 0;
  watch(
    [frame, playing],
    ([now, runs]) => {
      const time = performance.now();
      if (runs && time - toldAt < TEXT_EVERY) return;
      toldAt = time;
      textFrame.value = now;
    },
    { flush: "sync" },
  );

  /** Go to a frame, as whole as frames are; playback goes on from there. */
  function goTo(target: number): void {
    frame.value = Math.min(Math.max(Math.round(target), 0), last.value);
    begun = { time: 0, frame: frame.value };
    if (playing.value) listen();
    else hearing.hearFrame(frame.value, fps.value);
  }

  function setRange(first: number, final: number): void {
    const [low, high] = [Math.min(first, final), Math.max(first, final)].map((f) =>
      Math.min(Math.max(Math.round(f), 0), last.value),
    );
    range.value = low === 0 && high === last.value ? null : { from: low ?? 0, to: high ?? last.value };
  }

  /** Begin again for another scene. */
  function reset(): void {
    pause();
    frame.value = 0;
    range.value = null;
  }

  return {
    frame,
    textFrame,
    loop,
    range,
    from,
    to,
    last,
    fps,
    playing,
    play,
    pause,
    toggle: () => (playing.value ? pause() : play()),
    goTo,
    setRange,
    reset,
  };
});
