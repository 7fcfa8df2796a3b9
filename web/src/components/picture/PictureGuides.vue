<script setup lang="ts">
/** The grid, if there is one, and the guides that what is moved is on. */
import { computed } from "vue";
import type { useSnapping } from "@/composables/picture/useSnapping";
import type { PictureView } from "@/composables/picture/usePictureView";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; snapping: ReturnType<typeof useSnapping> }>();
const scene = useScene();
const selection = useSelection();
const size = computed(() => scene.motion?.size ?? [1280, 720]);
const x = (at: number): number => at * props.view.scale.value + props.view.left.value;
const y = (at: number): number => at * props.view.scale.value + props.view.top.value;
const within = (cells: number, whole: number): number[] =>
  Array.from({ length: Math.max(0, cells - 1) }, (_, i) => (whole * (i + 1)) / cells);
const edges = computed(() => ({ left: x(0), right: x(size.value[0]), top: y(0), bottom: y(size.value[1]) }));
const shown = computed(() => props.snapping.shown.value);
</script>

<template>
  <g>
    <template v-if="selection.snap.on">
      <line
        v-for="at in within(selection.snap.across, size[0])"
        :key="`x${at}`"
        class="grid"
        :x1="x(at)"
        :x2="x(at)"
        :y1="edges.top"
        :y2="edges.bottom"
      />
      <line
        v-for="at in within(selection.snap.down, size[1])"
        :key="`y${at}`"
        class="grid"
        :x1="edges.left"
        :x2="edges.right"
        :y1="y(at)"
        :y2="y(at)"
      />
    </template>
    <g v-if="shown.upright" class="guide">
      <line :x1="x(shown.upright.at)" :x2="x(shown.upright.at)" :y1="edges.top" :y2="edges.bottom" />
      <text :x="x(shown.upright.at) + 5" :y="edges.top + 14">{{ shown.upright.says }}</text>
    </g>
    <g v-if="shown.level" class="guide">
      <line :x1="edges.left" :x2="edges.right" :y1="y(shown.level.at)" :y2="y(shown.level.at)" />
      <text :x="edges.left + 6" :y="y(shown.level.at) - 5">{{ shown.level.says }}</text>
    </g>
  </g>
</template>

<style scoped>
.grid {
  stroke: #1f2a2533;
  stroke-width: 1;
}
.guide line {
  stroke: var(--playhead);
  stroke-width: 1.2;
  stroke-dasharray: 6 4;
}
.guide text {
  fill: #a31f43;
  font: 600 12px var(--text);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
</style>
