<script setup lang="ts">
/** A button for what cannot simply be undone: the first press asks, the second does it. */
import { ref } from "vue";

defineProps<{
  /** What it says at first. */ asks: string;
  /** What it says when one more press does it. */ confirms: string;
}>();
const emit = defineEmits<{ sure: [] }>();
const asked = ref(false);

function press(): void {
  if (asked.value) emit("sure");
  asked.value = !asked.value;
}
</script>

<template>
  <button class="plain" :class="{ asked }" @click="press" @blur="asked = false">{{ asked ? confirms : asks }}</button>
</template>

<style scoped>
.asked {
  border-color: var(--playhead);
  color: #a31f43;
}
</style>
