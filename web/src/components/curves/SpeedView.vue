<script setup lang="ts">
/** Speed over time of the picked row. The speed at both ends of a stretch can be dragged, which changes its ease. */
import { beginDrag, SLACK } from "@/composables/useDrag";
import { useElementSize } from "@vueuse/core";
import { computed, ref, shallowRef, watch } from "vue";
import type { ChannelWords, Edit, Key } from "@/api/types";
import { extent, speeds } from "@/geometry/curves";
import { readable } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";
import { useVocabulary } from "@/stores/vocabulary";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const time = useTimeView();
const area = ref<HTMLElement>();
const { height } = useElementSize(area);
const [TOP, FLOOR] = [14, 18];

/** Whether a channel goes from one value to the next, as colours and words do not. */
const hasSpeed = (channel: ChannelWords): boolean => channel.unit !== "colour" && channel.unit !== "words";

const rows = computed(() =>
  (selection.thing ? vocabulary.rowsOf(selection.thing) : []).filter((row) =>
    row.channels.some((channel) => hasSpeed(channel) && selection.keysOf(channel.name).length > 1),
  ),
);
const row = computed(() => rows.value.find((one) => one.name === selection.row?.name) ?? rows.value[0] ?? null);
const baked = computed(() => scene.calmMotion?.objects.get(selection.thing?.id ?? "")?.channels ?? {});
const speedOf = (name: string): readonly number[] => {
  const channels = rows.value.find((one) => one.name === name)?.channels ?? [];
  return Array.from(
    speeds(
      channels.flatMap((channel) => (baked.value[channel.name]?.width === 1 ? [baked.value[channel.name]!.data] : [])),
      scene.calmMotion?.length ?? 0,
    ),
  );
};
const speed = computed(() => (row.value ? speedOf(row.value.name) : []));
const factor = computed(() => row.value?.channels.find((channel) => channel.unit !== "point")?.shown ?? 1);
const unit = computed(() => row.value?.channels.find((channel) => channel.unit !== "point")?.unit ?? "");
const inside = computed(() => Math.max(20, height.value - TOP - FLOOR));
const highest = shallowRef(1);
const held = ref<string | null>(null);
watch(
  () => ({ held: held.value, most: extent([speed.value]).high }),
  ({ held: now, most }) => !now && (highest.value = Math.max(most * 1.2, 1e-6)),
  { immediate: true },
);

const x = (frame: number): number => AIR + frame * time.perFrame - time.scroll;
const y = (value: number): number => TOP + inside.value * (1 - value / highest.value);
/** The speed from each frame to the next lies between the two. */
const line = (values: readonly number[]): string => {
  const step = Math.max(1, Math.floor(0.34 / time.perFrame));
  const points: string[] = [];
  for (let i = 0; i < values.length; i += step)
    points.push(`${((i + 0.5) * time.perFrame).toFixed(1)} ${(y(values[i] ?? 0) - TOP).toFixed(1)}`);
  return points.length ? `M${points.join("L")}` : "";
};
const fill = computed(() => {
  const [first, last] = [0.5 * time.perFrame, (speed.value.length - 0.5) * time.perFrame];
  return speed.value.length ? `${line(speed.value)}L${last.toFixed(1)} ${inside.value}L${first} ${inside.value}Z` : "";
});

/** The channels whose keys make the picked row move: the path alone where there is one. */
const driving = computed(() => {
  const names = (row.value?.channels ?? [])
    .filter((channel) => hasSpeed(channel) && selection.keysOf(channel.name).length > 1)
    .map((channel) => channel.name);
  return names.includes("path") ? ["path"] : names;
});

interface Stretch {
  readonly from: number;
  readonly to: number;
  /** The speed it would have were it even. */
  readonly mean: number;
  readonly channels: readonly string[];
}

/** Stretches that all driving channels pass from key to key together. */
const stretches = computed((): Stretch[] => {
  const lists = driving.value.map((name) => selection.keysOf(name));
  const frames = [...new Set(lists.flatMap((keys) => keys.map((key) => key.frame)))].sort((a, b) => a - b);
  return frames.slice(0, -1).flatMap((from, i) => {
    const to = frames[i + 1]!;
    const channels = driving.value.filter((name) => hasStretch(selection.keysOf(name), from, to));
    const passed = speed.value.slice(Math.max(0, Math.round(from)), Math.max(0, Math.round(to)));
    const mean = passed.length ? passed.reduce((sum, one) => sum + one, 0) / passed.length : 0;
    return channels.length && mean > 1e-6 ? [{ from, to, mean, channels }] : [];
  });
});
const hasStretch = (keys: readonly Key[], from: number, to: number): boolean =>
  keys.some((key, i) => key.frame === from && keys[i + 1]?.frame === to);
const speedAt = (stretch: Stretch, side: "leaving" | "arriving"): number => {
  if (held.value === `${side} ${stretch.from}`) return heldAt.value;
  const [a, b] = side === "leaving" ? [stretch.from, stretch.from + 1] : [stretch.to - 1, stretch.to - 2];
  const [here, next] = [speed.value[Math.round(a)] ?? 0, speed.value[Math.round(b)] ?? 0];
  // From the middles of the two outer frames on to the very end.
  return stretch.to - stretch.from > 2 ? Math.max(0, here + (here - next) / 2) : here;
};
const heldAt = ref(0);

