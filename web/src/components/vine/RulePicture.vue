<script setup lang="ts">
/**
 * What a rule does, small: a move in grey, what becomes of it in colour, and a seed that moves by it while the pointer
 * is near.
 */
import { computed } from "vue";
import { useSeed } from "@/composables/useSeed";
import { curvePath } from "@/geometry/curves";

const props = defineProps<{
  before: readonly number[];
  after: readonly number[];
  /** Of a rule on outlines: an outline before and after it, within 80 × 60 px about its middle. */
  drawn?: readonly string[] | null;
  /** Of a rule on looks: a picture under it. */
  shown?: string | null;
}>();
const [W, H] = [88, 36];
const path = (values: readonly number[]): string => curvePath(values, W, H, -0.35, 1.35);
const { share, start, stop } = useSeed(2500, 2500);
const at = computed(
  () => props.after[Math.min(props.after.length - 1, Math.floor(share.value * props.after.length))] ?? 0,
);
</script>

<template>
  <img v-if="shown" :src="shown" :width="W" :height="H + 14" alt="" />
  <svg v-else-if="drawn" viewBox="-44 -30 88 60" :width="W" :height="H + 14" aria-hidden="true">
    <path class="before" :d="drawn[0]" />
    <path class="after" :d="drawn[1]" />
  </svg>
  <svg
    v-else
    :viewBox="`0 -2 ${W} ${H + 14}`"
    :width="W"
    :height="H + 14"
    aria-hidden="true"
    @pointerenter="start"
    @pointerleave="stop"
  >
    <path class="before" :d="path(before)" />
    <path class="after" :d="path(after)" />
    <ellipse :cx="20 + at * (W - 40)" :cy="H + 7" rx="4" ry="3.200" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke-linejoin: round;
}
.before {
  stroke: #cfc3a9;
  stroke-width: 1.5;
}
.after {
  stroke: var(--turn);
  stroke-width: 2;
}
ellipse {
  fill: var(--size-fill);
}
</style>
