<script setup lang="ts">
/** Onion skin: the picked object unchanged and will be, tinted, over the picture. */
import { useDevicePixelRatio } from "@vueuse/core";
import { computed, ref, watchEffect } from "vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { onionFrames, paintGhost } from "@/picture/onion";
import { withParts } from "@/picture/boxes";
import { leavesOf } from "@/api/paintList";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; width: number; height: number }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const canvas = ref<HTMLCanvasElement>();
const { pixelRatio } = useDevicePixelRatio();

/** Whose ghosts are seen, each with all its parts. */
const ids = computed(() => {
  const whose = [selection.objectId, selection.onion.also].filter((id): id is string =>
    Boolean(id && scene.byId.has(id)),
  );
  return new Set(whose.flatMap((id) => withParts(id, scene.parts)).filter((id) => !scene.motion?.hidden.has(id)));
});
/** What is painted of them; one step an object is enough for its outline. */
const leaves = computed(() => {
  const own = leavesOf(scene.motion?.steps ?? []).filter(({ id }) => ids.value.has(id));
  return [...new Map(own.map((leaf) => [leaf.id, leaf])).values()];
});
const keys = computed(() => {
  const found = [...ids.value].flatMap((id) =>
    Object.values(scene.byId.get(id)?.channels ?? {}).flatMap((channel) =>
      channel.keys.map((key) => Math.round(key.frame)),
    ),
  );
  return [...new Set(found)].sort((a, b) => a - b);
});

watchEffect(() => {
  const ctx = canvas.value?.getContext("2d");
  if (!ctx || !scene.motion) return;
  const ratio = pixelRatio.value;
  const [w, h] = [Math.max(1, Math.round(props.width * ratio)), Math.max(1, Math.round(props.height * ratio))];
  if (ctx.canvas.width !== w || ctx.canvas.height !== h) [ctx.canvas.width, ctx.canvas.height] = [w, h];
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, w, h);
  const { scale, left, top } = props.view;
  for (const ghost of onionFrames(selection.onion, playback.frame, playback.last, keys.value)) {
    paintGhost(ctx, leaves.value, ghost, scale.value * ratio, left.value * ratio, top.value * ratio);
  }
});
</script>

<template>
  <canvas ref="canvas" class="onion" data-testid="onion" aria-hidden="true" />
</template>

<style scoped>
.onion {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
</style>
