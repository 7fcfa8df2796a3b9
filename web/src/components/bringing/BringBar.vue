<script setup lang="ts">
/** Shows which file is being imported and how far that is, and what was unusual about the last ones. */
import { computed } from "vue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { SOON, useWorkShare } from "@/composables/work/useWorkShare";

const { progress, said, forget } = useBringIn();
const work = computed(() => progress.value?.work ?? null);
const { taken, percent } = useWorkShare(work);
/** The share of all files that is done, 0…1. */
const share = computed(() =>
  progress.value ? (progress.value.done + (percent.value ?? 0) / 100) / progress.value.total : 0,
);
</script>

<template>
  <aside v-if="progress || said.length" class="bring" role="status" aria-label="Importing files">
    <template v-if="progress">
      <strong>Importing{{ progress.total > 1 ? ` ${progress.done + 1} of ${progress.total}` : "" }}</strong>
      <span class="name">{{ progress.name }}</span>
      <span class="line">
        <progress :value="share" max="1" aria-label="Share that is done" />
        <span v-if="percent !== null" class="percent">{{ percent }} %</span>
        <button
          v-if="taken > SOON || progress.total > 1"
          class="chip small"
          title="Cancel. The scene stays unchanged."
          @click="progress.work.stop()"
        >
          Stop
        </button>
      </span>
    </template>
    <template v-else>
      <p v-for="(line, i) in said" :key="i">{{ line }}</p>
      <button class="chip small" title="Close this message" @click="forget">OK</button>
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
.line {
  display: flex;
  align-items: center;
  gap: 10px;
}
.percent {
  min-width: 4ch;
  font-family: var(--mono);
}
progress {
  width: 260px;
  accent-color: var(--travel);
}
</style>
