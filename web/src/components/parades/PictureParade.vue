<script setup lang="ts">
/**
 * Handles on the copies of a picked parade: the second for the gap, the last for the spread, the ring for its radius,
 * the end for the count.
 */
import { computed } from "vue";
import { numberAt } from "@/api/motion";
import { paradeOf } from "@/api/parades";
import type { ParadeObject } from "@/api/types";
import { beginOwnDrag } from "@/composables/useDrag";
import { useChanging } from "@/composables/useChanging";
import type { PictureView } from "@/composables/picture/usePictureView";
import { inverse, moved, type Point } from "@/geometry/matrix";
import { boxOf, placeOfCopy, viewOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: ParadeObject; view: PictureView; toPicture: (event: PointerEvent) => Point }>();
const scene = useScene();
const playback = usePlayback();
const changing = useChanging();

const baked = computed(() => scene.motion?.objects.get(props.thing.id));
const parade = computed(() => paradeOf(props.thing)!);
const matrix = computed(() => (scene.motion ? viewOf(scene.motion, props.thing.id, playback.frame) : null));
const count = computed(() => (baked.value?.channels["copies"]?.width ?? 0) / 6);
const value = (name: string): number => {
  const rows = baked.value?.channels[name];
  return rows ? numberAt(rows, playback.frame) : 0;
};
/** The middle of the element, in the parade's own space. */
const middle = computed<Point>(() => {
  const box = scene.motion && boxOf(scene.motion, props.thing.id, playback.frame, scene.parts);
  if (!box || !count.value) return { x: 0, y: 0 };
  // The box is that around all copies: its middle less the middle of their places.
  const at = Array.from({ length: count.value }, (_, k) => placeOfCopy(baked.value!, k, playback.frame));
  const among = (of: number[]): number => (Math.min(...of) + Math.max(...of)) / 2;
  return {
    x: (box.left + box.right) / 2 - among(at.map((one) => one[4])),
    y: (box.top + box.bottom) / 2 - among(at.map((one) => one[5])),
  };
});
const copyAt = (k: number): Point => {
  const place = placeOfCopy(baked.value!, k, playback.frame);
  return { x: place[4] + middle.value.x, y: place[5] + middle.value.y };
};

interface Handle {
  readonly name: string;
  readonly at: Point;
  readonly hint: string;
  /** The values that moving it so far, in the parade's own space, comes to. */
  readonly values: (by: Point, before: Readonly<Record<string, number>>, from: Point) => Record<string, number>;
}
/** How far one copy of a ring is from the next, in radians; a closed ring has room after its last copy. */
function stepOfRing(n: number): number {
  const arc = (value("arc") * Math.PI) / 180;
  return arc / (Math.abs(value("arc")) >= 360 ? n : Math.max(1, n - 1)) || 1;
}
const STARTS = ["gap", "gap.down", "spread.x", "spread.y", "radius", "count", "shift"];

