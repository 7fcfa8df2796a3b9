<script setup lang="ts">
/**
 * The picked object's keyed and ruled channels as curves over time. Keys, handles and waves of the chosen channels can
 * be dragged.
 */
import { useElementSize } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { quoted, wordsIn } from "@/api/channels";
import type { Key } from "@/api/types";
import CurveTools from "@/components/curves/CurveTools.vue";
import BendFields from "@/components/curves/BendFields.vue";
import WaveGrips from "@/components/curves/WaveGrips.vue";
import KeyFields from "@/components/curves/KeyFields.vue";
import LeafMark from "@/components/common/LeafMark.vue";
import { useCurveDrag } from "@/composables/curves/useCurveDrag";
import type { CurveGrip } from "@/composables/curves/useCurveEdits";
import { PAD, useCurveScales } from "@/composables/curves/useCurveScales";
import { type KeyedCurve, useKeyedCurves } from "@/composables/curves/useKeyedCurves";
import { curvePath } from "@/geometry/curves";
import { readable } from "@/geometry/frames";
import { toggled } from "@/geometry/sets";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const picks = usePicks();
const time = useTimeView();
const area = ref<HTMLElement>();
const { height } = useElementSize(area);
/** Channels shown with their keys, in addition to the selected one. */
const more = ref<ReadonlySet<string>>(new Set());
watch(
  () => selection.objectId,
  () => (more.value = new Set()),
);

const { curves } = useKeyedCurves();
const picked = computed(
  () =>
    curves.value.find((one) => one.words.name === selection.channel?.name) ??
    curves.value.find((one) => one.words.row === selection.row?.name) ??
    null,
);
const chosen = computed(() => curves.value.filter((one) => one === picked.value || more.value.has(one.words.name)));
const isChosen = (one: KeyedCurve): boolean => chosen.value.includes(one);

function choose(one: KeyedCurve, event: MouseEvent): void {
  const also = event.shiftKey || event.ctrlKey || event.metaKey;
  if (also && picked.value && picked.value !== one) {
    more.value = toggled(more.value, one.words.name);
    return;
  }
  selection.pickRow(one.words.row, one.words.name);
  if (!also) more.value = new Set();
}

const drag = useCurveDrag(() => ({
  perFrame: time.perFrame,
  perValue: (name) => perValue(name),
  step: (name) => ((curves.value.find((one) => one.words.name === name)?.words.step ?? 1) >= 1 ? 0.1 : 0.001),
  isNumber: (name) => curves.value.find((one) => one.words.name === name)?.isNumber ?? false,
}));

const isPicked = (one: KeyedCurve, key: Key): boolean => picks.has(selection.objectId ?? "", one.words.name, key.frame);
/** Whether a hand holds something of the curves, or of what they are made from. */
const isHeld = (): boolean => drag.held.value !== null || (scene.look !== null && !scene.look.said);
const { normalised, inside, valueOf, rangeOf, perValue, x, y, frameKeys } = useCurveScales(
  curves,
  chosen,
  height,
  isHeld,
  isPicked,
);
const path = (one: KeyedCurve, values: readonly number[]): string =>
  curvePath(
    values,
    playback.last * time.perFrame,
    inside.value,
    rangeOf(one.words.name).low,
    rangeOf(one.words.name).high,
  );

type HandleMark = Extract<CurveGrip, { kind: "out" | "in" }>;

