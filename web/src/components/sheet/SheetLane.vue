<script setup lang="ts">
/** One lane: a stem as thick as the speed, a leaf for each key, and past the keys a pale stem with marks of the turns. */
import { computed, ref, watch } from "vue";
import LeafMark from "@/components/common/LeafMark.vue";
import StretchGrips from "@/components/sheet/StretchGrips.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { keysAt, type Picked } from "@/composables/useLeafActions";
import type { Lane } from "@/composables/useLanes";
import { stemPath } from "@/geometry/curves";
import { inSeconds } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ lane: Lane; perFrame: number; opened: boolean; sliding: { frames: ReadonlySet<number>; by: number } | null }>();
const emit = defineEmits<{ open: []; grip: [event: PointerEvent, lane: Lane, frame: number]; nudge: [lane: Lane, frame: number, by: number]; remove: [picked: Picked[]] }>();
const scene = useScene();
const selection = useSelection();
const laneElement = ref<HTMLElement>();
const playback = usePlayback();
const vocabulary = useVocabulary();

const picked = computed(() => selection.objectId === props.lane.thing.id && (props.lane.row ? selection.row?.name === props.lane.row.name : false));
const first = computed(() => Math.max(0, props.lane.frames[0] ?? 0));
const last = computed(() => Math.min(playback.last, props.lane.frames.at(-1) ?? 0));
const moving = computed(() => props.lane.frames.length > 0 && !props.lane.lone);
const stem = computed(() => (moving.value ? stemPath(props.lane.speed, first.value, last.value, props.lane.most, props.perFrame) : ""));
const outside = computed(() =>
  moving.value ? stemPath(props.lane.speed, 0, first.value, props.lane.most, props.perFrame) + stemPath(props.lane.speed, last.value, playback.last, props.lane.most, props.perFrame) : "",
);
const leaves = computed(() => {
  const own = props.sliding;
  const list = props.lane.frames.map((frame) => ({ frame, at: own?.frames.has(frame) ? frame + own.by : frame }));
  return list.filter(({ at }) => at >= -1 && at <= playback.last + 1);
});
const beyond = computed(() => props.lane.frames.filter((frame) => frame > playback.last).length);
const isPicked = (frame: number): boolean => selection.objectId === props.lane.thing.id && selection.leaves.has(frame) && (!props.lane.row || picked.value);

function leafHint(frame: number): string {
  const row = props.lane.row;
  const values = (row?.channels ?? []).flatMap((channel) => {
    const key = props.lane.thing.channels?.[channel.name]?.keys.find((one) => one.frame === frame);
    if (!key) return [];
    const value = typeof key.value === "number" ? `${Number((key.value * channel.shown).toFixed(2))}${channel.unit === "px" ? "" : channel.unit}` : key.value;
    return [`${channel.label} ${value}, ${vocabulary.easeLabel(key.ease)}`];
  });
  return [`Frame ${frame} (${inSeconds(frame, playback.fps)})`, ...values, "Drag to slide it in time; Shift picks several; Delete takes it away."].join("\n");
}

function pick(): void {
  selection.pick(props.lane.thing.id);
  if (props.lane.row) selection.pickRow(props.lane.row.name);
}

watch(() => !props.lane.row && selection.objectId === props.lane.thing.id, (chosen) => chosen && laneElement.value?.scrollIntoView({ block: "nearest" }), { flush: "post", immediate: true });

/** Delete the picked leaves. On the lane of a whole object a leaf stands for the keys of all its channels at that frame. */
function remove(frame: number): void {
  const { thing, row, channels } = props.lane;
  const frames = row && isPicked(frame) ? selection.leaves : new Set([frame]);
  selection.pick(thing.id);
  emit("remove", keysAt(thing, channels, frames));
}
</script>

