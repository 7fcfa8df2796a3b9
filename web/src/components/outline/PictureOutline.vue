<script setup lang="ts">
/**
 * The points and handles of the picked outline, to be dragged; its pieces, to put points on; and where points go in the
 * next key.
 */
import { computed } from "vue";
import type { OutlineEdit } from "@/composables/outline/useOutlineEdit";
import type { NumberedPoint, Side } from "@/geometry/numberedPoints";
import type { PictureView } from "@/composables/picture/usePictureView";
import { IDENTITY, type Point } from "@/geometry/matrix";
import { pathOf } from "@/geometry/outline";
import { useOutline } from "@/stores/outline";

const props = defineProps<{ edit: OutlineEdit; view: PictureView }>();
const outline = useOutline();
/** With more points than this only the picked ones and their neighbours show handles, and no names are read out. */
const MANY = 400;

const at = (p: Point): Point => props.view.onStage(props.edit.space.value, p);
const staged = (one: NumberedPoint) => ({
  ...one,
  at: at(one.at),
  into: one.into && at(one.into),
  out: one.out && at(one.out),
});
const points = computed(() => props.edit.points.value.map(staged));
const pieces = computed(() =>
  points.value.flatMap((one) => {
    const next = one.next === null ? undefined : points.value[one.next];
    return next ? [{ one, d: pathOf([one, next], false) }] : [];
  }),
);
const showsHandles = (number: number): boolean => outline.picked.has(number) || points.value.length <= 12;
const arms = computed(() =>
  points.value.flatMap((one) =>
    showsHandles(one.number)
      ? (["in", "out"] as const).flatMap((side: Side) => {
          const handle = side === "out" ? one.out : one.into;
          return handle ? [{ one, side, at: handle }] : [];
        })
      : [],
  ),
);
const lines = computed(() =>
  (props.edit.found.value?.meetings?.lines ?? []).map(([x, y, u, v]) => ({
    from: at({ x, y }),
    to: at({ x: u, y: v }),
  })),
);
const following = computed(() => props.edit.following.value.map(staged));
const next = computed(() => {
  const parts: (typeof following.value)[] = [];
  for (const one of following.value) {
    if (one.first) parts.push([]);
    parts.at(-1)?.push(one);
  }
  return parts.map((part) => pathOf(part, part.at(-1)?.next !== null)).join(" ");
});
const chosen = computed(() => props.edit.found.value?.meetings?.chosen ?? null);
const box = computed(() => {
  const found = props.edit.box.value;
  if (!found) return null;
  const [a, b] = [props.view.onStage(IDENTITY, found.from), props.view.onStage(IDENTITY, found.to)];
  return { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) };
});
const meeting = computed(() => {
  const found = props.edit.meeting.value;
  if (!found) return null;
  const over = found.over === null ? undefined : following.value[found.over];
  return { from: at(found.from), to: over?.at ?? at(found.to) };
});
const many = computed(() => points.value.length > MANY);
const raw = (number: number): NumberedPoint => props.edit.points.value[number]!;
</script>

