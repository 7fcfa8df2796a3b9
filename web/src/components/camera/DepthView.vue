<script setup lang="ts">
/** The scene from the side: the camera at the left, and the depth of each object, which can be dragged. */
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import { isCamera } from "@/api/kinds";
import { writtenAt } from "@/api/motion";
import type { TroupeObject } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import PaintedThumb from "@/components/common/PaintedThumb.vue";
import { beginDrag } from "@/composables/useDrag";
import { useChanging } from "@/composables/useChanging";
import { useAdding } from "@/composables/troupe/useAdding";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const changing = useChanging();
const adding = useAdding();
const area = ref<HTMLElement>();
const { width } = useElementSize(area);

const [NAME, ROW, EDGE] = [150, 26, 26];
const [NEAREST, FARTHEST] = [-0.9, 31];
/** Twice as far from the eye is one step to the right, wherever that is. */
const stepsOf = (depth: number): number => Math.log2(1 + depth);
const [FIRST, LAST] = [stepsOf(NEAREST), stepsOf(FARTHEST)];
const room = computed(() => Math.max(100, width.value - NAME - 2 * EDGE));
const xOf = (depth: number): number => {
  const steps = Math.min(Math.max(stepsOf(Math.max(depth, NEAREST)), FIRST), LAST);
  return NAME + EDGE + ((steps - FIRST) / (LAST - FIRST)) * room.value;
};
const depthAt = (x: number): number => {
  const steps = FIRST + ((x - NAME - EDGE) / room.value) * (LAST - FIRST);
  return Math.min(Math.max(2 ** steps - 1, NEAREST), FARTHEST);
};
const TICKS = [-0.75, -0.5, 0, 1, 3, 7, 15, 31];

/** What has a depth of its own, the foremost first. */
const things = computed(() => scene.objects.filter((one) => !one.parent && !isCamera(one) && !one.pinned).toReversed());
const depthOf = (thing: TroupeObject): number => {
  const rows = scene.motion?.objects.get(thing.id)?.channels["depth"];
  return rows ? writtenAt(rows, playback.textFrame) : 0;
};
const painted = (id: string): string[] => withParts(id, scene.parts);

function begin(event: PointerEvent, thing: TroupeObject): void {
  selection.pick(thing.id);
  selection.pickRow("Depth");
  const from = event.clientX - xOf(depthOf(thing));
  let depth: number | null = null;
  beginDrag(event, {
    move: (e) => {
      const at = depthAt(e.clientX - from);
      // The stage itself holds what comes near to it.
      depth = Math.abs(xOf(at) - xOf(0)) < 5 && !e.altKey ? 0 : Number(at.toFixed(2));
      changing.show(thing, { depth });
    },
    end: (kept) => {
      if (kept && depth !== null) void changing.make(thing, { depth }, true);
      else scene.letGo();
    },
  });
}
function nudge(thing: TroupeObject, by: number): void {
  const depth = 2 ** (stepsOf(depthOf(thing)) + by) - 1;
  void changing.make(thing, { depth: Number(Math.min(Math.max(depth, NEAREST), FARTHEST).toFixed(2)) }, true);
}

/** What is spread or fogged: those picked together, else all. */
const meant = computed(() =>
  selection.several ? things.value.filter((one) => selection.picked.includes(one.id)) : things.value,
);
/** Depths by the order of the troupe: the foremost nearest, each the same steps farther than the one before it. */
const [near, far] = [ref(0), ref(3)];
function spread(): void {
  const [from, to] = [stepsOf(near.value), stepsOf(far.value)];
  const count = meant.value.length;
  const entries = meant.value.map((one, n): [string, number] => [
    one.id,
    Number((2 ** (from + ((to - from) * n) / Math.max(1, count - 1)) - 1).toFixed(3)),
  ]);
  if (count) void scene.edit([{ edit: "set-depths", depths: Object.fromEntries(entries) }]);
}
/** Fog on those picked together, else on all that can be farther away, in the colour of the background. */
function fog(): void {
  const objects = meant.value.filter((one) => !one.pinned).map((one) => one.id);
  const colour = scene.motion?.background;
  if (objects.length && colour) void scene.edit([{ edit: "fog-by-distance", objects, colour }]);
}
</script>

