<script setup lang="ts">
/** The points and handles of the picked object's path, to be dragged; and the path itself, to put points on. */
import { computed } from "vue";
import type { Key } from "@/api/types";
import { useSetCorner } from "@/composables/path/usePathShape";
import type { PathEdit } from "@/composables/path/usePathEdit";
import type { PictureView } from "@/composables/picture/usePictureView";
import { type Point } from "@/geometry/matrix";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ path: PathEdit; view: PictureView }>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();
const setCorner = useSetCorner();

const at = (p: Point): Point => props.view.onStage(props.path.space.value, p);
const place = (key: Key): Point => at(props.path.pointOf(key));
const handleAt = (key: Key, offset: readonly [number, number]): Point => {
  const p = props.path.pointOf(key);
  return at({ x: p.x + offset[0], y: p.y + offset[1] });
};
/** The way between the outer keys, as wide as a hand needs. */
const hold = computed(() => {
  const baked = scene.motion?.objects.get(selection.objectId ?? "")?.place;
  const [first, last] = [props.path.keys.value[0]?.frame ?? 0, props.path.keys.value.at(-1)?.frame ?? 0];
  if (!baked || baked.rows < 2) return "";
  const points: string[] = [];
  const lens = lensOf(scene.motion, selection.objectId ?? "", playback.frame);
  for (let i = Math.max(0, Math.ceil(first)); i <= Math.min(last, baked.rows - 1); i++) {
    const p = props.view.onStage(lens, { x: baked.data[i * 2]!, y: baked.data[i * 2 + 1]! });
    points.push(`${p.x.toFixed(1)} ${p.y.toFixed(1)}`);
  }
  return points.length ? `M${points.join("L")}` : "";
});
const sharp = (key: Key): boolean => key.tension === 1 || (key.out?.[0] === 0 && key.out[1] === 0);
</script>

<template>
  <g>
    <path class="hold" data-testid="path-hold" :d="hold" @pointerdown.stop.prevent="path.putOn($event)"
      ><title>Click to add a point; the path keeps its shape</title></path
    >
    <g v-for="handle in path.handles.value" :key="`${handle.side} ${handle.key.frame}`">
      <line
        class="arm"
        :x1="place(handle.key).x"
        :y1="place(handle.key).y"
        :x2="handleAt(handle.key, handle.at).x"
        :y2="handleAt(handle.key, handle.at).y"
      />
      <circle
        class="handle"
        :data-testid="`path-${handle.side}-${handle.key.frame}`"
        :cx="handleAt(handle.key, handle.at).x"
        :cy="handleAt(handle.key, handle.at).y"
        r="5.500"
        @pointerdown="path.begin($event, { kind: 'handle', handle })"
        ><title>Drag to bend the path; hold Alt to move this side alone, Shift to keep its direction</title></circle
      >
    </g>
    <circle
      v-for="key in path.keys.value"
      :key="key.frame"
      class="point"
      :class="{ picked: path.isPicked(key) }"
      :data-testid="`path-point-${key.frame}`"
      :cx="place(key).x"
      :cy="place(key).y"
      r="7"
      @pointerdown="path.begin($event, { kind: 'point', key })"
      @dblclick.stop="setCorner([key.frame], sharp(key) ? 'smooth' : 'sharp')"
      ><title>
        Frame {{ Number(key.frame.toFixed(2)) }}: drag it; Shift keeps a direction; double click makes it sharp or
        smooth
      </title></circle
    >
  </g>
</template>

<style scoped>
.hold {
  fill: none;
  stroke: #0000;
  stroke-width: 13;
  pointer-events: stroke;
  cursor: copy;
}
.arm {
  stroke: var(--ink-2);
  stroke-width: 1.2;
}
.handle {
  fill: var(--paper);
  stroke: var(--travel);
  stroke-width: 2;
  pointer-events: all;
  cursor: move;
}
.point {
  fill: var(--travel);
  stroke: var(--paper);
  stroke-width: 2;
  pointer-events: all;
  cursor: move;
}
.point.picked {
  fill: var(--playhead);
  stroke: var(--paper);
}
</style>
