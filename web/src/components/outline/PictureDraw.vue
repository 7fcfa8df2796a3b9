<script setup lang="ts">
/** What is being drawn: the points and handles so far, and how it would go on to the pointer. */
import { computed } from "vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { IDENTITY, type Point } from "@/geometry/matrix";
import { pathOf } from "@/geometry/outline";
import { useOutline } from "@/stores/outline";

const props = defineProps<{ view: PictureView; closes: (at: Point) => boolean }>();
const outline = useOutline();
const at = (p: Point): Point => props.view.onStage(IDENTITY, p);
const staged = (p: Point | null): Point | null => p && at(p);

const points = computed(() =>
  outline.drawn.map((one) => ({ at: at(one.at), into: staged(one.into), out: staged(one.out) })),
);
const closing = computed(() => outline.pointer !== null && props.closes(outline.pointer));
const line = computed(() => pathOf(points.value, closing.value));
/** From the last point to the pointer. */
const ahead = computed(() => {
  const [last, pointer] = [points.value.at(-1), outline.pointer];
  if (!last || !pointer || closing.value) return "";
  return pathOf([last, { at: at(pointer), into: null, out: null }], false);
});
const hand = computed(() => outline.hand.map((p) => `${at(p).x.toFixed(1)},${at(p).y.toFixed(1)}`).join(" "));
</script>

<template>
  <g class="draw">
    <path class="line" :d="line" />
    <path class="ahead" :d="ahead" />
    <polyline class="line" :points="hand" />
    <template v-for="(point, i) in points" :key="i">
      <template v-for="(handle, side) in { into: point.into, out: point.out }" :key="side">
        <line v-if="handle" class="arm" :x1="point.at.x" :y1="point.at.y" :x2="handle.x" :y2="handle.y" />
        <circle v-if="handle" class="handle" :cx="handle.x" :cy="handle.y" r="3.5" />
      </template>
      <circle
        class="point"
        :class="{ first: i === 0, closing: i === 0 && closing }"
        :cx="point.at.x"
        :cy="point.at.y"
        :r="i === 0 ? 6 : 4.5"
      />
    </template>
  </g>
</template>

<style scoped>
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.ahead {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
.arm {
  stroke: var(--ink-2);
  stroke-width: 1;
}
.handle {
  fill: var(--paper);
  stroke: var(--size);
  stroke-width: 1.6;
}
.point {
  fill: var(--size-fill);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.first.closing {
  fill: var(--playhead);
}
</style>
