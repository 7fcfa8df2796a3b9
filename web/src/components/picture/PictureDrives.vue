<script setup lang="ts">
/** Links of the selected object, as threads through the picture. Dials are at the left edge. */
import { computed } from "vue";
import { valuesAt } from "@/api/motion";
import { isDial } from "@/api/dials";
import type { PictureView } from "@/composables/picture/usePictureView";
import { useNames } from "@/composables/useNames";
import type { Point } from "@/geometry/matrix";
import { useDrives } from "@/stores/drives";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const drives = useDrives();
const names = useNames();

/** Threads between two objects: one for all that goes between them. */
const pairs = computed(() => {
  const found = new Map<string, { from: string; to: string; says: string[] }>();
  for (const one of drives.moving) {
    const [from, to] = [one.driver.object, one.driven.object];
    if (from === to || (from !== selection.objectId && to !== selection.objectId)) continue;
    const pair = found.get(`${from} ${to}`) ?? { from, to, says: [] };
    const says = `${names.driverWords(one)} → ${names.drivenWords(one)}`;
    if (!pair.says.includes(says)) pair.says.push(says);
    found.set(`${from} ${to}`, pair);
  }
  return [...found.values()];
});
/** The dials among them, in the order of the scene, one below the other. */
const dials = computed(() => scene.dials.filter((one) => pairs.value.some((pair) => pair.from === one.id)));

function placeOf(id: string): Point | null {
  if (isDial(id))
    return {
      x: props.view.left.value + 16,
      y: props.view.top.value + 190 + dials.value.findIndex((one) => one.id === id) * 28,
    };
  const place = scene.motion?.objects.get(id)?.place;
  if (!place) return null;
  const [x = 0, y = 0] = valuesAt(place, playback.frame);
  return props.view.onStage(lensOf(scene.motion, id, playback.frame), { x, y });
}
const threads = computed(() =>
  pairs.value.flatMap((pair) => {
    const [a, b] = [placeOf(pair.from), placeOf(pair.to)];
    if (!a || !b) return [];
    const sag = Math.min(70, Math.hypot(b.x - a.x, b.y - a.y) / 5) + 6;
    const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 + sag };
    // The head lies along the end of the thread, clear of the pivot.
    const way = Math.atan2(b.y - middle.y, b.x - middle.x);
    const tip = { x: b.x - 9 * Math.cos(way), y: b.y - 9 * Math.sin(way) };
    const other =
      pair.from === selection.objectId
        ? { name: names.objectName(pair.to), at: b }
        : { name: names.objectName(pair.from), at: a };
    return [
      {
        ...pair,
        d: `M${a.x} ${a.y}Q${middle.x} ${middle.y} ${tip.x} ${tip.y}`,
        tip,
        turn: (way * 180) / Math.PI,
        outwards: pair.from === selection.objectId,
        other,
      },
    ];
  }),
);
</script>

<template>
  <g class="drives" :class="{ many: threads.length > 10 }" data-testid="driver-lines" :data-count="threads.length">
    <g v-for="one in threads" :key="`${one.from} ${one.to}`" :class="{ outwards: one.outwards }">
      <path v-if="threads.length <= 10" class="under" :d="one.d" />
      <path class="thread" :d="one.d"
        ><title>{{ one.says.join("\n") }}</title></path
      >
      <path
        class="head"
        d="M0 0L-9 4.500V-4.500Z"
        :transform="`translate(${one.tip.x} ${one.tip.y}) rotate(${one.turn})`"
      />
      <text v-if="threads.length <= 16" :x="one.other.at.x + 10" :y="one.other.at.y - 9">{{ one.other.name }}</text>
    </g>
    <text v-for="dial in dials" :key="dial.id" :x="placeOf(dial.id)!.x - 8" :y="placeOf(dial.id)!.y - 8">{{
      dial.name
    }}</text>
  </g>
</template>

<style scoped>
path {
  fill: none;
}
.under {
  stroke: var(--paper);
  stroke-width: 4.5;
  opacity: 0.75;
}
.thread {
  stroke: var(--look);
  stroke-width: 1.8;
  pointer-events: stroke;
}
.outwards .thread {
  stroke-dasharray: 1 5;
  stroke-linecap: round;
  stroke-width: 2.6;
}
.many .thread {
  stroke-width: 1.2;
  stroke-dasharray: none;
  opacity: 0.8;
}
.head {
  fill: var(--look);
  stroke: var(--paper);
  stroke-width: 0.8;
}
text {
  font-size: 12px;
  font-weight: 600;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
</style>
