<script setup lang="ts">
/** An end mode as a picture: two keys, and what follows them. */
import { computed } from "vue";
import type { EndMode } from "@/api/types";

const props = defineProps<{ mode: EndMode; mirrored: boolean }>();
const AFTER: Record<EndMode, string> = {
  hold: "M24 12H70",
  coast: "M24 12L44 2",
  loop: "M24 12V26L40 12V26L56 12V26L70 14",
  climb: "M24 18L40 12L56 6L70 1",
  "ping-pong": "M24 12L38 26L52 12L66 26",
};
const keyed = computed(() => (props.mode === "climb" ? "M8 26L24 18" : "M8 26L24 12"));
const end = computed(() => (props.mode === "climb" ? 18 : 12));
</script>

<template>
  <svg
    viewBox="0 0 72 32"
    width="72"
    height="32"
    aria-hidden="true"
    :style="mirrored ? { transform: 'scaleX(-1)' } : {}"
  >
    <path class="after" :d="AFTER[mode]" />
    <path class="keyed" :d="keyed" />
    <circle cx="8" cy="26" r="3" />
    <circle cx="24" :cy="end" r="3" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke-width: 2;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.keyed {
  stroke: var(--travel);
}
.after {
  stroke: #9db7a5;
  stroke-dasharray: 3 3;
}
circle {
  fill: var(--travel);
}
</style>
