<script setup lang="ts">
/** A card of the vine: the curve after it, and its commands. */
import { computed } from "vue";
import LeafMark from "@/components/common/LeafMark.vue";
import { curvePath } from "@/geometry/curves";

const props = defineProps<{
  step: {
    kind: string;
    label: string;
    rule: string | null;
    on: boolean;
    values: readonly number[];
    remark: string | null;
    outline?: string | null;
  };
  /** Of outlines: that of the card before, and the box around all of them. */
  outlineBefore?: string | null;
  outlines?: { x: number; y: number; width: number; height: number };
  before: readonly number[] | null;
  family: string;
  scale: { low: number; high: number };
  note: string;
  frame: number;
}>();

const W = 166;
const H = 56;
const curve = computed(() => curvePath(props.step.values, W, H, props.scale.low, props.scale.high));
const ghost = computed(() =>
  props.before && props.step.kind !== "result" ? curvePath(props.before, W, H, props.scale.low, props.scale.high) : "",
);
const x = computed(() => (props.frame / Math.max(1, props.step.values.length - 1)) * W);
</script>

<template>
  <article
    class="card"
    :class="[family, step.kind, { off: !step.on, ruled: step.rule !== null }]"
    :aria-label="`${step.label}: ${note}`"
  >
    <div class="head">
      <LeafMark state="here" :family="family" />
      <h3>{{ step.label }}</h3>
      <slot />
    </div>
    <slot v-if="$slots.picture" name="picture" />
    <svg
      v-else-if="step.outline != null && outlines"
      class="chart"
      :viewBox="`${outlines.x} ${outlines.y} ${outlines.width} ${outlines.height}`"
      aria-hidden="true"
    >
      <path v-if="outlineBefore && step.kind !== 'result'" class="ghost shape" :d="outlineBefore" />
      <path class="curve shape" :d="step.outline" />
    </svg>
    <svg v-else class="chart" :viewBox="`0 -3 ${W} ${H + 6}`" aria-hidden="true">
      <path class="ghost" :d="ghost" />
      <path class="curve" :d="curve" />
      <line class="now" :x1="x" :x2="x" y1="-3" :y2="H + 3" />
    </svg>
    <p class="note" :class="{ remark: step.remark }" :title="note">{{ note }}</p>
  </article>
</template>

<style scoped>
.card {
  position: relative;
  flex: none;
  width: 188px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 14px;
  padding: 7px 10px 6px;
}
.ruled {
  width: 242px;
  cursor: grab;
}
.head :deep(.leaf-mark) {
  flex: none;
}
.head {
  display: flex;
  align-items: center;
  gap: 7px;
  height: 24px;
}
h3 {
  font-size: 13px;
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chart {
  display: block;
  width: 100%;
  height: var(--chart, 62px);
  overflow: visible;
}
path {
  fill: none;
  stroke-linejoin: round;
}
.shape {
  vector-effect: non-scaling-stroke;
}
.ghost {
  stroke: #cfc3a9;
  stroke-width: 1.5;
}
.curve {
  stroke: var(--curve);
  stroke-width: 2;
}
.now {
  stroke: var(--playhead);
  stroke-width: 1.2;
}
.note {
  margin: 2px 0 0;
  font-size: 12px;
  color: var(--ink-2);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.travel {
  --curve: var(--travel);
}
.turn {
  --curve: var(--turn);
}
.size {
  --curve: var(--size);
}
.look {
  --curve: var(--look);
}
.off {
  opacity: 0.55;
}
.result {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--paper);
}
.note.remark {
  color: #a32145;
  font-weight: 600;
}
.result .note {
  color: #cfd6cf;
}
.result {
  --curve: #f5b05c;
}
</style>
