<script setup lang="ts">
/** The playhead's line. A component of its own, so that a moving playhead redraws nothing but itself. */
import { computed } from "vue";
import { usePlayback } from "@/stores/playback";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const playback = usePlayback();
const time = useTimeView();
const x = computed(() => AIR + playback.frame * time.perFrame - time.scroll);
</script>

<template>
  <div v-show="x >= 0" class="playhead" :style="{ transform: `translateX(${NAMES + x}px)` }" aria-hidden="true" />
</template>

<style scoped>
.playhead {
  position: absolute;
  top: 22px;
  bottom: 0;
  left: -1px;
  width: 2px;
  background: var(--playhead);
  pointer-events: none;
}
</style>
