/**
 * Play live: the picture waits, and cues run their stretch of baked motion at a key press or a click; what is pressed
 * is recorded.
 */
import { useEventListener, useRafFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import type { Cue } from "@/api/types";
import { type Run, runAt, rounds } from "@/geometry/cueRuns";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";

interface Press {
  readonly cue: string;
  readonly at: number;
  readonly runs: number;
}

/** How a cue names the key of an event. */
export const cueKey = (event: KeyboardEvent): string => (event.key === " " ? "space" : event.key.toLowerCase());

export const useLive = defineStore("live", () => {
  const scene = useScene();
  const playback = usePlayback();
  const messages = useMessages();
  const on = ref(false);
  /** The frame everything waits at until its cue comes. */
  const rest = ref(0);
  /** The frame each moved object is at, by id; the others are at rest. */
  const frames = shallowRef<ReadonlyMap<string, number>>(new Map());
  /** What was played last, waiting to be written as keys or forgotten. */
  const recorded = shallowRef<readonly Press[] | null>(null);
  const pressed = ref(0);
  /** The cues that run just now. */
  const running = shallowRef<ReadonlySet<string>>(new Set());

  const cues = computed<readonly Cue[]>(() => scene.head?.cues ?? []);
  const fps = computed(() => scene.head?.fps ?? 24);
  let runs: Run[] = [];
  let history: Run[] = [];
  const movers = new Map<string, Run>();
  const held = new Map<string, Run>();

  const raf = useRafFn(({ timestamp }) => show(timestamp), { immediate: false });

  function begin(): void {
    if (on.value) return;
    if (!cues.value.length) {
      messages.warn("No cues yet. Add a cue in the panel Cues: a range of the timeline and the key that starts it.");
      return;
    }
    playback.pause();
    rest.value = playback.frame;
    [runs, history] = [[], []];
    movers.clear();
    held.clear();
    frames.value = new Map();
    pressed.value = 0;
    recorded.value = null;
    on.value = true;
    raf.resume();
  }

  /** Stop, and offer what was recorded. */
  function end(): void {
    if (!on.value) return;
    raf.pause();
    const now = performance.now();
    const first = history[0]?.begun ?? 0;
    const frame = (time: number): number => Math.round(((time - first) / 1000) * fps.value);
    const presses = history.map((run) => ({
      cue: run.cue.id,
      at: frame(run.begun),
      runs: Math.max(1, rounds(run, fps.value, now)),
    }));
    on.value = false;
    running.value = new Set();
    if (presses.length) recorded.value = presses;
  }

  function start(cue: Cue, key: string | null = null): void {
    const before = runs.find((run) => run.cue.id === cue.id);
    if (before && cue.plays === "loop" && before.ends === null) {
      before.ends = performance.now();
      return;
    }
    const run: Run = { cue, begun: performance.now(), ends: null };
    runs = [...runs.filter((one) => one !== before), run];
    history.push(run);
    pressed.value = history.length;
    for (const id of cue.objects.flatMap((one) => withParts(one, scene.parts))) movers.set(id, run);
    if (key && cue.plays === "held") held.set(key, run);
    // The picture answers at once, not at the next tick.
    show(run.begun);
  }

  function release(key: string): void {
    const run = held.get(key);
    if (run) run.ends = performance.now();
    held.delete(key);
  }

  function show(now: number): void {
    const next = new Map(frames.value);
    const still = new Set<Run>();
    for (const [id, run] of movers) {
      const at = runAt(run, fps.value, now);
      next.set(id, at.frame);
      if (at.running) still.add(run);
    }
    runs = runs.filter((run) => still.has(run));
    const names = new Set(runs.map((run) => run.cue.id));
    if (names.size !== running.value.size || [...names].some((one) => !running.value.has(one))) running.value = names;
    if (next.size !== frames.value.size || [...next].some(([id, frame]) => frames.value.get(id) !== frame))
      frames.value = next;
  }

  /** A click in the picture on an object: the cue of it, or of its parent. */
  function click(id: string): void {
    for (let at: string | null | undefined = id; at; at = scene.byId.get(at)?.parent) {
      const cue = cues.value.find((one) => one.click === at);
      if (!cue) continue;
      start(cue, "click");
      window.addEventListener("pointerup", () => release("click"), { once: true });
      return;
    }
  }

  useEventListener(
    window,
    "keydown",
    (event: KeyboardEvent) => {
      if (!on.value || event.ctrlKey || event.metaKey || event.altKey) return;
      // Nothing else hears of keys while the picture is played.
      event.stopPropagation();
      if (event.key === "Tab") return;
      event.preventDefault();
      if (event.repeat) return;
      if (event.key === "Escape") {
        end();
        return;
      }
      const key = cueKey(event);
      for (const cue of cues.value) if (cue.key === key) start(cue, key);
    },
    { capture: true },
  );
  useEventListener(window, "keyup", (event: KeyboardEvent) => on.value && release(cueKey(event)), { capture: true });

  const frameOf = (id: string): number => frames.value.get(id) ?? rest.value;
  return { on, rest, cues, frames, pressed, running, recorded, begin, end, start, click, frameOf };
});
