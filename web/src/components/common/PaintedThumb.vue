<script setup lang="ts">
/** One object, painted small from its baked motion. */
import { onMounted, ref, watch } from "vue";
import { type Motion, valuesAt } from "@/api/motion";
import { moved, toMatrix } from "@/geometry/matrix";
import { outlineAt, paintObject } from "@/picture/paint";

const props = defineProps<{ motion: Motion; ids: readonly string[]; frame: number }>();
const SIDE = 28;
const canvas = ref<HTMLCanvasElement>();

function paint(): void {
  const ctx = canvas.value?.getContext("2d");
  if (!ctx) return;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, ctx.canvas.width, ctx.canvas.height);
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const drawn = props.ids.filter((id) => props.motion.objects.get(id)?.outline);
  for (const id of drawn) {
    const thing = props.motion.objects.get(id)!;
    const [l, t, r, b] = outlineAt(thing, props.frame)?.bounds ?? [0, 0, 0, 0];
    const world = toMatrix(valuesAt(thing.world, props.frame));
    for (const corner of [{ x: l, y: t }, { x: r, y: t }, { x: r, y: b }, { x: l, y: b }]) {
      const p = moved(world, corner);
      [left, top, right, bottom] = [Math.min(left, p.x), Math.min(top, p.y), Math.max(right, p.x), Math.max(bottom, p.y)];
    }
  }
  const side = Math.max(right - left, bottom - top, 1);
  const scale = (ctx.canvas.width - 6) / side;
  const dx = ctx.canvas.width / 2 - ((left + right) / 2) * scale;
  const dy = ctx.canvas.height / 2 - ((top + bottom) / 2) * scale;
  for (const id of drawn) paintObject(ctx, props.motion.objects.get(id)!, props.frame, scale, dx, dy);
}

onMounted(paint);
watch(() => [props.ids.map((id) => props.motion.objects.get(id)), props.ids], paint, { deep: 1 });
</script>

<template>
  <canvas ref="canvas" class="thumb" :width="SIDE * 2" :height="SIDE * 2" aria-hidden="true" />
</template>

<style scoped>
.thumb { width: 28px; height: 28px; border-radius: 8px; background: var(--paper-3); flex: none; }
</style>