function begin(event: PointerEvent, stretch: Stretch, side: "leaving" | "arriving"): void {
  if (event.button !== 0 || !selection.thing) return;
  event.preventDefault();
  const object = selection.thing.id;
  const from = event.clientY;
  const was = speedAt(stretch, side);
  let edits: Edit[] = [];
  const move = (e: PointerEvent): void => {
    if (!edits.length && Math.abs(e.clientY - from) < SLACK) return;
    const wanted = Math.max(0, was - ((e.clientY - from) / inside.value) * highest.value);
    const share = Math.min(30, Number((wanted / stretch.mean).toFixed(3)));
    held.value = `${side} ${stretch.from}`;
    heldAt.value = wanted;
    edits = stretch.channels.map((channel): Edit => ({
      edit: "set-speed",
      object,
      channel,
      frame: stretch.from,
      [side]: share,
    }));
    void scene.lookAt(edits);
  };
  const end = async (kept: boolean): Promise<void> => {
    if (edits.length && kept) await scene.edit(edits);
    else if (edits.length) scene.letGo();
    held.value = null;
  };
  beginDrag(event, { move, end: (kept) => void end(kept) });
}

const says = (value: number): string =>
  `${readable(value * factor.value, value * factor.value < 10 ? 2 : 1)} ${unit.value} a frame`;
</script>

<template>
  <div class="speed">
    <div class="list" :style="{ width: `${NAMES}px` }">
      <button
        v-for="one in rows"
        :key="one.name"
        class="quiet channel"
        :class="[one.family, { on: one.name === row?.name }]"
        :aria-pressed="one.name === row?.name"
        @click="selection.pickRow(one.name)"
      >
        <span class="dot" />{{ one.name }}
      </button>
      <p v-if="row" class="about">
        Drag a ring up to leave or arrive faster, down to slow down; at the bottom the motion stops. The distance stays
        the same, so the middle compensates.
      </p>
    </div>
    <div ref="area" class="area">
      <p v-if="!row" class="hint">
        {{
          selection.thing
            ? `${selection.thing.name} does not move yet: give one of its values two keys.`
            : "Pick an object to see how fast it goes."
        }}
      </p>
      <svg v-else class="drawing" :class="row.family" role="group" :aria-label="`Speed of ${row.name}`">
        <g :transform="`translate(${AIR - time.scroll} ${TOP})`">
          <path class="fill" :d="fill" />
          <path class="line" :d="line(speed)" />
        </g>
        <g v-for="stretch in stretches" :key="stretch.from">
          <line class="mean" :x1="x(stretch.from)" :x2="x(stretch.to)" :y1="y(stretch.mean)" :y2="y(stretch.mean)">
            <title>Mean speed from frame {{ stretch.from }} to {{ stretch.to }}: {{ says(stretch.mean) }}</title>
          </line>
          <line class="edge" :x1="x(stretch.from)" :x2="x(stretch.from)" :y1="TOP" :y2="TOP + inside" />
          <line class="edge" :x1="x(stretch.to)" :x2="x(stretch.to)" :y1="TOP" :y2="TOP + inside" />
          <g v-for="side in ['leaving', 'arriving'] as const" :key="side">
            <circle
              class="ring"
              :data-testid="`speed-${side}-${stretch.from}`"
              :cx="side === 'leaving' ? x(stretch.from) + 7 : x(stretch.to) - 7"
              :cy="y(Math.min(speedAt(stretch, side), highest))"
              r="6"
              @pointerdown="begin($event, stretch, side)"
            >
              <title>{{ side }} at {{ says(speedAt(stretch, side)) }}: drag up or down</title>
            </circle>
          </g>
        </g>
      </svg>
      <template v-if="row">
        <span class="scale top">{{ says(highest) }}</span>
        <span class="scale bottom"
          >at rest · now {{ says(speed[Math.min(playback.frame, speed.length - 1)] ?? 0) }}</span
        >
      </template>
    </div>
  </div>
</template>

<style scoped>
.speed {
  display: flex;
  flex: 1;
  min-height: 0;
}
.list {
  flex: none;
  overflow-y: auto;
  padding: 4px 6px;
  display: flex;
  flex-direction: column;
  gap: 1px;
  background: var(--paper);
  z-index: 1;
}
.channel {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 2px 8px;
}
.channel.on {
  background: var(--paper-3);
  font-weight: 600;
}
.about {
  margin: 8px;
  color: var(--ink-2);
  font-size: 12px;
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--family);
  flex: none;
}
.area {
  position: relative;
  flex: 1;
  min-width: 0;
  overflow: hidden;
  background: #f6f0e466;
}
.drawing {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.travel {
  --family: var(--travel);
}
.turn {
  --family: var(--turn);
}
.size {
  --family: var(--size-fill);
}
.look {
  --family: var(--look);
}
.fill {
  fill: var(--family);
  opacity: 0.16;
}
.line {
  fill: none;
  stroke: var(--family);
  stroke-width: 2;
  stroke-linejoin: round;
}
.mean {
  stroke: var(--ink-3);
  stroke-width: 1;
  stroke-dasharray: 3 4;
}
.edge {
  stroke: #d6cab0;
  stroke-width: 1;
}
.ring {
  fill: var(--paper);
  stroke: var(--family);
  stroke-width: 3;
  cursor: ns-resize;
  touch-action: none;
}
.ring:hover {
  fill: var(--playhead-pale);
}
.scale {
  position: absolute;
  right: 6px;
  font: 11px var(--mono);
  color: var(--ink-2);
  pointer-events: none;
}
.top {
  top: 1px;
}
.bottom {
  bottom: 1px;
}
.hint {
  color: var(--ink-2);
  margin: 10px 22px;
}
</style>
