<script lang="ts">
const SIDE = 28;
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
import { extentOf } from "@/picture/layers";
import { atFrame } from "@/picture/looked";
import { paintSteps } from "@/picture/paint";
import { leavesOf, type Step } from "@/api/paintList";
import { useScene } from "@/stores/scene";

const props = defineProps<{ ids: readonly string[]; frame: number }>();
const scene = useScene();
const image = ref<HTMLElement>();
const seen = useElementVisibility(image);
const source = ref("");

const painted = () => props.ids.map((id) => scene.motion?.objects.get(id));

function paint(): void {
  const ctx = shared();
  if (!ctx) return;
  const side = ctx.canvas.width;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, side, side);
  const own = new Set(props.ids);
  const leaves = leavesOf(scene.motion?.steps ?? []).filter(({ id }) => own.has(id));
  const looked = {
    ...atFrame(props.frame),
    only: (step: Step) => step.op === "group" || step.op === "instance" || own.has(step.id),
  };
  const box = extentOf(leaves, looked, IDENTITY, 0);
  if (box) {
    const scale = (side - 6) / Math.max(box.width, box.height, 1);
    const [dx, dy] = [side / 2 - (box.left + box.width / 2) * scale, side / 2 - (box.top + box.height / 2) * scale];
    paintSteps(ctx, scene.motion?.steps ?? [], looked, [scale, 0, 0, scale, dx, dy]);
  }
  source.value = ctx.canvas.toDataURL();
}

// While something is dragged its thumbnail can wait for the hand to rest.
watchDebounced([seen, painted], ([visible]) => visible && paint(), {
  deep: 1,
  debounce: () => (source.value ? 250 : 0),
  immediate: true,
});
</script>

<template>
  <span ref="image" class="thumb"
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
img {
  display: block;
}
</style>
