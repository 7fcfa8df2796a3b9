<script setup lang="ts">
/** Long work: its name, duration and progress, with a button that stops it. */
import { toRef } from "vue";
import { SOON, useWorkShare } from "@/composables/work/useWorkShare";
import type { Work } from "@/api/work";
import { secondsText } from "@/geometry/amounts";

const props = defineProps<{ work: Work | null; doing: string }>();
const { taken, percent } = useWorkShare(toRef(props, "work"));
</script>

<template>
  <div v-if="work && taken > SOON" class="work" role="status">
    <progress v-if="percent !== null" :value="percent" max="100" aria-label="Progress" />
    <span v-else class="bar" aria-hidden="true" />
    <span>{{ doing }} {{ secondsText(taken / 1000) }}{{ percent === null ? "" : ` · ${percent} %` }}</span>
    <button class="plain" title="Cancel. Nothing is changed." @click="work.stop()">Stop</button>
  </div>
</template>

<style scoped>
.work {
  position: fixed;
  top: 56px;
  left: 50%;
  z-index: 3000;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 8px 6px 16px;
  border: 1px solid var(--line);
  border-radius: 99px;
  background: var(--paper);
  color: var(--ink);
  transform: translateX(-50%);
  box-shadow: 0 6px 24px #5a4a2033;
}
.bar {
  width: 48px;
  height: 4px;
  border-radius: 2px;
  background: linear-gradient(90deg, var(--travel) 40%, var(--line) 40%);
  background-size: 200% 100%;
  animation: run 1.2s linear infinite;
}
progress {
  width: 96px;
  height: 6px;
  accent-color: var(--travel);
}
.plain {
  padding: 2px 12px;
}
@keyframes run {
  from {
    background-position: 200% 0;
  }
  to {
    background-position: 0 0;
  }
}
</style>
