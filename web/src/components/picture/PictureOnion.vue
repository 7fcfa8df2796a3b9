<script setup lang="ts">
/** Onion skin: the picked object as it was and will be, tinted, over the picture. */
import { useDevicePixelRatio } from "@vueuse/core";
import { computed, ref, watchEffect } from "vue";
import type { PictureView } from "@/composables/usePictureView";
import { onionFrames, paintGhost } from "@/picture/onion";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; width: number; height: number }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const canvas = ref<HTMLCanvasElement>();
const { pixelRatio } = useDevicePixelRatio();

/** Whose ghosts are seen, each with all its parts, in drawing order. */
const ids = computed(() => {
  const whose = [selection.objectId, selection.onion.also].filter((id): id is string => Boolean(id && scene.byId.has(id)));
  const all = new Set(whose.flatMap((id) => withParts(id, scene.parts)));
  return (scene.motion?.order ?? []).filter((id) => all.has(id) && !scene.motion?.hidden.has(id));
});
const keys = computed(() => {
  const found = ids.value.flatMap((id) => Object.values(scene.byId.get(id)?.channels ?? {}).flatMap((channel) => channel.keys.map((key) => Math.round(key.frame))));
  return [...new Set(found)].sort((a, b) => a - b);
});

watchEffect(() => {
  const ctx = canvas.value?.getContext("2d");
  const motion = scene.motion;
  if (!ctx || !motion) return;
  const ratio = pixelRatio.value;
  const [w, h] = [Math.max(1, Math.round(props.width * ratio)), Math.max(1, Math.round(props.height * ratio))];
  if (ctx.canvas.width !== w || ctx.canvas.height !== h) [ctx.canvas.width, ctx.canvas.height] = [w, h];
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, w, h);
  const { scale, left, top } = props.view;
  for (const ghost of onionFrames(selection.onion, playback.frame, playback.last, keys.value)) {
    paintGhost(ctx, ids.value.map((id) => motion.objects.get(id)), ghost, scale.value * ratio, left.value * ratio, top.value * ratio);
  }
});
</script>

<template>
  <canvas ref="canvas" class="onion" data-testid="onion" aria-hidden="true" />
</template>

<style scoped>
.onion { position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none; }
</style>
