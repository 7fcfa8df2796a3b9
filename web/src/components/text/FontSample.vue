<script setup lang="ts">
/** The name of a font, set in itself. */
import type { FontWords } from "@/api/types";

defineProps<{ font: FontWords; height: number }>();
</script>

<template>
  <svg
    class="sample"
    role="img"
    :aria-label="font.label"
    :viewBox="`0 -19 ${font.width + 2} 26`"
    :style="{ height: `${height}px` }"
  >
    <path :d="font.sample" fill="currentColor" />
  </svg>
</template>

<style scoped>
.sample {
  display: block;
  max-width: 100%;
}
</style>
