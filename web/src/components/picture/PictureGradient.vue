<script setup lang="ts">
/**
 * The ends and stops of a gradient in the picture, while one of its rows is picked: pull the ends, slide the stops,
 * double-click for another.
 */
import { computed } from "vue";
import { endNames, gradientOf, type Painted, partOf, stopNames } from "@/api/gradients";
import { isShape } from "@/api/kinds";
import { numberAt, valuesAt } from "@/api/motion";
import { useChanging } from "@/composables/useChanging";
import { beginOwnDrag } from "@/composables/useDrag";
import type { PictureView } from "@/composables/picture/usePictureView";
import { arrowStep } from "@/geometry/arrows";
import { hexOf } from "@/geometry/colour";
import { inverse, moved, type Point, rounded } from "@/geometry/matrix";
import { viewOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; toPicture: (event: PointerEvent | MouseEvent) => Point }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const changing = useChanging();

/** The shape and the part of it whose gradient is taken hold of. */
const subject = computed(() => {
  const [thing, name] = [selection.thing, selection.channel?.name ?? ""];
  if (!isShape(thing)) return null;
  const of: Painted | null = name === "fill" || name === "stroke" ? name : (partOf(name)?.of ?? null);
  const gradient = of && gradientOf(thing, of);
  return of && gradient ? { thing, of, stops: gradient.stops } : null;
});
const space = computed(
  () => (subject.value && scene.motion && viewOf(scene.motion, subject.value.thing.id, playback.frame)) ?? null,
);
const channels = computed(() => scene.motion?.objects.get(subject.value?.thing.id ?? "")?.channels);
const number = (name: string): number => {
  const rows = channels.value?.[name];
  return rows ? numberAt(rows, playback.frame) : 0;
};
const ends = computed((): readonly [Point, Point] | null => {
  if (!subject.value) return null;
  const [x0, y0, x1, y1] = endNames(subject.value.of).map(number) as [number, number, number, number];
  return [
    { x: x0, y: y0 },
    { x: x1, y: y1 },
  ];
});
const stage = (p: Point): Point => (space.value ? props.view.onStage(space.value, p) : p);
const between = ([a, b]: readonly [Point, Point], share: number): Point => ({
  x: a.x + (b.x - a.x) * share,
  y: a.y + (b.y - a.y) * share,
});
/** Stops are beside the line, so that hands find them and the ends apart. */
const BESIDE = 18;
function beside(p: Point): Point {
  const [a, b] = (ends.value ?? []).map(stage);
  if (!a || !b) return p;
  const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  return { x: p.x + ((b.y - a.y) / long) * BESIDE, y: p.y - ((b.x - a.x) / long) * BESIDE };
}
const stops = computed(() => {
  const { of, stops: count } = subject.value ?? {};
  if (!of || !count || !ends.value) return [];
  return Array.from({ length: count }, (_, i) => {
    const names = stopNames(of, i + 1);
    const [place, rows] = [Math.min(1, Math.max(0, number(names.place))), channels.value?.[names.colour]];
    return {
      stop: i + 1,
      names,
      foot: stage(between(ends.value!, place)),
      at: beside(stage(between(ends.value!, place))),
      colour: rows ? hexOf(valuesAt(rows, playback.frame)) : "#000000",
    };
  });
});

/** Follow a hand in the space of the shape, with what it means there. */
function follow(event: PointerEvent, values: (to: Point) => Record<string, number>): void {
  const [back, thing] = [space.value && inverse(space.value), subject.value?.thing];
  if (!back || !thing) return;
  let wanted: Record<string, number> | null = null;
  beginOwnDrag(event, {
    move: (e) => {
      wanted = values(moved(back, props.toPicture(e)));
      changing.show(thing, wanted);
    },
    end: (kept) => {
      if (!kept) scene.letGo();
      else if (wanted) void changing.make(thing, wanted, true);
    },
  });
}

function pullEnd(event: PointerEvent, which: 0 | 1): void {
  const names = subject.value && endNames(subject.value.of);
  if (names)
    follow(event, (to) => ({
      [names[2 * which]!]: rounded(to.x, 0.5),
      [names[2 * which + 1]!]: rounded(to.y, 0.5),
    }));
}

