<script setup lang="ts">
/** The frame of the camera on the whole stage: drag its edge to look elsewhere. */
import { computed } from "vue";
import type { Grip } from "@/composables/picture/useGrips";
import type { PictureView } from "@/composables/picture/usePictureView";
import { corners, viewOf } from "@/picture/boxes";
import { frameOf } from "@/picture/lens";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ id: string; view: PictureView }>();
const emit = defineEmits<{ grip: [event: PointerEvent, grip: Grip] }>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();

const points = computed(() => {
  const matrix = scene.motion && viewOf(scene.motion, props.id, playback.frame);
  if (!scene.motion || !matrix) return "";
  return corners(frameOf(scene.motion, props.id, playback.frame))
    .map((corner) => props.view.onStage(matrix, corner))
    .map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`)
    .join(" ");
});

function begin(event: PointerEvent): void {
  selection.pick(props.id);
  emit("grip", event, { kind: "move" });
}
</script>

<template>
  <g>
    <path class="outside" :d="`M-9999 -9999H9999V9999H-9999ZM${points.replaceAll(' ', 'L')}Z`" />
    <polygon class="frame" :points="points" />
    <polygon class="edge" data-testid="camera-frame" :points="points" @pointerdown="begin"
      ><title>The camera's view: drag it to pan, drag its corners to zoom</title></polygon
    >
  </g>
</template>

<style scoped>
polygon {
  fill: none;
}
.outside {
  fill: #26332c14;
  fill-rule: evenodd;
}
.frame {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 9 5;
}
.edge {
  stroke: transparent;
  stroke-width: 14;
  stroke-linejoin: round;
  pointer-events: stroke;
  cursor: move;
}
</style>
