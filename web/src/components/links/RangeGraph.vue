<script setup lang="ts">
/** The driver's range across, the driven one upwards: both ends of the line between them are dragged. */
import { computed, ref } from "vue";
import { readable } from "@/geometry/frames";
import { across, type Frame, frameOf, type Ranges, upwards, valuesUnder } from "@/geometry/ranges";
import { beginOwnDrag } from "@/composables/useDrag";

const props = defineProps<{
  ranges: Ranges;
  least: number;
  most: number;
  now: number;
  names: { driver: string; driven: string };
}>();
const emit = defineEmits<{ change: [ranges: Ranges] }>();
const W = 210;
const H = 116;
const area = ref<SVGSVGElement>();
/** While an end is dragged the drawing does not rescale under the hand. */
const still = ref<Frame | null>(null);
const frame = computed(() => still.value ?? frameOf(props.ranges, props.least, props.most));
const x = (value: number): number => across(frame.value, value, W);
const y = (value: number): number => upwards(frame.value, value, H);
const ends = computed(() => [
  { name: "low", driver: props.ranges.low, driven: props.ranges.to_low },
  { name: "high", driver: props.ranges.high, driven: props.ranges.to_high },
]);
const line = computed(() => {
  const [a, b] = props.ranges.low <= props.ranges.high ? ends.value : [...ends.value].reverse();
  return `M0 ${y(a!.driven)}L${x(a!.driver)} ${y(a!.driven)}L${x(b!.driver)} ${y(b!.driven)}L${W} ${y(b!.driven)}`;
});
/** An end as a reader of the screen says it. */
function spoken({ name, driver, driven }: { name: string; driver: number; driven: number }): string {
  const end = name === "low" ? "Begin" : "End";
  return `${end}: where ${props.names.driver} is ${readable(driver, 2)}, ${props.names.driven} is ${readable(driven, 2)}`;
}

function changed(name: string, driver: number, driven: number): void {
  const next =
    name === "low"
      ? { ...props.ranges, low: driver, to_low: driven }
      : { ...props.ranges, high: driver, to_high: driven };
  if (next.low !== next.high) emit("change", next);
}
function grip(event: PointerEvent, name: string): void {
  still.value = frame.value;
  const move = (e: PointerEvent): void => {
    const box = area.value!.getBoundingClientRect();
    const under = valuesUnder(
      frame.value,
      ((e.clientX - box.left) / box.width) * W,
      ((e.clientY - box.top) / box.height) * H,
      W,
      H,
    );
    changed(name, under.driver, under.driven);
  };
  if (!beginOwnDrag(event, { move, end: () => (still.value = null) })) still.value = null;
}
function nudge(event: KeyboardEvent, end: { name: string; driver: number; driven: number }): void {
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };
  const step = by[event.key];
  if (!step) return;
  event.preventDefault();
  const { left, right, top, bottom } = frame.value;
  changed(
    end.name,
    Number((end.driver + (step[0] * (right - left)) / 100).toPrecision(6)),
    Number((end.driven + (step[1] * (top - bottom)) / 100).toPrecision(6)),
  );
}
</script>

<template>
  <figure>
    <svg ref="area" :viewBox="`0 0 ${W} ${H}`" :width="W" :height="H" role="group" aria-label="From a range to a range">
      <rect :width="W" :height="H" rx="6" />
      <rect class="does" :x="x(least)" :width="Math.max(1, x(most) - x(least))" :height="H">
        <title>Range of the driver in this scene</title>
      </rect>
      <line class="now" :x1="x(now)" :x2="x(now)" y1="0" :y2="H" />
      <path :d="line" />
      <circle
        v-for="end in ends"
        :key="end.name"
        role="slider"
        tabindex="0"
        :aria-label="spoken(end)"
        :aria-valuenow="end.driven"
        :cx="x(end.driver)"
        :cy="y(end.driven)"
        r="6.5"
        @pointerdown="grip($event, end.name)"
        @keydown="nudge($event, end)"
      />
    </svg>
    <figcaption>
      <span>{{ names.driver }} →</span><span>↑ {{ names.driven }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  width: 210px;
}
svg {
  display: block;
  touch-action: none;
  overflow: visible;
}
rect {
  fill: var(--paper-2);
  stroke: var(--line);
}
.does {
  fill: var(--look-pale);
  stroke: none;
}
.now {
  stroke: var(--playhead);
  stroke-width: 1.2;
}
path {
  fill: none;
  stroke: var(--look);
  stroke-width: 2.2;
  stroke-linejoin: round;
}
circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
  cursor: move;
}
circle:hover,
circle:focus-visible {
  fill: var(--playhead-pale);
  stroke: var(--playhead);
  outline: none;
}
figcaption {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  font-size: 11px;
  color: var(--ink-2);
  margin-top: 2px;
}
figcaption span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
