<script setup lang="ts">
/** Writing a text in the picture: a field just below it, while the picture shows it as it will be. */
import { computed } from "vue";
import WordsField from "@/components/text/WordsField.vue";
import { textOf, useText } from "@/composables/useText";
import type { PictureView } from "@/composables/picture/usePictureView";
import { boxOf, corners, viewOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; width: number; height: number }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const text = useText();
const thing = computed(() => scene.byId.get(selection.writing ?? "") ?? null);
const shape = computed(() => textOf(thing.value));

/** Below the text, and within the stage. */
const at = computed(() => {
  if (!scene.motion || !thing.value) return null;
  const box = boxOf(scene.motion, thing.value.id, playback.frame, scene.parts);
  const matrix = viewOf(scene.motion, thing.value.id, playback.frame);
  if (!matrix) return null;
  const points = box
    ? corners(box).map((corner) => props.view.onStage(matrix, corner))
    : [props.view.onStage(matrix, { x: 0, y: 0 })];
  const middle = (Math.min(...points.map((p) => p.x)) + Math.max(...points.map((p) => p.x))) / 2;
  const below = Math.max(...points.map((p) => p.y)) + 22;
  return {
    left: Math.min(Math.max(middle - 150, 8), Math.max(8, props.width - 308)),
    top: Math.min(Math.max(below, 8), Math.max(8, props.height - 90)),
  };
});
</script>

<template>
  <div v-if="shape && thing && at" class="writing" :style="{ left: `${at.left}px`, top: `${at.top}px` }">
    <WordsField
      :id="thing.id"
      :words="text.saidBy(thing)"
      :label="`Words of ${thing.name}`"
      focused
      @done="selection.writing = null"
    />
  </div>
</template>

<style scoped>
.writing {
  position: absolute;
  width: 300px;
  padding: 6px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: var(--radius-m, 8px);
  box-shadow: 0 4px 14px #5a4a2022;
}
</style>
