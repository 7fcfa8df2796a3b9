<script setup lang="ts">
/** What takes long is said, with how long it has taken and how far it has come, and can be stopped. */
import { useIntervalFn } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { api } from "@/api/client";
import type { Work } from "@/api/work";
import { secondsText } from "@/geometry/amounts";

const props = defineProps<{ work: Work | null; doing: string }>();
/** What is done sooner is done before anybody has read of it, ms. */
const SOON = 700;
const now = ref(performance.now());
/** How much is done, 0…1; null where the service does not tell. */
const share = ref<number | null>(null);
const taken = computed(() => (props.work ? now.value - props.work.since : 0));
const clock = useIntervalFn(tick, 250, { immediate: false });

function tick(): void {
  now.value = performance.now();
  if (taken.value > SOON) void ask();
}

let asking = false;
async function ask(): Promise<void> {
  const work = props.work;
  if (!work || asking) return;
  asking = true;
  // Where it cannot be asked, the request itself tells what is wrong.
  const told = await api.share(work).catch(() => null);
  asking = false;
  if (work === props.work) share.value = told;
}

watch(
  () => props.work,
  (work) => {
    share.value = null;
    // Nothing ticks while nothing is worked out.
    if (work) clock.resume();
    else clock.pause();
  },
  { immediate: true },
);
const percent = computed(() => (share.value === null ? null : Math.floor(share.value * 100)));
</script>

<template>
  <div v-if="work && taken > SOON" class="work" role="status">
    <progress v-if="percent !== null" :value="percent" max="100" aria-label="How much is done" />
    <span v-else class="bar" aria-hidden="true" />
    <span>{{ doing }} {{ secondsText(taken / 1000) }}{{ percent === null ? "" : ` · ${percent} %` }}</span>
    <button class="plain" title="Give it up; nothing is changed" @click="work.stop()">Stop</button>
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
