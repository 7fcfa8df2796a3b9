<script setup lang="ts">
/** The boxes of all objects picked together, and the box that is being drawn to pick some. */
import { computed } from "vue";
import type { PictureView } from "@/composables/usePictureView";
import { IDENTITY, type Point } from "@/geometry/matrix";
import { cornersOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; box: readonly [Point, Point] | null }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();

const outlines = computed(() => {
  const motion = scene.motion;
  if (!motion || !selection.several) return [];
  return selection.picked.flatMap((id) => {
    const points = cornersOf(motion, id, playback.frame, scene.parts)?.map((p) => props.view.onStage(IDENTITY, p));
    return points ? [{ id, points: points.map(({ x, y }) => `${x},${y}`).join(" ") }] : [];
  });
});
const drawn = computed(() => {
  if (!props.box) return null;
  const [a, b] = props.box.map((p) => props.view.onStage(IDENTITY, p)) as [Point, Point];
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
});
</script>

<template>
  <g data-testid="picked-together">
    <polygon v-for="one in outlines" :key="one.id" class="one" :points="one.points" />
    <rect v-if="drawn" class="drawn" v-bind="drawn" />
  </g>
</template>

<style scoped>
.one {
  fill: none;
  stroke: var(--playhead);
  stroke-width: 1.4;
}
.drawn {
  fill: color-mix(in srgb, var(--playhead) 10%, transparent);
  stroke: var(--playhead);
  stroke-dasharray: 4 3;
}
</style>
