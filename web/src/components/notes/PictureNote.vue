<script setup lang="ts">
/** The note under the pointer, in the picture: a ring around its object at the playhead. */
import { computed } from "vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { IDENTITY } from "@/geometry/matrix";
import { boundsOf } from "@/geometry/together";
import { cornersOf } from "@/picture/boxes";
import { useNotes } from "@/stores/notes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ view: PictureView }>();
const notes = useNotes();
const scene = useScene();
const playback = usePlayback();
const AIR = 8;
const ring = computed(() => {
  const id = notes.pointed?.object;
  if (!id || !scene.motion?.objects.has(id)) return null;
  const points = cornersOf(scene.motion, id, playback.frame, scene.parts);
  const box = points && boundsOf(points.map((p) => props.view.onStage(IDENTITY, p)));
  return (
    box && {
      x: box.left - AIR,
      y: box.top - AIR,
      width: box.right - box.left + 2 * AIR,
      height: box.bottom - box.top + 2 * AIR,
    }
  );
});
</script>

<template>
  <rect v-if="ring" class="ring" data-testid="note-in-picture" v-bind="ring" rx="14" />
</template>

<style scoped>
.ring {
  fill: none;
  stroke: var(--look);
  stroke-width: 2.5;
  stroke-dasharray: 7 4;
}
</style>
