<script lang="ts">
const SIDE = 28;
/** What thumbnails lie on, r g b: --paper-3. */
const PAPER = [239, 231, 214] as const;
/** One canvas paints all thumbnails: many canvases on a page cost every frame of playback, pictures cost nothing. */
let painter: CanvasRenderingContext2D | null = null;

function shared(): CanvasRenderingContext2D | null {
  if (!painter) {
    const canvas = document.createElement("canvas");
    canvas.width = canvas.height = SIDE * 2;
    painter = canvas.getContext("2d", { willReadFrequently: true });
  }
  return painter;
}
</script>

<script setup lang="ts">
/** Some objects, painted small from their baked motion. */
import { useElementVisibility, watchDebounced } from "@vueuse/core";
import { ref } from "vue";
import { IDENTITY } from "@/geometry/matrix";
import { hardlySeen } from "@/picture/contrast";
import { extentOf } from "@/picture/layers";
import { atFrame } from "@/picture/frameView";
import { paintSteps } from "@/picture/paint";
import { stepsOf } from "@/api/paintList";
import { arrived } from "@/api/pictures";
import { useScene } from "@/stores/scene";

const props = defineProps<{ ids: readonly string[]; frame: number }>();
const scene = useScene();
const image = ref<HTMLElement>();
const seen = useElementVisibility(image);
const source = ref("");
/** Pale things lie on a dark ground. */
const pale = ref(false);

const painted = () => props.ids.map((id) => scene.motion?.objects.get(id));

function paint(): void {
  const ctx = shared();
  if (!ctx) return;
  const side = ctx.canvas.width;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, side, side);
  const own = new Set(props.ids);
  const steps = stepsOf(scene.motion?.steps ?? [], own);
  const last = (scene.motion?.length ?? 1) - 1;
  // What grows out of nothing is shown at a frame at which it is there.
  const frames = [props.frame, Math.round(last / 3), Math.round((2 * last) / 3)];
  const seenAt = (frame: number) => extentOf(steps, { ...atFrame(frame), only: () => true }, IDENTITY, 0);
  const frame = frames.find((one) => (seenAt(one)?.width ?? 0) > 0.5) ?? props.frame;
  // What a thing is shows best without what is done to its look.
  const looked = { ...atFrame(frame), only: () => true, effectsOf: () => [] };
  const box = extentOf(steps, looked, IDENTITY, 0);
  if (box) {
    const scale = (side - 6) / Math.max(box.width, box.height, 1);
    const [dx, dy] = [side / 2 - (box.left + box.width / 2) * scale, side / 2 - (box.top + box.height / 2) * scale];
    paintSteps(ctx, steps, looked, [scale, 0, 0, scale, dx, dy]);
  }
  pale.value = hardlySeen(ctx.getImageData(0, 0, side, side).data, PAPER);
  source.value = ctx.canvas.toDataURL();
}

// While something is dragged its thumbnail can wait for the hand to rest.
watchDebounced([seen, painted, arrived], ([visible]) => visible && paint(), {
  deep: 1,
  debounce: () => (source.value ? 250 : 0),
  immediate: true,
});
</script>

<template>
  <span ref="image" class="thumb" :class="{ pale }"
    ><img v-if="source" :src="source" :width="SIDE" :height="SIDE" alt="" draggable="false"
  /></span>
</template>

<style scoped>
.thumb {
  width: 28px;
  height: 28px;
  border-radius: 8px;
  background: var(--paper-3);
  flex: none;
  display: block;
}
.pale {
  background: var(--ink-2);
}
img {
  display: block;
}
</style>
