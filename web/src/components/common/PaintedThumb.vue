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
import { type BakedObject, valuesAt } from "@/api/motion";
import { moved, toMatrix } from "@/geometry/matrix";
import { outlineAt, paintObject } from "@/picture/paint";
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
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const drawn = painted().filter((thing): thing is BakedObject => Boolean(thing?.outline));
  for (const thing of drawn) {
    const [l, t, r, b] = outlineAt(thing, props.frame)?.bounds ?? [0, 0, 0, 0];
    const world = toMatrix(valuesAt(thing.world, props.frame));
    for (const corner of [{ x: l, y: t }, { x: r, y: t }, { x: r, y: b }, { x: l, y: b }]) {
      const p = moved(world, corner);
      [left, top, right, bottom] = [Math.min(left, p.x), Math.min(top, p.y), Math.max(right, p.x), Math.max(bottom, p.y)];
    }
  }
  const scale = (side - 6) / Math.max(right - left, bottom - top, 1);
  const dx = side / 2 - ((left + right) / 2) * scale;
  const dy = side / 2 - ((top + bottom) / 2) * scale;
  for (const thing of drawn) paintObject(ctx, thing, props.frame, scale, dx, dy);
  source.value = ctx.canvas.toDataURL();
}

// While something is dragged its thumbnail can wait for the hand to rest.
watchDebounced(
  [seen, painted],
  ([visible]) => visible && paint(),
  { deep: 1, debounce: () => (source.value ? 250 : 0), immediate: true },
);
</script>

<template>
  <span ref="image" class="thumb"><img v-if="source" :src="source" :width="SIDE" :height="SIDE" alt="" draggable="false" /></span>
</template>

<style scoped>
.thumb { width: 28px; height: 28px; border-radius: 8px; background: var(--paper-3); flex: none; display: block; }
img { display: block; }
</style>
