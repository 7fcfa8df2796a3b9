<script setup lang="ts">
/** The picture of an object with its descendants, as some of the rules on its look leave it. */
import { ref, watch } from "vue";
import { arrived } from "@/api/pictures";
import { type Group, stepsOf } from "@/api/paintList";
import { IDENTITY } from "@/geometry/matrix";
import { extentOf } from "@/picture/layers";
import { atFrame } from "@/picture/frameView";
import { paintSteps } from "@/picture/paint";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ id: string; upto: ReadonlySet<string> }>();
const scene = useScene();
const playback = usePlayback();
const canvas = ref<HTMLCanvasElement>();
/** Pixels across and down: two for each of the card. */
const [WIDTH, HEIGHT] = [332, 124];
/** How many px of the picture are seen around the object, for shadows and light. */
const AROUND = 40;

function paint(): void {
  const [ctx, motion] = [canvas.value?.getContext("2d"), scene.motion];
  if (!ctx || !motion) return;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, WIDTH, HEIGHT);
  const steps = stepsOf(motion.steps, new Set(withParts(props.id, scene.parts)));
  const looked = {
    ...atFrame(playback.frame),
    only: () => true,
    effectsOf: (step: Group) =>
      step.id === props.id ? step.effects.filter((one) => props.upto.has(one.rule)) : step.effects,
  };
  const box = extentOf(steps, looked, IDENTITY, 0);
  if (!box) return;
  const [width, height] = [Math.min(box.width, motion.size[0]), Math.min(box.height, motion.size[1])];
  const scale = Math.min(WIDTH / (width + 2 * AROUND), HEIGHT / (height + 2 * AROUND), 2);
  const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
  paintSteps(ctx, steps, looked, [scale, 0, 0, scale, WIDTH / 2 - x * scale, HEIGHT / 2 - y * scale]);
}

// While it plays, the picture itself shows what the rules do.
watch(
  [canvas, () => scene.motion, () => playback.textFrame, () => props.upto, () => props.id, arrived],
  () => playback.playing || paint(),
  {
    flush: "post",
    immediate: true,
  },
);
</script>

<template>
  <canvas ref="canvas" :width="WIDTH" :height="HEIGHT" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  height: var(--chart, 62px);
  object-fit: contain;
  border-radius: 6px;
  background: var(--paper-2);
}
</style>
