<script setup lang="ts">
/**
 * The way an object's pivot takes through the picture: one dot a frame, close where it is slow, wide where it is fast.
 */
import { computed } from "vue";
import type { Rows } from "@/api/motion";
import type { PictureView } from "@/composables/picture/usePictureView";
import type { Point } from "@/geometry/matrix";
import { lensOf } from "@/picture/lens";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ id: string; view: PictureView }>();
const scene = useScene();
const playback = usePlayback();
/** More dots than this are a blur anyway. */
const MOST = 3000;

/** The way of the pivot; for what only turns about its pivot, the way of its middle. */
const points = computed(() => {
  const baked = scene.motion?.objects.get(props.id);
  const way = wayOf(baked?.place);
  return way.length ? way : wayOf(baked?.middle);
});

function wayOf(place: Rows | undefined): Point[] {
  if (!place || place.rows < 2) return [];
  const step = Math.max(1, Math.ceil(place.rows / MOST));
  const found: Point[] = [];
  for (let i = 0; i < place.rows; i += step) found.push({ x: place.data[i * 2] ?? 0, y: place.data[i * 2 + 1] ?? 0 });
  const still = found.every((p) => Math.abs(p.x - found[0]!.x) + Math.abs(p.y - found[0]!.y) < 0.01);
  return still ? [] : found;
}
/** The way is in the scene, and is seen as the camera sees it now. */
const lens = computed(() => lensOf(scene.motion, props.id, playback.frame));
const onStage = computed(() => points.value.map((p) => props.view.onStage(lens.value, p)));
const text = (p: Point) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`;
const line = computed(() => (onStage.value.length ? `M${onStage.value.map(text).join("L")}` : ""));
const dots = computed(() => onStage.value.map((p) => `M${text(p)}h0`).join(""));
const keyed = computed(() => {
  const channels = scene.byId.get(props.id)?.channels;
  const frames = new Set(
    [...(channels?.x?.keys ?? []), ...(channels?.y?.keys ?? []), ...(channels?.path?.keys ?? [])].map(
      (key) => key.frame,
    ),
  );
  return [...frames].flatMap((frame) => onStage.value[frame] ?? []);
});
const here = computed(() => onStage.value[playback.frame]);
</script>

<template>
  <g v-if="line" data-testid="path-dots" :data-count="points.length">
    <path class="line" :d="line" />
    <path class="dots" :d="dots" />
    <path class="dots inner" :d="dots" />
    <circle v-for="(p, i) in keyed" :key="i" class="key" :cx="p.x" :cy="p.y" r="4" />
    <circle v-if="here" class="here" :cx="here.x" :cy="here.y" r="3.500" />
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--playhead);
  stroke-linecap: round;
  stroke-linejoin: round;
}
.line {
  stroke-width: 1.2;
  opacity: 0.75;
}
.dots {
  stroke-width: 5.4;
}
.dots.inner {
  stroke: var(--paper);
  stroke-width: 3;
}
.key {
  fill: var(--playhead);
  stroke: var(--paper);
  stroke-width: 1.2;
}
.here {
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 1.2;
}
</style>