<template>
  <div ref="laneElement" class="lane" :class="[lane.family, { object: !lane.row, picked, chosen: selection.objectId === lane.thing.id }]" role="listitem">
    <div class="name" :class="{ sub: lane.row }" :style="{ paddingLeft: `${(lane.row ? 34 : 6) + lane.depth * 14}px` }" @click="pick">
      <button v-if="!lane.row" class="fold" :disabled="!lane.channels.length" :aria-expanded="opened" :aria-label="`${opened ? 'Close' : 'Open'} the rows of ${lane.thing.name}`" @click.stop="emit('open')"><VineIcon name="after" :class="{ turned: opened || selection.objectId === lane.thing.id }" /></button>
      <span class="text">{{ lane.row?.name ?? lane.thing.name }}</span>
    </div>
    <div class="track" @pointerdown="pick">
      <svg class="stems" aria-hidden="true">
        <g transform="translate(0 12)">
          <path class="outside" :d="outside" />
          <path class="stem" :d="stem" />
          <line v-for="turn in lane.turns" :key="turn" class="turn-mark" :x1="turn * perFrame" :x2="turn * perFrame" y1="-7" y2="7" />
        </g>
      </svg>
      <span v-if="lane.row && lane.after" class="after" :class="{ left: last > playback.last * 0.85 }" :style="{ left: `${last * perFrame}px` }">{{ lane.after }}</span>
      <span v-if="lane.row && lane.lone && scene.motion" class="lone" :class="{ left: (lane.frames[0] ?? 0) > playback.last * 0.6 }" :style="{ left: `${(lane.frames[0] ?? 0) * perFrame}px` }">one key moves nothing yet: go to another frame and change it there</span>
      <button
        v-for="{ frame, at } in leaves"
        :key="frame"
        class="leaf"
        :class="{ picked: isPicked(frame) }"
        :style="{ left: `${at * perFrame}px` }"
        :aria-label="`Key of ${lane.thing.name}${lane.row ? ` ${lane.row.name}` : ''} at frame ${frame}`"
        :aria-pressed="isPicked(frame)"
        :title="leafHint(frame)"
        :data-frame="frame"
        @pointerdown="emit('grip', $event, lane, frame)"
        @dblclick="playback.goTo(frame)"
        @keydown.enter.prevent="playback.goTo(frame)"
        @keydown.left.prevent.stop="emit('nudge', lane, frame, $event.shiftKey ? -10 : -1)"
        @keydown.right.prevent.stop="emit('nudge', lane, frame, $event.shiftKey ? 10 : 1)"
        @keydown.delete.prevent.stop="remove(frame)"
      >
        <LeafMark state="here" :family="lane.family" />
      </button>
      <StretchGrips v-if="lane.row && picked && selection.leaves.size > 1" :per-frame="perFrame" />
      <span v-if="beyond" class="beyond" title="Keys after the last frame of the scene">{{ beyond }} ›</span>
    </div>
  </div>
</template>

<style scoped>
.lane { display: flex; height: 24px; content-visibility: auto; contain-intrinsic-height: 24px; }
.lane.object:nth-child(even) .track { background: #f6f0e480; }
.lane.picked.travel { background: var(--travel-pale); }
.lane.picked.turn { background: var(--turn-pale); }
.lane.picked.size { background: var(--size-pale); }
.lane.picked.look { background: var(--look-pale); }
.name { width: var(--names); flex: none; display: flex; align-items: center; gap: 2px; padding-left: 6px; cursor: pointer; overflow: hidden; }
.name.sub { color: var(--ink-2); }
.text { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.chosen.object .text { font-weight: 600; }
.fold { border: 0; background: none; padding: 0; display: grid; cursor: pointer; color: var(--ink-2); }
.fold:disabled { visibility: hidden; }
.fold .icon { width: 16px; height: 16px; }
.turned { transform: rotate(90deg); }
.track { position: relative; flex: 1; margin: 0 var(--air); min-width: 0; }
.stems { position: absolute; inset: 0; width: 100%; height: 100%; overflow: visible; }
.travel { --stem: var(--travel); }
.turn { --stem: var(--turn); }
.size { --stem: var(--size-fill); }
.look { --stem: var(--look); }
.stem { fill: var(--stem); opacity: 0.42; }
.outside { fill: var(--stem); opacity: 0.17; }
.turn-mark { stroke: var(--stem); stroke-width: 1.4; stroke-dasharray: 2 2; opacity: 0.85; }
.leaf { position: absolute; top: 2px; width: 20px; height: 20px; margin-left: -10px; border: 0; background: none; padding: 0; display: grid; place-items: center; cursor: ew-resize; border-radius: 50%; touch-action: none; }
.leaf.picked { background: var(--playhead-pale); box-shadow: 0 0 0 1.5px var(--playhead); }
.after { position: absolute; top: 3px; margin-left: 26px; font-size: 10.500px; color: var(--ink-2); background: color-mix(in srgb, var(--paper) 82%, transparent); padding: 1px 4px; border-radius: 4px; white-space: nowrap; pointer-events: none; }
.lone { position: absolute; top: 3px; margin-left: 16px; font-size: 12px; color: var(--ink-2); white-space: nowrap; pointer-events: none; }
.after.left { transform: translateX(calc(-100% - 52px)); }
.lone.left { transform: translateX(calc(-100% - 32px)); }
.beyond { position: absolute; right: -20px; top: 4px; font-size: 11px; color: var(--ink-2); }
</style>
