<script setup lang="ts">
/** Baked motion in a small canvas: still at a representative frame, or looping. */
import { useRafFn } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import type { Motion } from "@/api/motion";
import { paintFrame } from "@/picture/paint";

const props = defineProps<{ motion: Motion | null; playing: boolean; width: number; height: number }>();
const canvas = ref<HTMLCanvasElement>();
const passed = ref<number | null>(null);
// The first picture shows the scene under way, not before anything has entered.
const frame = computed(() => passed.value ?? Math.floor((props.motion?.length ?? 0) / 3));

let begun = 0;
const raf = useRafFn(
  ({ timestamp }) => {
    if (!props.motion) return;
    begun ||= timestamp;
    passed.value = Math.floor(((timestamp - begun) / 1000) * props.motion.fps) % props.motion.length;
  },
  { immediate: false },
);

watch(
  () => props.playing,
  (playing) => {
    begun = 0;
    if (playing) raf.resume();
    else raf.pause();
  },
  { immediate: true },
);

watch(
  [() => props.motion, frame, canvas],
  () => {
    const ctx = canvas.value?.getContext("2d");
    if (ctx && props.motion) paintFrame(ctx, props.motion, frame.value, ctx.canvas.width, ctx.canvas.height);
  },
  { flush: "post", immediate: true },
);
</script>

<template>
  <canvas ref="canvas" :width="width" :height="height" aria-hidden="true" />
</template>

<style scoped>
canvas {
  max-width: 100%;
  max-height: 100%;
  display: block;
}
</style>
