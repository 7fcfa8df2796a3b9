<script setup lang="ts">
/**
 * The boxes of all objects picked together, the box around them with its handles and the pivot they share, and the box
 * that is being drawn to pick some.
 */
import { computed } from "vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { useTogether } from "@/composables/several/useTogether";
import { IDENTITY, type Point } from "@/geometry/matrix";
import { readable } from "@/geometry/frames";
import { corners } from "@/picture/boxes";
import { useSelection } from "@/stores/selection";

const props = defineProps<{
  view: PictureView;
  /** Of the stage, px. */
  width: number;
  height: number;
  box: readonly [Point, Point] | null;
  toPicture: (event: PointerEvent) => Point;
}>();
const selection = useSelection();
const together = useTogether();
const onStage = (p: Point): Point => props.view.onStage(IDENTITY, p);

const outlines = computed(() =>
  together.outlines.value.map(({ id, points, locked }) => ({
    id,
    locked,
    points: points
      .map(onStage)
      .map(({ x, y }) => `${x},${y}`)
      .join(" "),
  })),
);
const drawn = computed(() => {
  if (!props.box) return null;
  const [a, b] = props.box.map(onStage) as [Point, Point];
  return { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) };
});

/** Handles are for what can be moved, with the tool that moves. */
const handled = computed(() => selection.several && selection.tool === "pick" && !props.box && together.box.value);
/** A little outside of what it goes around, so that the corners of the objects themselves can be seen. */
const AIR = 7;
/** How near to the edge of the stage the knob can come, px. */
const INSET = 16;
const frame = computed(() => {
  const around = together.box.value;
  if (!around) return [];
  return corners(around).map((corner, i) => {
    const at = onStage(corner);
    return { corner, at: { x: at.x + (i % 3 ? AIR : -AIR), y: at.y + (i > 1 ? AIR : -AIR) } };
  });
});
const outline = computed(() => frame.value.map(({ at }) => `${at.x},${at.y}`).join(" "));
const pivot = computed(() => together.pivot.value && onStage(together.pivot.value));
/** The knob to turn by stands off the right edge. */
const knob = computed(() => {
  const [, right, low] = frame.value;
  if (!right || !low) return null;
  // Where the box reaches beyond the stage, the knob stays where a hand can take it.
  const within = (value: number, size: number): number =>
    Math.min(Math.max(value, INSET), Math.max(INSET, size - INSET));
  const y = within((right.at.y + low.at.y) / 2, props.height);
  const x = within(right.at.x + 26, props.width);
  return { x, y, from: Math.min(right.at.x, x) };
});
const said = computed(() => {
  const change = together.doing.value;
  if (!change) return "";
  const [wide, high] = change.scale.map((one) => `${readable(one * 100)} %`);
  return change.turn
    ? `turn ${readable(change.turn)}°`
    : wide === high
      ? `size ${wide}`
      : `wide ${wide}   high ${high}`;
});
</script>

<template>
  <g class="picture-handles" data-testid="picked-together">
    <polygon v-for="one in outlines" :key="one.id" class="one" :class="{ locked: one.locked }" :points="one.points" />
    <rect v-if="drawn" class="drawn" v-bind="drawn" />
    <g v-if="handled && pivot">
      <polygon class="around" :points="outline" />
      <g v-for="({ corner, at }, i) in frame" :key="i">
        <rect class="corner" :x="at.x - 4.5" :y="at.y - 4.5" width="9" height="9" rx="4.5" />
        <circle
          class="grab size"
          :data-testid="`together-corner-${i}`"
          :cx="at.x"
          :cy="at.y"
          r="11"
          @pointerdown="together.begin($event, { kind: 'size', corner }, toPicture)"
          ><title>Drag to scale all; hold Shift to keep the proportions</title></circle
        >
      </g>
      <g v-if="knob">
        <path class="stalk" :d="`M${knob.from} ${knob.y}H${knob.x}`" />
        <circle class="knob" :cx="knob.x" :cy="knob.y" r="5" />
        <circle
          class="grab turn"
          data-testid="together-turn"
          :cx="knob.x"
          :cy="knob.y"
          r="12"
          @pointerdown="together.begin($event, { kind: 'turn' }, toPicture)"
          ><title>Drag around to rotate all; hold Shift for steps of 15°</title></circle
        >
      </g>
      <g class="pivot" :class="{ placed: selection.commonPivot }">
        <circle class="disc" :cx="pivot.x" :cy="pivot.y" r="6" />
        <path :d="`M${pivot.x - 10} ${pivot.y}h20M${pivot.x} ${pivot.y - 10}v20`" />
        <circle
          class="grab"
          data-testid="together-pivot"
          :cx="pivot.x"
          :cy="pivot.y"
          r="12"
          @pointerdown="together.begin($event, { kind: 'pivot' }, toPicture)"
          @dblclick.stop="selection.commonPivot = null"
          ><title>
            Shared pivot: the point that all rotate and scale about. Drag to move it; double-click to centre it.
          </title></circle
        >
      </g>
      <text v-if="said && frame[2]" class="said" :x="frame[2].at.x" :y="frame[2].at.y + 20">{{ said }}</text>
    </g>
  </g>
</template>

<style scoped>
.one {
  fill: none;
  stroke: var(--playhead);
  stroke-width: 1.4;
}
.locked {
  stroke: var(--ink-2);
  stroke-dasharray: 2 3;
}
.drawn {
  fill: color-mix(in srgb, var(--playhead) 10%, transparent);
  stroke: var(--playhead);
  stroke-dasharray: 4 3;
}
.around {
  fill: none;
  stroke: #1f2a2555;
  stroke-width: 1;
  stroke-dasharray: 2 4;
}
.corner {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.stalk {
  stroke: #6b4a8288;
  stroke-width: 1.5;
}
.grab.turn {
  cursor: grab;
}
.grab.size {
  cursor: nwse-resize;
}
.placed .disc {
  fill: var(--turn-pale);
  stroke: var(--turn);
}
.said {
  font: 600 12px var(--mono);
  text-anchor: end;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
