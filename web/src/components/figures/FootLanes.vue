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
const posesOf = (leg: string) => {
  const own = props.steps.poses.filter((one) => one[2] === leg);
  const gaps = own
    .slice(1)
    .map((one, i) => one[0] - own[i]![0])
    .sort((a, b) => a - b);
  // The usual gap counts: a step cut short need not hide all others.
  const tight = (gaps[Math.floor(gaps.length / 4)] ?? 99) * props.perFrame < 11;
  return tight ? own.filter((one) => one[1] === "contact") : own;
};
const down = (leg: string, frame: number): boolean =>
  (props.steps.down[leg] ?? []).some(([a, b]) => frame >= a && frame <= b);
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
      >{{ leg.name }} <small>{{ down(leg.id, playback.frame) ? "down" : "up" }}</small></template
    >
    <span
      v-for="([a, b], i) in steps.down[leg.id] ?? []"
      :key="i"
      class="bar"
      :style="{ left: `${a * perFrame}px`, width: `${Math.max(2, (b - a) * perFrame)}px` }"
      :title="`On the ground from frame ${near(a)} to ${near(b)}`"
    />
    <button
      v-for="[frame, pose] in posesOf(leg.id)"
      :key="`${pose} ${frame}`"
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
.bar {
  position: absolute;
  top: 11px;
  height: 6px;
  background: var(--size-fill);
  opacity: 0.75;
  border-radius: 3px;
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
