<script setup lang="ts">
/**
 * One lane: a stem as thick as the speed, a leaf for each key, and past the keys a pale stem with marks of the turns.
 */
import { computed, ref, watch } from "vue";
import { quoted, wordsIn } from "@/api/channels";
import { isDial } from "@/api/kinds";
import LaneName from "@/components/sheet/LaneName.vue";
import RetimeBar from "@/components/sheet/RetimeBar.vue";
import SpanBar from "@/components/sheet/SpanBar.vue";
import SpanParts from "@/components/sheet/SpanParts.vue";
import type { Span } from "@/api/spans";
import type { Key } from "@/api/types";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { stemPath } from "@/geometry/curves";
import { inSeconds } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { keyAt, keysAt, type Picked, usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ lane: Lane; perFrame: number; opened: boolean }>();
const emit = defineEmits<{
  open: [];
  grip: [event: PointerEvent, lane: Lane, frame: number];
  nudge: [lane: Lane, frame: number, by: number];
  remove: [picked: Picked[]];
}>();
const scene = useScene();
const selection = useSelection();
const picks = usePicks();
const laneElement = ref<HTMLElement>();
const playback = usePlayback();
const vocabulary = useVocabulary();

const picked = computed(
  () =>
    selection.objectId === props.lane.thing.id &&
    (props.lane.row ? selection.row?.name === props.lane.row.name : false),
);
/** Whether its object is picked, alone or among others. */
const chosen = computed(() => selection.objectId === props.lane.thing.id || selection.also.has(props.lane.thing.id));
const dial = computed(() => isDial(props.lane.thing));
/** Its span before it was changed, until it is said what becomes of its descendants. */
const spanBefore = ref<Span | null>(null);
/** What the words about an end take beside the last key, px: without room to its right they stand left of it. */
const WORDS = 74;
const first = computed(() => Math.max(0, props.lane.frames[0] ?? 0));
const last = computed(() => Math.min(playback.last, props.lane.frames.at(-1) ?? 0));
const moving = computed(() => props.lane.frames.length > 0 && !props.lane.lone);
const stem = computed(() =>
  moving.value ? stemPath(props.lane.speed, first.value, last.value, props.lane.most, props.perFrame) : "",
);
const outside = computed(() =>
  !props.lane.frames.length && props.lane.most > 0
    ? stemPath(props.lane.speed, 0, playback.last, props.lane.most, props.perFrame)
    : moving.value
      ? stemPath(props.lane.speed, 0, first.value, props.lane.most, props.perFrame) +
        stemPath(props.lane.speed, last.value, playback.last, props.lane.most, props.perFrame)
      : "",
);
const held = computed(
  () =>
    new Set(
      props.lane.frames.filter((frame) =>
        picks.hasAll(keysAt(props.lane.thing, props.lane.channels, new Set([frame]))),
      ),
    ),
);
const leaves = computed(() =>
  props.lane.frames
    .filter((frame) => frame >= -1 && frame <= playback.last + 1)
    .map((frame) => ({ frame, held: held.value.has(frame) })),
);
/** Where it meets something; where that comes thick and fast, those that there is room for. */
const contacts = computed(() => {
  const shown: number[] = [];
  for (const frame of props.lane.contacts)
    if ((frame - (shown.at(-1) ?? -Infinity)) * props.perFrame >= 10) shown.push(frame);
  return shown;
});
const beyond = computed(() => props.lane.frames.filter((frame) => frame > playback.last + 1).length);

function shown(value: Key["value"], factor: number, unit: string): string {
  const said = wordsIn(value);
  if (said !== null) return quoted(said);
  if (Array.isArray(value)) return value.map((part) => Number(Number(part).toFixed(1))).join(", ");
  return typeof value === "number"
    ? `${Number((value * factor).toFixed(2))}${unit === "px" ? "" : unit}`
    : String(value);
}

function leafHint(frame: number): string {
  const values = (props.lane.row?.channels ?? []).flatMap((channel) => {
    const key = keyAt(props.lane.thing, channel.name, frame);
    return key
      ? [`${channel.label} ${shown(key.value, channel.shown, channel.unit)}, ${vocabulary.easeLabel(key.ease)}`]
      : [];
  });
  return [
    `Frame ${Number(frame.toFixed(2))} (${inSeconds(frame, playback.fps)})`,
    ...values,
    "Drag to slide it in time; Alt slides freely; Shift picks several; Delete takes it away.",
  ].join("\n");
}

watch(
  () => selection.objectId,
  () => (spanBefore.value = null),
);
watch(
  () => (!props.lane.row || dial.value) && selection.objectId === props.lane.thing.id,
  (chosen) => chosen && laneElement.value?.scrollIntoView({ block: "nearest" }),
  { flush: "post", immediate: true },
);

/** Delete the picked keys, if this leaf is one of them, else those of this leaf. */
function remove(frame: number): void {
  if (held.value.has(frame)) {
    emit("remove", picks.keys);
    return;
  }
  selection.pick(props.lane.thing.id);
  emit("remove", keysAt(props.lane.thing, props.lane.channels, new Set([frame])));
}
</script>