const handles = computed<Handle[]>(() => {
  if (!baked.value || !count.value) return [];
  const n = count.value;
  const found: Handle[] = [];
  const arrange = parade.value.arrange;
  const far = (last: number, before: Readonly<Record<string, number>>): number => last + (before["shift"] ?? 0) || 1;
  if (arrange === "row" && n > 1)
    found.push({
      name: "gap",
      at: copyAt(1),
      hint: "Drag to change the gap",
      values: (by, b) => ({ gap: b["gap"]! + by.x / far(1, b) }),
    });
  if (arrange === "column" && n > 1)
    found.push({
      name: "gap",
      at: copyAt(1),
      hint: "Drag to change the gap",
      values: (by, b) => ({ gap: b["gap"]! + by.y / far(1, b) }),
    });
  if (arrange === "grid") {
    if (n > 1 && parade.value.columns > 1)
      found.push({
        name: "gap",
        at: copyAt(1),
        hint: "Drag to change the gap across",
        values: (by, b) => ({ gap: b["gap"]! + by.x }),
      });
    if (n > parade.value.columns)
      found.push({
        name: "gap-down",
        at: copyAt(parade.value.columns),
        hint: "Drag to change the gap from line to line",
        values: (by, b) => ({ "gap.down": b["gap.down"]! + by.y }),
      });
  }
  if (arrange === "free" && n > 1)
    found.push({
      name: "spread",
      at: copyAt(n - 1),
      hint: "Drag the last copy; the others lie between",
      values: (by, b) => ({
        "spread.x": b["spread.x"]! + by.x / far(n - 1, b),
        "spread.y": b["spread.y"]! + by.y / far(n - 1, b),
      }),
    });
  if (arrange === "ring") {
    const top = copyAt(0);
    const [dx, dy] = [top.x - middle.value.x, top.y - middle.value.y];
    const length = Math.hypot(dx, dy) || 1;
    found.push({
      name: "radius",
      at: top,
      hint: "Drag to change the radius of the ring",
      values: (by, b) => ({ radius: Math.max(0, b["radius"]! + (by.x * dx + by.y * dy) / length) }),
    });
  }
  if (arrange === "ring" && n > 1) {
    // Round the ring, between the last copy and where one more would stand.
    const last = copyAt(n - 1);
    const step = stepOfRing(n);
    const [x, y] = [last.x - middle.value.x, last.y - middle.value.y];
    const [cos, sin] = [Math.cos(step * 0.5), Math.sin(step * 0.5)];
    found.push({
      name: "count",
      at: { x: middle.value.x + x * cos - y * sin, y: middle.value.y + x * sin + y * cos },
      hint: "Pull round the ring to show more copies, push back to show fewer",
      values: (by, b, from) => {
        const angle = (p: Point): number => Math.atan2(p.y - middle.value.y, p.x - middle.value.x);
        const turned = angle({ x: from.x + by.x, y: from.y + by.y }) - angle(from);
        const round = turned - 2 * Math.PI * Math.round(turned / (2 * Math.PI));
        return { count: Math.max(1, Math.round(b["count"]! + round / step)) };
      },
    });
  }
  if (arrange === "grid" && n > 1) {
    const columns = parade.value.columns;
    const [first, last] = [copyAt(0), copyAt(n - 1)];
    const across = columns > 1 ? copyAt(1).x - first.x : 0;
    const down = n > columns ? copyAt(columns).y - first.y : 0;
    found.push({
      name: "count",
      at: { x: last.x + (across || 60) * 0.62, y: last.y + (across ? 0 : down * 0.62) },
      hint: "Pull to show more copies, line by line, push to show fewer",
      values: (by, b) => {
        const lines = down ? Math.round(by.y / down) : 0;
        const more = (across ? Math.round(by.x / across) : 0) + lines * columns;
        return { count: Math.max(1, Math.round(b["count"]!) + more) };
      },
    });
  }
  if (["row", "column", "free"].includes(arrange) && n > 1) {
    const [first, last] = [copyAt(0), copyAt(n - 1)];
    const step = { x: (last.x - first.x) / (n - 1), y: (last.y - first.y) / (n - 1) };
    const square = step.x ** 2 + step.y ** 2 || 1;
    found.push({
      name: "count",
      at: { x: last.x + step.x * 0.62, y: last.y + step.y * 0.62 },
      hint: "Pull to show more copies, push to show fewer",
      values: (by, b) => ({ count: Math.max(1, Math.round(b["count"]! + (by.x * step.x + by.y * step.y) / square)) }),
    });
  }
  return found;
});

function grip(event: PointerEvent, handle: Handle): void {
  const home = matrix.value && inverse(matrix.value);
  if (!home) return;
  const from = moved(home, props.toPicture(event));
  const before = Object.fromEntries(STARTS.map((name) => [name, value(name)]));
  let now: Record<string, number> | null = null;
  beginOwnDrag(event, {
    move: (e) => {
      const to = moved(home, props.toPicture(e));
      now = handle.values({ x: to.x - from.x, y: to.y - from.y }, before, from);
      for (const name of Object.keys(now)) now[name] = Number(now[name]!.toFixed(2));
      changing.show(props.thing, now, false);
    },
    end: (kept) => {
      if (kept && now) void changing.make(props.thing, now);
      else scene.letGo();
    },
  });
}
</script>

<template>
  <g v-if="matrix">
    <g
      v-for="handle in handles"
      :key="handle.name"
      :transform="`translate(${view.onStage(matrix, handle.at).x} ${view.onStage(matrix, handle.at).y})`"
    >
      <path v-if="handle.name === 'count'" class="mark" d="M-6 0h12M0 -6v12" />
      <rect v-else class="mark" x="-5" y="-5" width="10" height="10" rx="3" transform="rotate(45)" />
      <circle class="grab" r="12" :data-testid="`parade-${handle.name}`" @pointerdown="grip($event, handle)"
        ><title>{{ handle.hint }}</title></circle
      >
    </g>
  </g>
</template>

<style scoped>
.mark {
  fill: var(--paper);
  stroke: var(--leaf, #2e6b4a);
  stroke-width: 2;
}
.grab {
  fill: transparent;
  pointer-events: all;
  cursor: grab;
}
</style>
