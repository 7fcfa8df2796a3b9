<script setup lang="ts">
/** The playhead's line. A component of its own, so that a moving playhead redraws nothing but itself. */
import { usePlayback } from "@/stores/playback";

defineProps<{ start: number; perFrame: number }>();
const playback = usePlayback();
</script>

<template>
  <div class="playhead" :style="{ transform: `translateX(${start + playback.frame * perFrame}px)` }" aria-hidden="true" />
</template>

<style scoped>
.playhead { position: absolute; top: 22px; bottom: 0; left: -1px; width: 2px; background: var(--playhead); pointer-events: none; }
</style>