<template>
  <div ref="laneElement" class="lane" :class="[lane.family, { object: !lane.row, picked }]" role="listitem">
    <LaneName :lane="lane" :opened="opened" :chosen="chosen" @open="emit('open')" />
    <div class="track">
      <div class="strip">
        <svg class="stems" aria-hidden="true">
          <g transform="translate(0 12)">
            <path class="outside" :d="outside" />
            <path class="stem" :d="stem" />
            <path
              v-for="frame in contacts"
              :key="`contact ${frame}`"
              class="contact"
              :d="`M${frame * perFrame - 4} 4q4 6 8 0`"
            >
              <title>It meets something at frame {{ Number(frame.toFixed(2)) }}</title>
            </path>
            <line
              v-for="turn in lane.turns"
              :key="turn"
              class="turn-mark"
              :x1="turn * perFrame"
              :x2="turn * perFrame"
              y1="-7"
              y2="7"
            />
          </g>
        </svg>
        <SpanBar
          v-if="!lane.row"
          :thing="lane.thing"
          :per-frame="perFrame"
          :grips="selection.objectId === lane.thing.id"
          @changed="spanBefore ??= $event"
        />
        <SpanParts
          v-if="!lane.row && !dial"
          :thing="lane.thing"
          :per-frame="perFrame"
          :picked="selection.objectId === lane.thing.id"
          :last-key="lane.frames.at(-1) ?? 0"
          :was="spanBefore"
          @done="spanBefore = null"
        />
        <span
          v-if="lane.row && lane.after"
          class="after"
          :class="{ left: (playback.last - last) * perFrame < WORDS }"
          :style="{ left: `${last * perFrame}px` }"
          >{{ lane.after }}</span
        >
        <span
          v-if="lane.row && lane.lone && scene.motion"
          class="lone"
          :class="{ left: (lane.frames[0] ?? 0) > playback.last * 0.6 }"
          :style="{ left: `${(lane.frames[0] ?? 0) * perFrame}px` }"
          >One key makes no motion yet. Go to another frame and change the value there.</span
        >
        <button
          v-for="leaf in leaves"
          :key="leaf.frame"
          class="sheet-leaf"
          :class="{ picked: leaf.held }"
          :style="{ left: `${leaf.frame * perFrame}px` }"
          :aria-label="`Key of ${lane.thing.name}${lane.row ? ` ${lane.row.name}` : ''} at frame ${Number(leaf.frame.toFixed(2))}`"
          :aria-pressed="leaf.held"
          :title="leafHint(leaf.frame)"
          :data-frame="leaf.frame"
          @pointerdown="emit('grip', $event, lane, leaf.frame)"
          @dblclick="playback.goTo(leaf.frame)"
          @keydown.enter.prevent="playback.goTo(leaf.frame)"
          @keydown.left.prevent.stop="emit('nudge', lane, leaf.frame, $event.shiftKey ? -10 : -1)"
          @keydown.right.prevent.stop="emit('nudge', lane, leaf.frame, $event.shiftKey ? 10 : 1)"
          @keydown.delete.prevent.stop="remove(leaf.frame)"
        />
        <RetimeBar v-if="!dial && selection.objectId === lane.thing.id" :lane="lane" :per-frame="perFrame" />
      </div>
      <span v-if="beyond" class="beyond" title="Keys after the end of the scene">{{ beyond }} ›</span>
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: flex;
  height: 24px;
  content-visibility: auto;
  contain-intrinsic-height: 24px;
}
.lane.object.even .track {
  background: #f6f0e480;
}
.lane.picked.travel {
  background: var(--travel-pale);
}
.lane.picked.turn {
  background: var(--turn-pale);
}
.lane.picked.size {
  background: var(--size-pale);
}
.lane.picked.look {
  background: var(--look-pale);
}
/* Air on both sides lies inside, so that leaves at the ends are whole and nothing is drawn over the names. */
.track {
  position: relative;
  flex: 1;
  padding: 0 var(--air);
  min-width: 0;
  overflow: clip;
}
.strip {
  position: relative;
  height: 100%;
  transform: translateX(calc(-1 * var(--scroll)));
}
.stems {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
}
.travel {
  --stem: var(--travel);
}
.turn {
  --stem: var(--turn);
}
.size {
  --stem: var(--size-fill);
}
.look {
  --stem: var(--look);
}
.stem {
  fill: var(--stem);
  opacity: 0.42;
}
.outside {
  fill: var(--stem);
  opacity: 0.17;
}
.contact {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-linecap: round;
}
.turn-mark {
  stroke: var(--stem);
  stroke-width: 1.4;
  stroke-dasharray: 2 2;
  opacity: 0.85;
}
.sheet-leaf {
  position: absolute;
  top: 2px;
  width: 20px;
  height: 20px;
  margin-left: -10px;
  border: 0;
  background: center / 20px no-repeat;
  padding: 0;
  cursor: ew-resize;
  border-radius: 50%;
  touch-action: none;
}
.after {
  position: absolute;
  top: 3px;
  margin-left: 26px;
  font-size: 10.5px;
  color: var(--ink-2);
  background: color-mix(in srgb, var(--paper) 82%, transparent);
  padding: 1px 4px;
  border-radius: 4px;
  white-space: nowrap;
  pointer-events: none;
}
.lone {
  position: absolute;
  top: 3px;
  margin-left: 16px;
  font-size: 12px;
  color: var(--ink-2);
  white-space: nowrap;
  pointer-events: none;
}
.after.left {
  transform: translateX(calc(-100% - 52px));
}
.lone.left {
  transform: translateX(calc(-100% - 32px));
}
.beyond {
  position: absolute;
  right: 2px;
  top: 4px;
  font-size: 11px;
  color: var(--ink-2);
}
</style>
