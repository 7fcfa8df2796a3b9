<script setup lang="ts">
/** A feel as a picture: its curve, and a seed that travels by it while the pointer is near. */
import { computed } from "vue";
import { useSeed } from "@/composables/useSeed";

const props = defineProps<{ curve: readonly number[]; stepped?: boolean }>();
const W = 64;
const H = 34;
const LOW = -0.35;
const HIGH = 1.6;
const y = (p: number): number => H - ((p - LOW) / (HIGH - LOW)) * H;
const x = (u: number): number => 2 + u * (W - 4);
const path = computed(() => {
  if (props.stepped) return `M${x(0)} ${y(0)}H${x(1)}V${y(1)}`;
  const points = props.curve.map((p, i) => `${x(i / (props.curve.length - 1)).toFixed(1)} ${y(p).toFixed(1)}`);
  return `M${points.join("L")}`;
});

const { share, start, stop } = useSeed(1500, 1100);
const at = computed(() => {
  if (props.stepped) return share.value < 1 ? 0 : 1;
  return props.curve[Math.min(Math.round(share.value * (props.curve.length - 1)), props.curve.length - 1)] ?? 0;
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H + 10}`"
    :width="W"
    :height="H + 10"
    aria-hidden="true"
    @pointerenter="start"
    @pointerleave="stop"
  >
    <path :d="path" />
    <line x1="8" :x2="W - 8" :y1="H + 5" :y2="H + 5" />
    <ellipse :cx="12 + at * (W - 24)" :cy="H + 5" rx="4" ry="3.200" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--travel);
  stroke-width: 2;
  stroke-linejoin: round;
}
line {
  stroke: var(--line);
  stroke-width: 1.5;
}
ellipse {
  fill: var(--size-fill);
}
</style>
