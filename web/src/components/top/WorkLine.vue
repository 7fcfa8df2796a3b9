<script setup lang="ts">
/** What takes long is said, with how long it has taken, and can be stopped. */
import { useIntervalFn } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { secondsText } from "@/geometry/amounts";
import { useScene } from "@/stores/scene";

defineProps<{ doing: string }>();
/** What is done sooner is done before anybody has read of it, ms. */
const SOON = 700;
const scene = useScene();
const now = ref(performance.now());
const clock = useIntervalFn(() => (now.value = performance.now()), 250, { immediate: false });
// Nothing ticks while nothing is worked out.
watch(
  () => scene.working,
  (working) => (working ? clock.resume() : clock.pause()),
  { immediate: true },
);
const taken = computed(() => (scene.working ? now.value - scene.working.since : 0));
</script>

<template>
  <div v-if="scene.working && taken > SOON" class="work" role="status">
    <span class="bar" aria-hidden="true" />
    <span>{{ doing }} {{ secondsText(taken / 1000) }}</span>
    <button class="plain" title="Give it up; the scene stays as it is" @click="scene.working?.stop()">Stop</button>
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