<template>
  <div ref="area" class="depths" role="region" aria-label="Depths">
    <p v-if="!scene.camera" class="empty">
      Depth is visible only through a camera.
      <button class="chip small" @click="adding.add('camera')">Add a camera</button>
    </p>
    <template v-else>
      <div class="head">
        <span class="spread">
          in the order of the Troupe, from
          <NumberField
            label="Depth of the foremost"
            :value="near"
            :low="NEAREST"
            :high="1000"
            :step="0.1"
            @change="near = $event"
          />
          to
          <NumberField
            label="Depth of the backmost"
            :value="far"
            :low="NEAREST"
            :high="1000"
            :step="0.1"
            @change="far = $event"
          />
          <button
            class="chip small"
            :title="
              selection.several ? 'Gives each selected object a depth' : 'Spreads all unattached objects in depth'
            "
            @click="spread"
          >
            {{ selection.several ? `Spread these ${meant.length} in depth` : "Spread in depth" }}
          </button>
          <button
            class="chip small"
            title="Fades far objects to the background colour, by a look rule; click again after a change of the background"
            @click="fog"
          >
            Fog by distance
          </button>
        </span>
      </div>
      <div class="rows" :style="{ height: `${things.length * ROW + 24}px` }">
        <svg aria-hidden="true">
          <g v-for="tick in TICKS" :key="tick">
            <line class="tick" :class="{ stage: tick === 0 }" :x1="xOf(tick)" :x2="xOf(tick)" y1="18" y2="100%" />
            <text :x="xOf(tick)" y="12">{{ tick === 0 ? "stage" : tick }}</text>
          </g>
        </svg>
        <div
          v-for="(thing, n) in things"
          :key="thing.id"
          class="row"
          :class="{ picked: thing.id === selection.objectId }"
          :style="{ top: `${20 + n * ROW}px` }"
          @click="selection.pick(thing.id)"
        >
          <span class="name" :title="thing.name">{{ thing.name }}</span>
          <button
            class="thing"
            :style="{ left: `${xOf(depthOf(thing))}px` }"
            :title="`${thing.name}: depth ${depthOf(thing)}. Drag to change the depth; hold Alt to pass the stage`"
            :aria-label="`Depth of ${thing.name}`"
            :data-depth="depthOf(thing)"
            @pointerdown="begin($event, thing)"
            @keydown.left.prevent="nudge(thing, -0.1)"
            @keydown.right.prevent="nudge(thing, 0.1)"
          >
            <PaintedThumb :ids="painted(thing.id)" :frame="0" />
          </button>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.depths {
  overflow: auto;
  min-height: 0;
  font-size: 12px;
}
.empty {
  padding: 14px;
  color: var(--ink-2);
}
.head {
  padding: 4px 12px;
}
.spread {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--ink-2);
}
.spread :deep(.field) {
  width: 62px;
  flex: none;
}
.rows {
  position: relative;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.tick {
  stroke: var(--line);
}
.stage {
  stroke: var(--travel);
  stroke-width: 2;
}
text {
  font: 11px var(--mono);
  text-anchor: middle;
  fill: var(--ink-2);
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 26px;
}
.row.picked {
  background: var(--travel-pale);
}
.name {
  position: absolute;
  left: 12px;
  top: 4px;
  width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.thing {
  position: absolute;
  top: 0;
  width: 26px;
  height: 26px;
  margin-left: -13px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper);
  cursor: ew-resize;
  overflow: hidden;
}
.picked .thing {
  border-color: var(--travel);
  box-shadow: 0 0 0 1px var(--travel);
}
</style>
