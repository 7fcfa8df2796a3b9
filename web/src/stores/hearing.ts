/**
 * What is heard: the sounds of the scene by Web Audio, in step with the playhead while it plays and at the frame it is
 * dragged to.
 */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, shallowReactive, watch } from "vue";
import type { KeptSound } from "@/api/types";
import { gainsOf, isAudible, roundBegins, soundings } from "@/geometry/hearing";
import { useScene } from "@/stores/scene";

/**
 * Seconds before the first sample, so that all of them can be asked for in time; and how far ahead rounds are asked
 * for.
 */
const [LEAD, AHEAD] = [0.06, 1.5];
/** What is heard of a frame that is missing to, seconds, and how it comes and goes. */
const [GRAIN, EDGE] = [0.09, 0.008];

/** What plays: from a frame on, over and over between two, or once. */
export interface Run {
  readonly frame: number;
  readonly from: number;
  readonly to: number;
  readonly loop: boolean;
  readonly fps: number;
}

export const useHearing = defineStore("hearing", () => {
  const scene = useScene();
  /** Whether nothing is heard, remembered. */
  const muted = useLocalStorage("vine-swing.muted", false);
  const buffers = shallowReactive(new Map<string, AudioBuffer>());
  // Told as text, so that edits of anything else leave what is playing alone.
  const told = computed(() => JSON.stringify(scene.head?.sounds ?? []));
  const sounds = computed(() => JSON.parse(told.value) as readonly KeptSound[]);
  const audible = computed(() => (muted.value ? [] : sounds.value.filter(isAudible)));
  const files = computed(() => [...new Set(sounds.value.map((one) => one.file))]);

  let context: AudioContext | null = null;
  let run: Run | null = null;
  /** When the run began, by the clock of what is heard; and how many of its rounds are asked for. */
  let begun = 0;
  let rounds = 0;
  let playing: AudioScheduledSourceNode[] = [];
  let grain: AudioScheduledSourceNode[] = [];

  /** The files that are being read. */
  const asked = new Map<string, Promise<void>>();
  // Decoded before it is needed, without a context: those may be had only after somebody has touched the page.
  watch(
    files,
    (now) => {
      for (const file of [...buffers.keys()]) if (!now.includes(file)) buffers.delete(file);
      for (const file of now) void decode(file);
    },
    { immediate: true },
  );
  async function decode(file: string): Promise<void> {
    if (buffers.has(file) || typeof OfflineAudioContext === "undefined") return;
    if (!asked.has(file))
      asked.set(
        file,
        read(file).finally(() => asked.delete(file)),
      );
    await asked.get(file);
  }
  async function read(file: string): Promise<void> {
    const decoder = new OfflineAudioContext(2, 1, 48_000);
    for (const path of [`/api/sounds/${file}`, `/api/sounds/${file}?plain=true`]) {
      try {
        const answer = await fetch(path);
        if (!answer.ok) continue;
        const found = await decoder.decodeAudioData(await answer.arrayBuffer());
        if (files.value.includes(file)) buffers.set(file, found);
        return;
      } catch {
        // A kind this browser does not know: as plain samples the next time.
      }
    }
  }

  function opened(): AudioContext | null {
    if (typeof AudioContext === "undefined") return null;
    context ??= new AudioContext({ latencyHint: "interactive" });
    if (context.state === "suspended") void context.resume();
    return context;
  }

  /** Ask for one stretch of a sound at a moment. */
  function ask(at: AudioContext, one: ReturnType<typeof soundings>[number], when: number): AudioScheduledSourceNode[] {
    const buffer = buffers.get(one.sound.file);
    if (!buffer) return [];
    const source = new AudioBufferSourceNode(at, { buffer });
    const gain = new GainNode(at, { gain: one.sound.gain });
    const dial = one.sound.dial ? scene.motion?.objects.get(`dial:${one.sound.dial}`)?.channels.value?.data : undefined;
    if (dial) {
      const gains = gainsOf(one.sound, dial, one.from, one.to);
      gain.gain.setValueCurveAtTime(gains, Math.max(when, at.currentTime), one.duration);
    }
    source.connect(gain).connect(at.destination);
    // What should have begun already is adopted where it would be by now.
    const late = Math.max(0, at.currentTime - when);
    if (late >= one.duration) return [];
    source.start(when + late, one.offset + late, one.duration - late);
    return [source];
  }

  /** Ask for the rounds that will be heard soon. */
  function keepUp(): void {
    if (!run || !context) return;
    const { frame, from, to, loop, fps } = run;
    while (rounds === 0 || (loop && begun + roundBegins(rounds, frame, from, to, fps) < context.currentTime + AHEAD)) {
      const at = begun + roundBegins(rounds, frame, from, to, fps);
      const start = rounds === 0 ? frame : from;
      for (const one of soundings(audible.value, start, to, fps)) playing.push(...ask(context, one, at + one.when));
      rounds += 1;
    }
    if (playing.length > 200) playing = playing.slice(-100);
  }

  const silence = (nodes: AudioScheduledSourceNode[]): void => {
    for (const node of nodes) {
      try {
        node.stop();
      } catch {
        // It was over already.
      }
      node.disconnect();
    }
  };

  /** Let the sounds be heard from a frame on. */
  function start(next: Run): void {
    stop();
    if (!audible.value.length || !opened()) return;
    run = next;
    [begun, rounds] = [context!.currentTime + LEAD, 0];
    keepUp();
  }

  function stop(): void {
    silence([...playing, ...grain]);
    [playing, grain, run] = [[], [], null];
  }

  /**
   * How many seconds of the run are heard by now; null where nothing is heard to follow. What is heard now was handed
   * over as long ago as the device takes.
   */
  function heard(): number | null {
    if (!run || !context || context.state !== "running") return null;
    keepUp();
    return Math.max(0, context.currentTime - (context.outputLatency || 0) - begun);
  }

  /** Let a frame be heard that is missing to. */
  function hearFrame(frame: number, fps: number): void {
    if (run || !audible.value.length || !opened()) return;
    silence(grain);
    grain = [];
    const length = Math.max(GRAIN, 1 / fps);
    for (const one of soundings(audible.value, frame, frame + length * fps - 1, fps)) {
      const nodes = ask(context!, one, context!.currentTime + one.when + EDGE);
      grain.push(...nodes);
    }
  }

  return { muted, buffers, audible, files, start, stop, heard, hearFrame };
});
