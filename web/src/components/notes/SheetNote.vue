<script setup lang="ts">
/** The frames of the note that is pointed at, as a pale band over the time sheet. */
import { computed } from "vue";
import { useNotes } from "@/stores/notes";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const notes = useNotes();
const time = useTimeView();
/** A note on one frame is a band still wide enough to be seen, px. */
const LEAST = 6;
const band = computed(() => {
  const frames = notes.pointed?.frames;
  if (!frames) return null;
  const at = (frame: number): number => NAMES + AIR + frame * time.perFrame - time.scroll;
  const left = Math.max(at(frames[0]) - LEAST / 2, NAMES);
  return { left: `${left}px`, width: `${Math.max(at(frames[1]) + LEAST / 2 - left, 0)}px` };
});
</script>

<template>
  <div v-if="band" class="band" data-testid="note-on-sheet" :style="band" aria-hidden="true" />
</template>

<style scoped>
.band {
  position: absolute;
  top: 22px;
  bottom: 0;
  background: #2f739f26;
  border-inline: 1px solid var(--look);
  pointer-events: none;
}
</style>
