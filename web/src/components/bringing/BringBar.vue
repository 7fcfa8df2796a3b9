<script setup lang="ts">
/** What is being brought in, how far that is, and what was odd about it. */
import { useBringIn } from "@/composables/bringing/useBringIn";

const { progress, said, forget } = useBringIn();
</script>

<template>
  <aside v-if="progress || said.length" class="bring" role="status" aria-label="Pictures brought in">
    <template v-if="progress">
      <strong>Bringing in {{ progress.done + 1 }} of {{ progress.total }}</strong>
      <span class="name">{{ progress.name }}</span>
      <progress :value="progress.done" :max="progress.total" />
    </template>
    <template v-else>
      <p v-for="(line, i) in said" :key="i">{{ line }}</p>
      <button class="chip small" @click="forget">Good</button>
    </template>
  </aside>
</template>

<style scoped>
.bring {
  position: fixed;
  left: 50%;
  bottom: 178px;
  transform: translateX(-50%);
  z-index: 20;
  max-width: min(560px, 80vw);
  display: grid;
  gap: 5px;
  justify-items: start;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 14px;
  padding: 10px 16px;
  box-shadow: 0 6px 24px #5a4a2033;
  font-size: 12.5px;
}
p {
  margin: 0;
}
.name {
  color: var(--ink-2);
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
progress {
  width: 260px;
  accent-color: var(--travel);
}
</style>
