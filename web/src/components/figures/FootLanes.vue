<script setup lang="ts">
/**
 * Which foot is on the ground when, and the poses of the steps: one lane a leg, under the lane of a figure that walks.
 */
import { computed } from "vue";
import type { Steps } from "@/api/motion";
import type { FigureObject } from "@/api/types";
import SubLane from "@/components/sheet/SubLane.vue";
import { POSES } from "@/geometry/poses";
import { usePlayback } from "@/stores/playback";

const props = defineProps<{ thing: FigureObject; steps: Steps; perFrame: number; depth: number }>();
const playback = usePlayback();
const legs = computed(() => props.thing.figure.limbs.filter((limb) => limb.kind === "leg"));
const near = (frame: number): number => Number(frame.toFixed(1));
/** Poses that there is room for, those of its own leg; contact comes first where it is tight. */
function posesOf(leg: string): Steps["poses"] {
  const own = props.steps.poses.filter((one) => one[2] === leg);
  const gaps = own
    .slice(1)
    .map((one, i) => one[0] - own[i]![0])
    .sort((a, b) => a - b);
  // The usual gap counts: a step cut short need not hide all others.
  const tight = (gaps[Math.floor(gaps.length / 4)] ?? 99) * props.perFrame < 11;
  return tight ? own.filter((one) => one[1] === "contact") : own;
}
const spanAt = (leg: string, frame: number) => props.steps.down[leg]?.find(([a, b]) => frame >= a && frame <= b);

/**
 * One path for all spans of a leg: as elements of their own they would be most of the page. Ends are round, so each
 * begins and ends that much inside.
 */
const [MIDDLE, HALF] = [14, 3];
const barsOf = (leg: string): string =>
  (props.steps.down[leg] ?? [])
    .map(([a, b]) => {
      const from = a * props.perFrame + HALF;
      return `M${from.toFixed(1)} ${MIDDLE}H${Math.max(from + 0.01, b * props.perFrame - HALF).toFixed(2)}`;
    })
    .join("");

/** What each lane shows, made again only with the steps and the zoom: names of lanes follow the playhead. */
const drawn = computed(
  () => new Map(legs.value.map(({ id }) => [id, { bars: barsOf(id), poses: posesOf(id) }] as const)),
);

/** Tell of the span below the pointer. */
function tell(event: PointerEvent, leg: string): void {
  const path = event.currentTarget as SVGElement;
  const left = path.ownerSVGElement?.getBoundingClientRect().left ?? 0;
  const span = spanAt(leg, (event.clientX - left) / props.perFrame);
  if (span) path.querySelector("title")!.textContent = `On the ground from frame ${near(span[0])} to ${near(span[1])}`;
}
</script>

<template>
  <SubLane
    v-for="leg in legs"
    :key="leg.id"
    :depth="depth"
    :title="`When the foot of ${leg.name.toLowerCase()} is on the ground`"
    :aria-label="`${leg.name} on the ground`"
    :data-down="(steps.down[leg.id] ?? []).length"
  >
    <template #name
      >{{ leg.name }} <small>{{ spanAt(leg.id, playback.frame) ? "down" : "up" }}</small></template
    >
    <svg class="bars">
      <path :d="drawn.get(leg.id)?.bars" @pointermove="tell($event, leg.id)"><title /></path>
    </svg>
    <button
      v-for="([frame, pose], i) in drawn.get(leg.id)?.poses"
      :key="i"
      class="pose"
      :class="pose"
      :style="{ left: `${frame * perFrame}px` }"
      :aria-label="`${pose} of ${leg.name} at frame ${near(frame)}`"
      :title="`${POSES[pose]?.label}: frame ${near(frame)}\n${POSES[pose]?.about}\nClick to go there`"
      @click="playback.goTo(frame)"
    >
      <svg viewBox="0 0 10 10" aria-hidden="true"><path :d="POSES[pose]?.mark" /></svg>
    </button>
  </SubLane>
</template>

<style scoped>
.bars {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
}
.bars path {
  fill: none;
  stroke: var(--size-fill);
  stroke-width: 6;
  stroke-linecap: round;
  opacity: 0.75;
}
.pose {
  position: absolute;
  top: 0;
  width: 12px;
  height: 12px;
  margin-left: -6px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
  color: var(--ink-2);
}
.pose svg {
  width: 10px;
  height: 10px;
  display: block;
  margin: 0 auto;
}
.pose path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.7;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.pose.contact {
  color: var(--ink);
}
.pose:hover {
  color: var(--playhead);
}
</style>