const handles = computed((): HandleMark[] =>
  chosen.value
    .filter((one) => one.isNumber)
    .flatMap((one) =>
      one.keys.flatMap((key, i) => {
        const [before, after] = [one.keys[i - 1], one.keys[i + 1]];
        const third = (to: Key): [number, number] => [
          (to.frame - key.frame) / 3,
          (Number(to.value) - Number(key.value)) / 3,
        ];
        const out = after && key.ease === "handles" ? (copied(key.out) ?? third(after)) : null;
        const into = before?.ease === "handles" ? (copied(key.in) ?? third(before)) : null;
        const held = drag.held.value;
        if (held && held.kind !== "key" && held.channel === one.words.name && held.frame === key.frame) {
          const [mine, partner] = held.kind === "out" ? [out, into] : [into, out];
          if (mine) [mine[0], mine[1]] = held.at;
          if (partner && held.at[0]) partner[1] = (partner[0] * held.at[1]) / held.at[0];
        }
        const common = { channel: one.words.name, key };
        return [
          ...(out ? [{ ...common, kind: "out" as const, at: out, other: into }] : []),
          ...(into ? [{ ...common, kind: "in" as const, at: into, other: out }] : []),
        ];
      }),
    ),
);
const copied = (handle: Key["out"]): [number, number] | null => (handle ? [handle[0], handle[1]] : null);

/** Where a key is drawn: while it is held, where the hand has it. */
function place(one: KeyedCurve, key: Key): { left: string; top: string } {
  const held = drag.held.value;
  const [dx, dy] =
    held?.kind === "key" && isPicked(one, key) ? [held.frames * time.perFrame, one.isNumber ? held.pixels : 0] : [0, 0];
  return { left: `${x(key.frame) + dx}px`, top: `${y(one.words.name, valueOf(one, key)) + dy}px` };
}
const bent = computed(() => picked.value?.keys.some((key) => key.ease === "spline" || key.way === "spline") ?? false);

async function addKey(event: MouseEvent): Promise<void> {
  if (!selection.thing || !picked.value || !area.value) return;
  const frame = Math.round(
    (event.clientX - area.value.getBoundingClientRect().left - AIR + time.scroll) / time.perFrame,
  );
  await scene.edit([{ edit: "set-key", object: selection.thing.id, channel: picked.value.words.name, frame }]);
}

const label = (one: KeyedCurve, key: Key): string =>
  `Key of ${one.words.row} ${one.words.label} at frame ${Number(key.frame.toFixed(2))}, ${heldBy(one, key)}`;
function heldBy(one: KeyedCurve, key: Key): string {
  if (one.isNumber) return `value ${readable(Number(key.value) * one.words.shown, 2)}`;
  if (one.words.unit === "point") return "a point of the path";
  if (one.words.unit === "outline") return "an outline";
  const said = wordsIn(key.value);
  return said === null ? String(key.value) : quoted(said);
}
</script>