<template>
  <g class="outline-points" data-testid="outline-points">
    <path v-if="next" class="next" :d="next" />
    <line
      v-for="(line, i) in lines"
      :key="`meets ${i}`"
      class="meets"
      :x1="line.from.x"
      :y1="line.from.y"
      :x2="line.to.x"
      :y2="line.to.y"
    />
    <path
      v-for="piece in pieces"
      :key="`piece ${piece.one.number}`"
      class="piece"
      :data-testid="`outline-piece-${piece.one.number}`"
      :d="piece.d"
      @pointerdown="edit.putOn($event, raw(piece.one.number))"
    >
      <title v-if="!many">Click to add a point; the outline keeps its shape</title>
    </path>
    <path v-for="piece in pieces" :key="`seen ${piece.one.number}`" class="seen" :d="piece.d" />
    <template v-for="arm in arms" :key="`${arm.side} ${arm.one.number}`">
      <line class="arm" :x1="arm.one.at.x" :y1="arm.one.at.y" :x2="arm.at.x" :y2="arm.at.y" />
      <circle
        class="handle"
        :data-testid="`outline-${arm.side}-${arm.one.number}`"
        :cx="arm.at.x"
        :cy="arm.at.y"
        r="5"
        @pointerdown="edit.beginHandle($event, raw(arm.one.number), arm.side)"
        ><title>Drag to bend; hold Alt to move this side alone</title></circle
      >
    </template>
    <g v-for="one in points" :key="one.number">
      <circle
        class="point"
        :class="{ picked: outline.picked.has(one.number), smooth: one.smooth, first: one.first }"
        role="button"
        :aria-label="many ? undefined : `Point ${one.number + 1}${one.first ? ', first' : ''}`"
        :aria-pressed="outline.picked.has(one.number)"
        :data-testid="`outline-point-${one.number}`"
        :cx="one.at.x"
        :cy="one.at.y"
        :r="one.first ? 7 : 5.5"
        @pointerdown="edit.beginPoint($event, raw(one.number))"
        @dblclick.stop="(outline.pick([one.number]), void (one.smooth ? edit.actions.corner() : edit.actions.smooth()))"
        ><title v-if="!many">
          Point {{ one.number + 1 }}{{ one.first ? ", where the outline begins" : "" }}: drag it; Shift adds to what is
          picked; double click makes it {{ one.smooth ? "a corner" : "smooth" }}
        </title></circle
      >
    </g>
    <g v-if="following.length && outline.picked.size === 1">
      <circle
        v-for="one in points.filter(({ number }) => outline.picked.has(number))"
        :key="`meet ${one.number}`"
        class="meeting"
        data-testid="outline-meet"
        :cx="one.at.x + 15"
        :cy="one.at.y - 15"
        r="6"
        @pointerdown="edit.beginMeeting($event, one.number)"
        ><title>Drag to the matching point of the next key</title></circle
      >
    </g>
    <template v-if="following.length">
      <circle
        v-for="one in following"
        :key="`then ${one.number}`"
        class="then"
        :class="{ chosen: chosen?.[1] === one.number }"
        :data-testid="`outline-then-${one.number}`"
        :cx="one.at.x"
        :cy="one.at.y"
        r="4"
      />
    </template>
    <line
      v-if="meeting"
      class="meets strong"
      :x1="meeting.from.x"
      :y1="meeting.from.y"
      :x2="meeting.to.x"
      :y2="meeting.to.y"
    />
    <rect v-if="box" class="box" v-bind="box" />
  </g>
</template>

<style scoped>
.piece {
  fill: none;
  stroke: #0000;
  stroke-width: 12;
  pointer-events: stroke;
  cursor: copy;
}
.seen {
  fill: none;
  stroke: var(--size);
  stroke-width: 1.3;
  pointer-events: none;
}
.next {
  fill: none;
  stroke: var(--look);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
.meets {
  stroke: var(--look);
  stroke-width: 1;
  opacity: 0.55;
  pointer-events: none;
}
.meets.strong {
  stroke-width: 2;
  opacity: 1;
}
.arm {
  stroke: var(--ink-2);
  stroke-width: 1.1;
  pointer-events: none;
}
.handle {
  fill: var(--paper);
  stroke: var(--size);
  stroke-width: 1.8;
  pointer-events: all;
  cursor: move;
}
.point {
  fill: var(--size-fill);
  stroke: var(--ink);
  stroke-width: 1.4;
  pointer-events: all;
  cursor: move;
}
.point.smooth {
  fill: var(--paper);
  stroke: var(--size);
  stroke-width: 2.4;
}
.point.first {
  stroke-dasharray: 3 2;
}
.point.picked {
  fill: var(--playhead);
  stroke: var(--paper);
  stroke-dasharray: none;
}
.then {
  fill: var(--look-pale);
  stroke: var(--look);
  stroke-width: 1.4;
  pointer-events: none;
}
.then.chosen {
  fill: var(--look);
}
.meeting {
  fill: var(--look);
  stroke: var(--paper);
  stroke-width: 2;
  pointer-events: all;
  cursor: crosshair;
}
.box {
  fill: var(--size-fill);
  fill-opacity: 0.12;
  stroke: var(--size);
  stroke-dasharray: 4 3;
  pointer-events: none;
}
</style>
