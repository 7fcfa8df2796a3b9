<script setup lang="ts">
/** A line between two panels that can be dragged, or moved with the arrow keys, to give one of them more room. */
import { beginDrag } from "@/composables/useDrag";

const size = defineModel<number>({ required: true });
const props = defineProps<{ label: string; least: number; most: number }>();

const within = (value: number): number => Math.min(Math.max(value, props.least), props.most);

function begin(event: PointerEvent): void {
  const was = size.value;
  const from = event.clientY + was;
  const move = (e: PointerEvent): void => void (size.value = within(from - e.clientY));
  beginDrag(event, { move, end: (kept) => kept || (size.value = was) });
}
</script>

<template>
  <div
    class="divider"
    role="separator"
    tabindex="0"
    aria-orientation="horizontal"
    :aria-label="label"
    :aria-valuenow="size"
    :aria-valuemin="least"
    :aria-valuemax="most"
    :title="label"
    @pointerdown="begin"
    @keydown.up.prevent.stop="size = within(size + 16)"
    @keydown.down.prevent.stop="size = within(size - 16)"
  />
</template>

<style scoped>
.divider {
  position: absolute;
  left: 0;
  right: 0;
  top: -4px;
  height: 8px;
  cursor: ns-resize;
  z-index: 2;
  touch-action: none;
}
.divider:hover,
.divider:focus-visible {
  background: linear-gradient(transparent 3px, var(--travel) 3px, var(--travel) 5px, transparent 5px);
  outline: none;
}
</style>
