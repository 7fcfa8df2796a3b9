<script setup lang="ts">
/** In what figure copies stand: one of several drawings. */
import { type Arrange, ARRANGEMENTS } from "@/api/parades";

defineProps<{ arrange: Arrange; hasText: boolean; hasGuides: boolean }>();
const emit = defineEmits<{ choose: [arrange: Arrange] }>();
</script>

<template>
  <div class="arranges" role="radiogroup" aria-label="Arrangement">
    <template v-for="one in ARRANGEMENTS" :key="one.arrange">
      <button
        v-if="one.needs !== 'text' || hasText"
        role="radio"
        :aria-checked="arrange === one.arrange"
        :class="{ on: arrange === one.arrange }"
        :disabled="one.needs === 'guide' && !hasGuides"
        :title="one.needs === 'guide' && !hasGuides ? `${one.about}: draw something to stand along first` : one.about"
        @click="emit('choose', one.arrange)"
      >
        <svg viewBox="0 0 20 20" aria-hidden="true"><path :d="one.icon" /></svg>
        {{ one.label }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.arranges {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(48px, 1fr));
  gap: 4px;
}
button {
  display: grid;
  justify-items: center;
  gap: 1px;
  padding: 3px 2px 4px;
  border: 1px solid transparent;
  border-radius: var(--radius-s);
  background: none;
  color: var(--ink);
  font: inherit;
  font-size: 11px;
}
button:hover:not(:disabled) {
  background: var(--paper-2);
}
button.on {
  border-color: var(--leaf, #2e6b4a);
  background: var(--paper-3);
}
button:disabled {
  opacity: 0.4;
}
svg {
  width: 20px;
  height: 20px;
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
