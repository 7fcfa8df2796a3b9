<script setup lang="ts">
/** The picked object's keyed channels as curves over time. The picked channel's keys and handles can be dragged. */
import { useElementSize } from "@vueuse/core";
import { computed, ref, shallowRef, watch } from "vue";
import type { ChannelWords, Ease, Edit, Key } from "@/api/types";
import BendFields from "@/components/curves/BendFields.vue";
import LeafMark from "@/components/common/LeafMark.vue";
import { type CurveGrip, useCurveDrag } from "@/composables/useCurveDrag";
import { curvePath, extent } from "@/geometry/curves";
import { readable } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ perFrame: number; names: number; air: number }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const area = ref<HTMLElement>();
const { height } = useElementSize(area);
const PAD = 16;

const keyed = computed(() => (selection.thing ? vocabulary.channelsOf(selection.thing).filter((one) => one.unit !== "colour" && selection.keysOf(one.name).length > 0) : []));
const picked = computed(() => keyed.value.find((one) => one.name === selection.channel?.name) ?? null);
const keys = computed(() => (picked.value ? selection.keysOf(picked.value.name) : []));
const values = (name: string): readonly number[] => Array.from(scene.motion?.objects.get(selection.thing?.id ?? "")?.channels[name]?.data ?? []);

const inside = computed(() => Math.max(20, height.value - PAD * 2));
const range = shallowRef({ low: -1, high: 1 });
const perValue = computed(() => inside.value / (range.value.high - range.value.low));
const y = (value: number): number => PAD + (range.value.high - value) * perValue.value;
const x = (frame: number): number => props.air + frame * props.perFrame;
const drag = useCurveDrag(() => ({ perFrame: props.perFrame, perValue: perValue.value, step: (picked.value?.step ?? 1) >= 1 ? 0.1 : 0.001 }));

// The view finds its height anew when the hand lets go: a scale that slid along would carry the key away from under it.
watch(
  () => ({ held: drag.held.value !== null, now: extent(picked.value ? [values(picked.value.name), keys.value.map((key) => Number(key.value))] : []) }),
  ({ held, now }) => !held && (range.value = now),
  { immediate: true },
);

/** A channel's curve. Those not picked are drawn each to its own height: their shape is what counts beside the picked one. */
function path(channel: ChannelWords): string {
  const list = values(channel.name);
  const own = channel.name === picked.value?.name ? range.value : extent([list]);
  return curvePath(list.length > 1 ? list : [list[0] ?? 0, list[0] ?? 0], playback.last * props.perFrame, inside.value, own.low, own.high);
}

interface HandleMark {
  readonly kind: "out" | "in";
  readonly key: Key;
  readonly at: readonly [number, number];
  readonly other: readonly [number, number] | null;
}

const handles = computed((): HandleMark[] =>
  keys.value.flatMap((key, i) => {
    const [before, after] = [keys.value[i - 1], keys.value[i + 1]];
    const third = (to: Key): [number, number] => [(to.frame - key.frame) / 3, (Number(to.value) - Number(key.value)) / 3];
    const out = after && key.ease === "handles" ? (copied(key.out) ?? third(after)) : null;
    const into = before?.ease === "handles" ? (copied(key.in) ?? third(before)) : null;
    const held = drag.held.value;
    if (held?.frame === key.frame && held.kind !== "key") {
      const [mine, partner] = held.kind === "out" ? [out, into] : [into, out];
      if (mine) [mine[0], mine[1]] = held.at;
      if (partner && held.at[0]) partner[1] = (partner[0] * held.at[1]) / held.at[0];
    }
    return [...(out ? [{ kind: "out" as const, key, at: out, other: into }] : []), ...(into ? [{ kind: "in" as const, key, at: into, other: out }] : [])];
  }),
);
const copied = (handle: Key["out"]): [number, number] | null => (handle ? [handle[0], handle[1]] : null);
/** Where a key is drawn: while it is held, where the hand has it. */
const placed = (key: Key): { frame: number; value: number } => {
  const held = drag.held.value;
  return held?.kind === "key" && held.frame === key.frame ? { frame: held.at[0], value: held.at[1] } : { frame: key.frame, value: Number(key.value) };
};
const bent = computed(() => keys.value.some((key) => key.ease === "spline"));

/** Make every stretch of the channel of one kind. */
async function shape(ease: Ease): Promise<void> {
  if (!selection.thing || !picked.value || keys.value.length < 2) return;
  const edit: Edit = { edit: "set-ease", object: selection.thing.id, channel: picked.value.name, frames: keys.value.slice(0, -1).map((key) => key.frame), ease };
  await scene.edit([edit]);
}

async function addKey(event: MouseEvent): Promise<void> {
  if (!selection.thing || !picked.value || !area.value) return;
  const frame = Math.round((event.clientX - area.value.getBoundingClientRect().left - props.air) / props.perFrame);
  await scene.edit([{ edit: "set-key", object: selection.thing.id, channel: picked.value.name, frame }]);
}

const label = (key: Key): string => `Key of ${picked.value?.row} ${picked.value?.label} at frame ${Number(key.frame.toFixed(2))}, value ${readable(Number(key.value) * (picked.value?.shown ?? 1), 2)}`;
const grip = (event: PointerEvent, held: CurveGrip): void => drag.begin(event, held);
</script>

