<script setup lang="ts">
/** One ready element, alive while it can be seen. */
import { ref } from "vue";
import { api } from "@/api/client";
import type { ElementWords } from "@/api/types";
import { useMotionInView } from "@/composables/useMotionInView";
import MotionPicture from "@/components/common/MotionPicture.vue";

const props = defineProps<{ element: ElementWords; disabled: boolean }>();
const emit = defineEmits<{ add: [] }>();
const card = ref<HTMLElement>();
const { motion, playing, pointed } = useMotionInView(card, () => api.elementMotion(props.element.name));
</script>

<template>
  <button
    ref="card"
    class="card"
    :disabled="disabled"
    :title="element.about"
    @pointerenter="pointed = true"
    @pointerleave="pointed = false"
    @click="emit('add')"
  >
    <MotionPicture :motion="motion" :playing="playing" :width="element.width" :height="element.height" />
    <strong><span class="sr-only">Add </span>{{ element.label }}</strong>
    <span>{{ element.about }}</span>
  </button>
</template>

<style scoped>
.card {
  display: grid;
  gap: 3px;
  align-content: start;
  padding: 6px;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.card:hover:not(:disabled) {
  border-color: var(--ink-3);
}
span {
  color: var(--ink-2);
  font-size: 12px;
}
canvas {
  width: 100%;
  border-radius: 6px;
}
</style>
