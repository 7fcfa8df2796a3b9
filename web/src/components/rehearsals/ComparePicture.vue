<script setup lang="ts">
/**
 * Two versions of a scene in step: beside each other, over each other in two tints, or on two sides of a line that can
 * be dragged.
 */
import { useDevicePixelRatio, useElementSize } from "@vueuse/core";
import { computed, ref, watchEffect } from "vue";
import type { Motion } from "@/api/motion";
import { beginDrag } from "@/composables/useDrag";
import { moved } from "@/geometry/matrix";
import { paintCompared, type Place, placesOf, TINTS, type View, pathsApart } from "@/picture/compared";
import { lensOf } from "@/picture/lens";

const props = defineProps<{
  now: Motion;
  kept: Motion;
  view: View;
  frame: number;
  /** The objects whose paths are drawn, if they differ. */
  paths: readonly string[];
  names: { now: string; kept: string };
}>();
const wipe = defineModel<number>("wipe", { required: true });
/** Paths that are drawn at most: more are a tangle. */
const MOST_PATHS = 5;
const MOST_DOTS = 1000;

const room = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const { width, height } = useElementSize(room);
const { pixelRatio } = useDevicePixelRatio();
const places = computed(() =>
  placesOf(props.view, { width: width.value, height: height.value }, props.now.size, wipe.value),
);
const pixels = computed(() => [
  Math.max(1, Math.round(width.value * pixelRatio.value)),
  Math.max(1, Math.round(height.value * pixelRatio.value)),
]);

watchEffect(
  () => {
    const ctx = canvas.value?.getContext("2d");
    if (!ctx || !width.value) return;
    [ctx.canvas.width, ctx.canvas.height] = [pixels.value[0]!, pixels.value[1]!];
    const versions = { now: props.now, kept: props.kept };
    paintCompared(ctx, props.view, versions, places.value, props.frame, pixelRatio.value);
  },
  { flush: "post" },
);

/** The paths that differ most, of those that are asked for. */
const shown = computed(() =>
  props.paths
    .map((id) => ({ id, apart: pathsApart(props.now.objects.get(id)?.place, props.kept.objects.get(id)?.place) }))
    .filter((one) => one.apart > 0.05)
    .sort((a, b) => b.apart - a.apart)
    .slice(0, MOST_PATHS)
    .map((one) => one.id),
);
const drawn = computed(() =>
  (["kept", "now"] as const).flatMap((which) =>
    shown.value.map((id) => ({ which, id, ...pathOf(props[which], id, places.value[which]) })),
  ),
);

function pathOf(motion: Motion, id: string, place: Place) {
  const path = motion.objects.get(id)?.place;
  const [lens, scale] = [lensOf(motion, id, props.frame), place.width / motion.size[0]];
  const points: string[] = [];
  const step = Math.max(1, Math.ceil((path?.rows ?? 0) / MOST_DOTS));
  for (let row = 0; row < (path?.rows ?? 0); row += step) {
    const at = moved(lens, { x: path!.data[row * 2]!, y: path!.data[row * 2 + 1]! });
    points.push(`${(place.left + at.x * scale).toFixed(1)} ${(place.top + at.y * scale).toFixed(1)}`);
  }
  const [x, y] = (points[Math.min(props.frame, points.length - 1)] ?? "0 0").split(" ");
  return { line: `M${points.join("L")}`, dots: points.map((one) => `M${one}h0`).join(""), here: { x, y } };
}

const line = computed(() => places.value.now.to);
function drag(event: PointerEvent): void {
  const left = room.value!.getBoundingClientRect().left;
  const move = (at: PointerEvent): void => {
    const { left: from, width: wide } = places.value.now;
    wipe.value = Math.min(Math.max((at.clientX - left - from) / wide, 0), 1);
  };
  beginDrag(event, { move });
  move(event);
}
const nudge = (by: number): void => void (wipe.value = Math.min(Math.max(wipe.value + by, 0), 1));
const labels = computed(() =>
  (["now", "kept"] as const).map((which) => {
    const place = places.value[which];
    const right = props.view !== "side" && which === "kept";
    return { which, name: props.names[which], x: right ? place.left + place.width - 8 : place.left + 8, right };
  }),
);
</script>

<template>
  <div ref="room" class="room">
    <canvas ref="canvas" data-testid="compare-canvas" role="img" :aria-label="`${names.now}, and ${names.kept}`" />
    <svg aria-hidden="true">
      <clipPath v-for="which in ['now', 'kept'] as const" :id="`seen-${which}`" :key="which">
        <rect
          :x="places[which].from"
          :y="places[which].top"
          :width="Math.max(0, places[which].to - places[which].from)"
          :height="places[which].height"
        />
      </clipPath>
      <g
        v-for="one in drawn"
        :key="`${one.which} ${one.id}`"
        :data-way="one.which"
        :stroke="TINTS[one.which]"
        :clip-path="`url(#seen-${one.which})`"
      >
        <path class="line" :d="one.line" />
        <path class="dots" :d="one.dots" />
        <circle :cx="one.here.x" :cy="one.here.y" r="4" :fill="TINTS[one.which]" />
      </g>
    </svg>
    <span
      v-for="one in labels"
      :key="one.which"
      class="label"
      :class="one.which"
      :style="{ left: `${one.x}px`, top: `${places.now.top + 8}px`, transform: one.right ? 'translateX(-100%)' : '' }"
      >{{ one.name }}</span
    >
    <div
      v-if="view === 'wipe'"
      class="wipe"
      role="slider"
      tabindex="0"
      aria-label="Position of the wipe"
      aria-valuemin="0"
      aria-valuemax="100"
      :aria-valuenow="Math.round(wipe * 100)"
      title="Drag: the current version is on the left, the other one on the right (arrow keys too)"
      :style="{ left: `${line}px`, top: `${places.now.top}px`, height: `${places.now.height}px` }"
      @pointerdown="drag"
      @keydown.left.prevent.stop="nudge(-0.02)"
      @keydown.right.prevent.stop="nudge(0.02)"
    >
      <i aria-hidden="true" />
    </div>
  </div>
</template>

<style scoped>
.room {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  background: var(--paper-3);
  border-radius: var(--radius);
}
canvas,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
svg {
  pointer-events: none;
}
path {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.line {
  stroke-width: 1.4;
  opacity: 0.8;
}
.dots {
  stroke-width: 4.6;
}
circle {
  stroke: var(--paper);
  stroke-width: 1.4;
}
.label {
  position: absolute;
  padding: 1px 9px;
  border-radius: 99px;
  font-size: 12px;
  font-weight: 600;
  color: #fff;
  white-space: nowrap;
  pointer-events: none;
}
.label.now {
  background: #2f6b4f;
}
.label.kept {
  background: #ad4814;
}
.wipe {
  position: absolute;
  width: 24px;
  margin-left: -12px;
  cursor: ew-resize;
  touch-action: none;
}
.wipe::before {
  content: "";
  position: absolute;
  left: 11px;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--ink);
}
.wipe i {
  position: absolute;
  left: 4px;
  top: 50%;
  width: 16px;
  height: 34px;
  margin-top: -17px;
  border-radius: 8px;
  background: var(--ink);
  border: 2px solid var(--paper);
}
</style>