<template>
  <div class="curves">
    <div class="list" :style="{ width: `${names}px` }">
      <button v-for="channel in keyed" :key="channel.name" class="quiet channel" :class="[channel.family, { on: channel.name === picked?.name }]" @click="selection.pickRow(channel.row, channel.name)">
        <span class="dot" />{{ channel.row }} {{ channel.row.toLowerCase() === channel.label ? "" : channel.label }}
      </button>
      <div v-if="picked && keys.length > 1" class="tools">
        <button class="chip" title="Bend every stretch by handles you can drag; Alt breaks a pair" @click="shape('handles')">Handles</button>
        <button class="chip" title="One smooth curve through all keys, with tension, continuity and bias" @click="shape('spline')">Spline</button>
        <button class="chip" title="Straight from key to key" @click="shape('linear')">Even</button>
      </div>
      <BendFields v-if="picked && bent" :channel="picked.name" :keys="keys" />
    </div>
    <div ref="area" class="area" @dblclick="addKey">
      <p v-if="!keyed.length" class="hint">{{ selection.thing ? `${selection.thing.name} has no keys yet: click the leaf beside one of its values.` : "Pick an object to see its curves." }}</p>
      <svg v-else class="drawing" role="group" :aria-label="picked ? `Curve of ${picked.row} ${picked.label}` : 'Curves'">
        <g :transform="`translate(${air} ${PAD})`">
          <path v-for="channel in keyed" :key="channel.name" class="curve" :class="[channel.family, { on: channel.name === picked?.name }]" :d="path(channel)" />
        </g>
        <template v-if="picked">
          <g v-for="mark in handles" :key="`${mark.kind} ${mark.key.frame}`">
            <line class="arm" :x1="x(mark.key.frame)" :y1="y(Number(mark.key.value))" :x2="x(mark.key.frame + mark.at[0])" :y2="y(Number(mark.key.value) + mark.at[1])" />
            <circle class="handle" :data-testid="`handle-${mark.kind}-${mark.key.frame}`" :cx="x(mark.key.frame + mark.at[0])" :cy="y(Number(mark.key.value) + mark.at[1])" r="5.500" @pointerdown="grip($event, mark)"><title>Drag to bend; Alt moves this side alone</title></circle>
          </g>
        </template>
      </svg>
      <template v-if="picked">
        <button
          v-for="key in keys"
          :key="key.frame"
          class="leaf"
          :class="{ picked: selection.leaves.has(key.frame) }"
          :style="{ left: `${x(placed(key).frame)}px`, top: `${y(placed(key).value)}px` }"
          :aria-label="label(key)"
          :title="`${label(key)}\nDrag it; Shift keeps one direction`"
          @pointerdown="grip($event, { kind: 'key', key })"
          @dblclick.stop="playback.goTo(key.frame)"
        >
          <LeafMark state="here" :family="picked.family" />
        </button>
        <span class="scale top">{{ readable(range.high * picked.shown, 1) }}{{ picked.unit }}</span>
        <span class="scale bottom">{{ readable(range.low * picked.shown, 1) }}{{ picked.unit }}</span>
      </template>
    </div>
  </div>
</template>

<style scoped>
.curves { display: flex; flex: 1; min-height: 0; }
.list { flex: none; overflow-y: auto; padding: 4px 6px; display: flex; flex-direction: column; gap: 1px; }
.channel { display: flex; align-items: center; gap: 8px; padding: 2px 8px; }
.channel.on { background: var(--paper-3); font-weight: 600; }
.dot { width: 8px; height: 8px; border-radius: 50%; background: var(--family); }
.tools { display: flex; gap: 4px; padding: 5px 2px; }
.tools .chip { padding: 1px 8px; font-size: 12px; }
.area { position: relative; flex: 1; min-width: 0; overflow: hidden; background: #f6f0e466; }
.drawing { position: absolute; inset: 0; width: 100%; height: 100%; }
.curve { fill: none; stroke: var(--family); stroke-width: 1.2; opacity: 0.3; }
.curve.on { stroke-width: 2.4; opacity: 1; }
.travel { --family: var(--travel); }
.turn { --family: var(--turn); }
.size { --family: var(--size-fill); }
.look { --family: var(--look); }
.arm { stroke: var(--ink-2); stroke-width: 1; }
.handle { fill: var(--paper); stroke: var(--ink); stroke-width: 1.6; cursor: move; touch-action: none; }
.leaf { position: absolute; width: 20px; height: 20px; margin: -10px 0 0 -10px; border: 0; padding: 0; background: none; border-radius: 50%; display: grid; place-items: center; cursor: move; touch-action: none; }
.leaf.picked { background: var(--playhead-pale); box-shadow: 0 0 0 1.5px var(--playhead); }
.scale { position: absolute; right: 6px; font: 11px var(--mono); color: var(--ink-2); pointer-events: none; }
.top { top: 3px; }
.bottom { bottom: 3px; }
.hint { color: var(--ink-2); margin: 10px 22px; }
</style>