<template>
  <div class="curves">
    <div class="list" :style="{ width: `${NAMES}px` }">
      <button
        v-for="one in curves"
        :key="one.words.name"
        class="quiet channel"
        :class="[one.words.family, { on: isChosen(one) }]"
        :aria-pressed="isChosen(one)"
        title="Click to see its keys; Shift-click to compare several"
        @click="choose(one, $event)"
      >
        <span class="dot" />{{ one.words.row }}
        {{ one.words.row.toLowerCase().endsWith(one.words.label) ? "" : one.words.label }}
      </button>
      <template v-if="picked">
        <KeyFields :curves="chosen" />
        <BendFields v-if="bent" :channel="picked.words.name" :keys="picked.keys" />
        <CurveTools v-if="picked.keys.length > 1" v-model:normalised="normalised" :chosen="chosen" @frame="frameKeys" />
      </template>
    </div>
    <div ref="area" class="area" @dblclick="addKey" @pointerdown.self="picks.clear()">
      <p v-if="!curves.length" class="hint">
        {{
          selection.thing
            ? `${selection.thing.name} has no keys and no rules yet: click the leaf beside one of its values, or put a rule on in the vine.`
            : "Pick an object to see its curves."
        }}
      </p>
      <svg
        v-else
        class="drawing"
        role="group"
        :aria-label="picked ? `Curve of ${picked.words.row} ${picked.words.label}` : 'Curves'"
      >
        <g :transform="`translate(${AIR - time.scroll} ${PAD})`">
          <path
            v-for="one in curves"
            :key="one.words.name"
            class="curve"
            :class="[one.words.family, { on: isChosen(one), ruled: one.keyed }]"
            :d="path(one, one.values)"
          />
          <template v-for="one in chosen" :key="one.words.name">
            <path v-if="one.keyed" class="curve keyed" :class="one.words.family" :d="path(one, one.keyed)">
              <title>The curve of the keys alone; the dashed line is the result after all rules</title>
            </path>
          </template>
        </g>
        <g v-for="mark in handles" :key="`${mark.channel} ${mark.kind} ${mark.key.frame}`">
          <line
            class="arm"
            :x1="x(mark.key.frame)"
            :y1="y(mark.channel, Number(mark.key.value))"
            :x2="x(mark.key.frame + mark.at[0])"
            :y2="y(mark.channel, Number(mark.key.value) + mark.at[1])"
          />
          <circle
            class="handle"
            :data-testid="`handle-${mark.kind}-${mark.key.frame}`"
            :cx="x(mark.key.frame + mark.at[0])"
            :cy="y(mark.channel, Number(mark.key.value) + mark.at[1])"
            r="5.500"
            @pointerdown="drag.begin($event, mark)"
          >
            <title>Drag to bend; hold Alt to move this side alone, Shift to move it in time or value only</title>
          </circle>
        </g>
      </svg>
      <template v-for="one in chosen" :key="one.words.name">
        <button
          v-for="key in one.keys"
          :key="key.frame"
          class="leaf"
          :class="{ picked: isPicked(one, key) }"
          :style="place(one, key)"
          :aria-label="label(one, key)"
          :title="`${label(one, key)}\n${one.isNumber ? 'Drag it; Shift keeps to time or to value; Alt goes between frames' : 'Drag it in time'}`"
          @pointerdown="drag.begin($event, { kind: 'key', channel: one.words.name, key })"
          @dblclick.stop="playback.goTo(key.frame)"
        >
          <LeafMark state="here" :family="one.words.family" />
        </button>
      </template>
      <WaveGrips
        v-for="one in chosen"
        :key="one.words.name"
        :curve="one"
        :x="x"
        :y="(value) => y(one.words.name, value)"
        :per-frame="time.perFrame"
        :per-value="perValue(one.words.name)"
      />
      <template v-if="picked?.isNumber">
        <span class="scale top"
          >{{ readable(rangeOf(picked.words.name).high * picked.words.shown, 1) }} {{ picked.words.unit }}</span
        >
        <span class="scale bottom"
          >{{ readable(rangeOf(picked.words.name).low * picked.words.shown, 1) }} {{ picked.words.unit }}</span
        >
      </template>
    </div>
  </div>
</template>

<style scoped>
.curves {
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
  pointer-events: none;
}
.curve {
  fill: none;
  stroke: var(--family);
  stroke-width: 1.2;
  opacity: 0.3;
}
.curve.on {
  stroke-width: 2.4;
  opacity: 1;
}
.curve.on.ruled {
  stroke-width: 1.6;
  stroke-dasharray: 5 3;
  opacity: 0.8;
}
.curve.keyed {
  stroke-width: 2.4;
  opacity: 1;
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
.arm {
  stroke: var(--ink-2);
  stroke-width: 1;
}
.handle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
  cursor: move;
  touch-action: none;
  pointer-events: auto;
}
.leaf {
  position: absolute;
  width: 20px;
  height: 20px;
  margin: -10px 0 0 -10px;
  border: 0;
  padding: 0;
  background: none;
  border-radius: 50%;
  display: grid;
  place-items: center;
  cursor: move;
  touch-action: none;
}
.leaf.picked {
  background: var(--playhead-pale);
  box-shadow: 0 0 0 1.5px var(--playhead);
}
.scale {
  position: absolute;
  right: 6px;
  font: 11px var(--mono);
  color: var(--ink-2);
  pointer-events: none;
}
.top {
  top: 3px;
}
.bottom {
  bottom: 3px;
}
.hint {
  color: var(--ink-2);
  margin: 10px 22px;
}
</style>
