<script setup lang="ts">
/** A starter, drawn small. */
import { computed } from "vue";
import type { StarterWords } from "@/api/types";

const props = defineProps<{ starter: StarterWords }>();
/** All are shown to one scale, so that one sees which is large. */
const [WIDE, HIGH] = [272, 240];
const box = computed(() => `${-WIDE / 2 + 14} ${-HIGH + 8} ${WIDE} ${HIGH}`);
const least = computed(() => (props.starter.height < 80 ? "-72 -88 158 94" : box.value));
</script>

<template>
  <svg :viewBox="least" width="118" height="104" aria-hidden="true">
    <g v-for="(part, i) in starter.parts" :key="i" :transform="`translate(${part.at[0]} ${part.at[1]})`">
      <path :d="part.d" :fill="part.fill" />
    </g>
    <line x1="-100" x2="120" y1="1" y2="1" />
  </svg>
</template>

<style scoped>
line {
  stroke: #b9ad93;
  stroke-width: 1.5;
}
</style>
