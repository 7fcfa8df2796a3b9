<script setup lang="ts">
/**
 * Grips on an oscillator's own curve: its first peak is dragged up for amplitude and along for phase, the next one
 * along for frequency.
 */
import { computed } from "vue";
import type { Edit, Rule } from "@/api/types";
import type { KeyedCurve } from "@/composables/curves/useKeyedCurves";
import { useRules } from "@/composables/rules/useRules";
import { frequencyMoved, peaks, phaseMoved, type WaveNumbers } from "@/geometry/wave";
import { beginOwnDrag, SLACK } from "@/composables/useDrag";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{
  curve: KeyedCurve;
  x: (frame: number) => number;
  y: (value: number) => number;
  perFrame: number;
  perValue: number;
}>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const rules = useRules();

interface Waving extends WaveNumbers {
  readonly rule: Rule;
  /** How much of its amplitude is left at a frame. */
  readonly left: (frame: number) => number;
}

const waves = computed((): Waving[] => {
  const thing = selection.thing;
  if (!thing) return [];
  return rules.onChannel(thing, props.curve.words.name).flatMap((rule) => {
    if (
      !rule.on ||
      rule.kind !== "oscillator" ||
      ["frequency", "phase", "start"].some((name) => rules.keysOf(rule, name).length)
    )
      return [];
    const words = rules.wordsOf(rule);
    const number = (name: string): number | null => {
      const setting = words?.settings.find((one) => one.name === name);
      return setting ? rules.numberOf(rule, setting) : null;
    };
    const cycles = number("cycles");
    const frequency = cycles === null ? number("frequency") : (Math.round(cycles) * playback.fps) / (playback.last + 1);
    if (!frequency) return [];
    const [start, life] = [number("start") ?? 0, number("half_life")];
    const left = (frame: number): number => (life ? 2 ** (-Math.max(0, frame - start) / playback.fps / life) : 1);
    const wave = String(rules.settingOf(rule, "wave") ?? "sine");
    return [{ rule, wave, amplitude: number("amplitude") ?? 0, frequency, phase: number("phase") ?? 0, start, left }];
  });
});

type Side = "first" | "second";
const grips = computed(() =>
  waves.value.flatMap((of) => {
    const at = peaks(of, playback.fps);
    return (["first", "second"] as const)
      .filter((side) => at[side] <= playback.last)
      .map((side) => ({ of, side, frame: at[side] }));
  }),
);

function valueAt(frame: number): number {
  const values = props.curve.values;
  const i = Math.min(Math.max(Math.floor(frame), 0), values.length - 1);
  const [a, b] = [values[i] ?? 0, values[i + 1] ?? values[i] ?? 0];
  return a + (b - a) * (frame - i);
}

/** The edits that take a grip some frames along and some value up. */
function edits(of: Waving, side: Side, frames: number, value: number): Edit[] {
  const fps = playback.fps;
  const whole = rules.keysOf(of.rule, "cycles").length > 0 || rules.plainOf(of.rule, "cycles") !== null;
  if (side === "second") {
    const { frequency, phase } = frequencyMoved(of, frames, fps);
    if (whole)
      return rules.settingEdits(
        of.rule,
        "cycles",
        Math.max(1, Math.round((Math.abs(frequency) * (playback.last + 1)) / fps)),
      );
    return [...rules.settingEdits(of.rule, "frequency", frequency), ...rules.settingEdits(of.rule, "phase", phase)];
  }
  const fine = props.curve.words.step >= 1 ? 0.1 : 0.001;
  const amplitude = of.amplitude + value / Math.max(0.05, of.left(peaks(of, fps).first));
  return [
    ...(value
      ? rules.settingEdits(of.rule, "amplitude", Number((Math.round(amplitude / fine) * fine).toFixed(4)))
      : []),
    ...(frames ? rules.settingEdits(of.rule, "phase", phaseMoved(of, frames, fps)) : []),
  ];
}

function begin(event: PointerEvent, of: Waving, side: Side): void {
  const from = { x: event.clientX, y: event.clientY };
  const [perFrame, perValue] = [props.perFrame, props.perValue];
  let wanted: Edit[] = [];
  const move = (e: PointerEvent): void => {
    let [dx, dy] = [e.clientX - from.x, e.clientY - from.y];
    if (e.shiftKey) [dx, dy] = Math.abs(dx) >= Math.abs(dy) ? [dx, 0] : [0, dy];
    if (!wanted.length && Math.hypot(dx, dy) < SLACK) return;
    wanted = edits(of, side, dx / perFrame, -dy / perValue);
    if (wanted.length) void scene.lookAt(wanted);
  };
  beginOwnDrag(event, { move, end: (kept) => void (wanted.length && (kept ? scene.edit(wanted) : scene.letGo())) });
}

function nudge(event: KeyboardEvent, of: Waving, side: Side): void {
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  const wanted = edits(of, side, by[0]!, by[1]! * props.curve.words.step);
  if (wanted.length) void scene.edit(wanted);
}

const HINTS: Record<Side, string> = {
  first: "Drag it up or down to swing farther or less, sideways for the phase; Shift keeps to one of both",
  second: "Drag it sideways to swing slower or faster; the swing before it stays where it is",
};
const label = (side: Side): string =>
  side === "first" ? "Amplitude and phase of the oscillator" : "Frequency of the oscillator";
</script>

<template>
  <button
    v-for="grip in grips"
    :key="`${grip.of.rule.id} ${grip.side}`"
    class="grip"
    :class="grip.side"
    :style="{ left: `${x(grip.frame)}px`, top: `${y(valueAt(grip.frame))}px` }"
    :aria-label="label(grip.side)"
    :title="HINTS[grip.side]"
    @pointerdown="begin($event, grip.of, grip.side)"
    @keydown="nudge($event, grip.of, grip.side)"
  >
    <svg viewBox="-11 -11 22 22" aria-hidden="true">
      <circle r="6" />
      <path v-if="grip.side === 'first'" d="M0 -10V-7M0 10V7M-10 0H-7M10 0H7" />
      <path v-else d="M-10 0H-7M10 0H7" />
    </svg>
  </button>
</template>

<style scoped>
.grip {
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px 0 0 -11px;
  border: 0;
  padding: 0;
  background: none;
  border-radius: 50%;
  touch-action: none;
  cursor: move;
}
.second {
  cursor: ew-resize;
}
svg {
  display: block;
  width: 22px;
  height: 22px;
  overflow: visible;
}
circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linecap: round;
}
.grip:hover circle,
.grip:focus-visible circle {
  fill: var(--playhead-pale);
  stroke: var(--playhead);
}
</style>
