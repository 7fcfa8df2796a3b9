<script setup lang="ts">
/** Grips beyond the first and last of the picked leaves: drag one to stretch time about the other end. */
import { beginDrag } from "@/composables/useDrag";
import { ref } from "vue";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useScene } from "@/stores/scene";

const props = defineProps<{ perFrame: number }>();
const scene = useScene();
const leaf = useLeafActions();
/** The span the picked leaves would have, while a grip is dragged. */
const shown = ref<{ first: number; last: number } | null>(null);

function begin(event: PointerEvent, side: "first" | "last"): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const frames = leaf.frames.value;
  const [first, last] = [frames[0]!, frames.at(-1)!];
  const about = side === "first" ? last : first;
  const grabbed = side === "first" ? first : last;
  const from = event.clientX;
  let factor = 1;
  const move = (e: PointerEvent): void => {
    const to = Math.round(grabbed + (e.clientX - from) / props.perFrame);
    const next = (to - about) / (grabbed - about);
    if (next < 0.01 || next === factor) return;
    factor = next;
    shown.value = side === "first" ? { first: to, last } : { first, last: to };
    void scene.lookAt([leaf.stretchEdit(about, factor)]);
  };
  const end = (kept: boolean): void => {
    shown.value = null;
    if (kept && factor !== 1) void leaf.stretch(about, factor);
    else scene.letGo();
  };
  beginDrag(event, { move, end });
}
</script>

<template>
  <button
    class="grip"
    aria-label="Stretch from the first picked leaf"
    title="Drag to stretch the selected keys in time from the last one"
    :style="{ left: `${(shown?.first ?? leaf.frames.value[0] ?? 0) * perFrame - 20}px` }"
    @pointerdown="begin($event, 'first')"
  />
  <button
    class="grip"
    aria-label="Stretch from the last picked leaf"
    title="Drag to stretch the selected keys in time from the first one"
    :style="{ left: `${(shown?.last ?? leaf.frames.value.at(-1) ?? 0) * perFrame + 13}px` }"
    @pointerdown="begin($event, 'last')"
  />
</template>

<style scoped>
.grip {
  position: absolute;
  top: 4px;
  width: 7px;
  height: 16px;
  border: 0;
  border-radius: 3px;
  background: var(--playhead);
  cursor: ew-resize;
  padding: 0;
  touch-action: none;
  pointer-events: auto;
}
</style>
