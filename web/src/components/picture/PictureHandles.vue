<script setup lang="ts">
/** Handles on the picked object: its box, a corner each to size it, a ring to turn it, and its pivot. */
import { computed } from "vue";
import type { SceneObject } from "@/api/types";
import { numberAt } from "@/api/motion";
import type { Grip } from "@/composables/picture/useGrips";
import type { PictureView } from "@/composables/picture/usePictureView";
import type { Matrix, Point } from "@/geometry/matrix";
import { type Box, corners } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ thing: SceneObject; matrix: Matrix; box: Box | null; view: PictureView }>();
const emit = defineEmits<{ grip: [event: PointerEvent, grip: Grip] }>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();

const shown = computed(() =>
  props.box ? corners(props.box).map((corner) => ({ corner, at: props.view.onStage(props.matrix, corner) })) : [],
);
const outline = computed(() => shown.value.map(({ at }) => `${at.x},${at.y}`).join(" "));
const pivot = computed<Point>(() => {
  const channels = scene.motion?.objects.get(props.thing.id)?.channels;
  const at = (name: string) => (channels?.[name] ? numberAt(channels[name], playback.frame) : 0);
  return props.view.onStage(props.matrix, { x: at("pivot.x"), y: at("pivot.y") });
});
/** Around the whole object; around large ones no wider than a hand likes to reach. */
const ring = computed(() =>
  Math.min(
    150,
    Math.max(30, ...shown.value.map(({ at }) => Math.hypot(at.x - pivot.value.x, at.y - pivot.value.y) + 16)),
  ),
);

/** A bracket that opens towards the middle of the box. */
function bracket(at: Point, index: number): string {
  const all = shown.value.map((one) => one.at);
  const towards = (to: Point | undefined): Point => {
    const [dx, dy] = [(to?.x ?? 0) - at.x, (to?.y ?? 0) - at.y];
    const far = Math.hypot(dx, dy) || 1;
    return { x: at.x + (dx / far) * 9, y: at.y + (dy / far) * 9 };
  };
  const [a, b] = [towards(all[(index + 1) % 4]), towards(all[(index + 3) % 4])];
  return `M${a.x} ${a.y}L${at.x} ${at.y}L${b.x} ${b.y}`;
}
</script>

<template>
  <g class="picture-handles">
    <polygon v-if="outline" class="box" :points="outline" />
    <template v-if="selection.tool === 'pick'">
      <circle class="ring" :cx="pivot.x" :cy="pivot.y" :r="ring" />
      <circle
        class="grab turn"
        data-testid="handle-turn"
        :cx="pivot.x"
        :cy="pivot.y"
        :r="ring"
        @pointerdown="emit('grip', $event, { kind: 'turn' })"
        ><title>Drag around to rotate; hold Shift for steps of 15°</title></circle
      >
      <circle class="knob" :cx="pivot.x + ring" :cy="pivot.y" r="4" />
      <g v-for="({ corner, at }, i) in shown" :key="i">
        <path class="bracket" :d="bracket(at, i)" />
        <circle
          class="grab corner"
          :data-testid="`handle-corner-${i}`"
          :cx="at.x"
          :cy="at.y"
          r="11"
          @pointerdown="emit('grip', $event, { kind: 'scale', corner })"
          ><title>Drag to scale; hold Shift to keep the proportions</title></circle
        >
      </g>
    </template>
    <g class="pivot" :class="{ tool: selection.tool === 'pivot' }">
      <circle class="disc" :cx="pivot.x" :cy="pivot.y" r="5.500" />
      <path :d="`M${pivot.x - 9} ${pivot.y}h18M${pivot.x} ${pivot.y - 9}v18`" />
      <!-- Only under its own tool: the centre of an object is where it is grabbed to move it. -->
      <circle
        v-if="selection.tool === 'pivot'"
        class="grab"
        data-testid="handle-pivot"
        :cx="pivot.x"
        :cy="pivot.y"
        r="14"
        @pointerdown="emit('grip', $event, { kind: 'pivot' })"
        ><title>Pivot: the point that the object rotates and scales about. Drag to move it.</title></circle
      >
    </g>
  </g>
</template>

<style scoped>
.box {
  fill: none;
  stroke: #1f2a2555;
  stroke-width: 1;
  stroke-dasharray: 2 4;
}
.bracket {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.ring {
  fill: none;
  stroke: #6b4a8266;
  stroke-width: 1.5;
}
.grab.turn {
  stroke: #0000;
  stroke-width: 13;
  pointer-events: stroke;
  cursor: grab;
}
.grab.corner {
  cursor: nwse-resize;
}
.pivot.tool .disc {
  fill: var(--turn-pale);
  stroke: var(--turn);
  stroke-width: 2.5;
}
</style>