const shareAt = (to: Point): number => {
  const [a, b] = ends.value ?? [to, to];
  const [x, y] = [b.x - a.x, b.y - a.y];
  const share = ((to.x - a.x) * x + (to.y - a.y) * y) / (x * x + y * y || 1);
  return rounded(Math.min(1, Math.max(0, share)), 0.01);
};

function slide(event: PointerEvent, stop: number, name: string): void {
  selection.pickRow(`${subject.value?.of === "stroke" ? "Line stop" : "Stop"} ${stop}`);
  follow(event, (to) => ({ [name]: shareAt(to) }));
}

function addAt(event: MouseEvent): void {
  const back = space.value && inverse(space.value);
  if (back && subject.value)
    void scene.edit([
      {
        edit: "add-stop",
        id: subject.value.thing.id,
        of: subject.value.of,
        place: shareAt(moved(back, props.toPicture(event))),
        frame: playback.frame,
      },
    ]);
}

function nudge(event: KeyboardEvent, which: 0 | 1): void {
  const by = arrowStep(event);
  const [end, names] = [ends.value?.[which], subject.value && endNames(subject.value.of)];
  if (!by || !end || !names || !subject.value) return;
  const values = { [names[2 * which]!]: end.x + by.x, [names[2 * which + 1]!]: end.y + by.y };
  void changing.make(subject.value.thing, values, true);
}
</script>

<template>
  <g v-if="ends && subject" class="gradient">
    <line
      class="wide"
      :x1="stage(ends[0]).x"
      :y1="stage(ends[0]).y"
      :x2="stage(ends[1]).x"
      :y2="stage(ends[1]).y"
      @pointerdown.stop
      @dblclick.stop="addAt"
    >
      <title>Double-click to add a colour stop</title>
    </line>
    <line class="way" :x1="stage(ends[0]).x" :y1="stage(ends[0]).y" :x2="stage(ends[1]).x" :y2="stage(ends[1]).y" />
    <rect
      v-for="(end, i) in ends"
      :key="i"
      class="end"
      role="button"
      tabindex="0"
      :aria-label="i ? 'Last end of the colours' : 'First end of the colours'"
      :data-testid="`gradient-${i ? 'to' : 'from'}`"
      :x="stage(end).x - 8"
      :y="stage(end).y - 8"
      width="16"
      height="16"
      rx="4"
      @pointerdown="pullEnd($event, i as 0 | 1)"
      @keydown="nudge($event, i as 0 | 1)"
      ><title>
        {{ i ? "Where the colours end" : "Where the colours begin" }}: drag it, or use the arrow keys
      </title></rect
    >
    <line
      v-for="one in stops"
      :key="`${one.stop} stem`"
      class="way"
      :x1="one.foot.x"
      :y1="one.foot.y"
      :x2="one.at.x"
      :y2="one.at.y"
    />
    <circle
      v-for="one in stops"
      :key="one.stop"
      class="stop"
      role="button"
      :aria-label="`Stop ${one.stop}`"
      :data-testid="`gradient-stop-${one.stop}`"
      :cx="one.at.x"
      :cy="one.at.y"
      r="5.500"
      :style="{ fill: one.colour }"
      @pointerdown="slide($event, one.stop, one.names.place)"
      ><title>Stop {{ one.stop }}: slide it along; its colour is in its row</title></circle
    >
  </g>
</template>

<style scoped>
.way {
  stroke: var(--ink);
  stroke-width: 1.4;
  pointer-events: none;
}
.wide {
  stroke: transparent;
  stroke-width: 12;
  pointer-events: stroke;
  cursor: copy;
}
.end {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  pointer-events: all;
  cursor: move;
}
.end:hover,
.end:focus-visible {
  stroke: var(--playhead);
  outline: none;
}
.stop {
  stroke: var(--paper);
  stroke-width: 2;
  pointer-events: all;
  cursor: ew-resize;
  filter: drop-shadow(0 0 1px var(--ink));
}
</style>
