<script setup lang="ts">
/** A sound on the time sheet: its waveform, moved by its middle and trimmed by its ends. */
import { useElementSize } from "@vueuse/core";
import { computed, ref, watchEffect } from "vue";
import type { Edit, KeptSound } from "@/api/types";
import VineIcon from "@/components/common/VineIcon.vue";
import { beginDrag } from "@/composables/useDrag";
import { untilOf } from "@/geometry/hearing";
import { nearest } from "@/geometry/snapping";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const props = defineProps<{ sound: KeptSound }>();
const HIGH = 34;
/** Columns a second of the picture of a sound, as the service makes it; and how near a sound snaps, px. */
const [COLUMNS, REACH] = [100, 6];
const scene = useScene();
const sounds = useSounds();
const playback = usePlayback();
const time = useTimeView();
const canvas = ref<HTMLCanvasElement>();
const track = ref<HTMLElement>();
const { width } = useElementSize(track);
/** What it is while it is dragged. */
const held = ref<{ first: number; begin: number; end: number } | null>(null);

const now = computed(
  () => held.value ?? { first: props.sound.first, begin: props.sound.begin, end: untilOf(props.sound) },
);
const over = computed(() => now.value.first + (now.value.end - now.value.begin) * playback.fps);
const x = (frame: number): number => AIR + frame * time.perFrame - time.scroll;
const box = computed(() => ({
  left: `${x(now.value.first)}px`,
  width: `${(over.value - now.value.first) * time.perFrame}px`,
}));
/** Where its ends are taken hold of: at the edge of the scene, where they lie outside of it. */
const grips = computed(() => ({
  begin: Math.max(0, now.value.first),
  end: Math.min(playback.last + 1, over.value),
}));
const strokes = computed(() => {
  const by = now.value.first - props.sound.first - (now.value.begin - props.sound.begin) * playback.fps;
  return (sounds.beats.get(props.sound.id)?.frames ?? [])
    .map((frame) => frame + (held.value ? by : 0))
    .filter((frame) => frame >= now.value.first && frame < over.value)
    .map((frame) => x(frame))
    .filter((at) => at >= 0 && at <= width.value);
});

watchEffect(
  () => {
    const at = canvas.value;
    const peaks = sounds.peaks.get(props.sound.file);
    if (!at || !width.value) return;
    const dense = window.devicePixelRatio || 1;
    [at.width, at.height] = [Math.round(width.value * dense), Math.round(HIGH * dense)];
    const brush = at.getContext("2d");
    if (!brush || !peaks) return;
    brush.fillStyle = getComputedStyle(at).color;
    const { first, begin } = now.value;
    const loud = Math.min(1.6, Math.max(0.15, props.sound.gain));
    for (let px = 0; px < at.width; px++) {
      const [from, to] = [px, px + 1].map((one) => {
        const frame = (one / dense - AIR + time.scroll) / time.perFrame;
        return (begin + (frame - first) / playback.fps) * COLUMNS;
      }) as [number, number];
      if (to <= begin * COLUMNS || from >= now.value.end * COLUMNS) continue;
      let [low, high] = [127, -127];
      const last = Math.min(peaks.length / 2 - 1, Math.max(Math.floor(from), Math.ceil(to) - 1));
      for (let n = Math.max(0, Math.floor(from)); n <= last; n++) {
        low = Math.min(low, peaks[2 * n]!);
        high = Math.max(high, peaks[2 * n + 1]!);
      }
      if (high < low) continue;
      const half = at.height / 2;
      const scale = (half - 2 * dense) / 127;
      const top = half - Math.min(127, high * loud) * scale;
      brush.fillRect(px, top, 1, Math.max(dense, half - Math.max(-127, low * loud) * scale - top));
    }
  },
  { flush: "post" },
);

type Part = "whole" | "begin" | "end";
/** The sound after one part of it was moved by some frames. */
function moved(part: Part, by: number): { first: number; begin: number; end: number } {
  const { first, begin, end } = { first: props.sound.first, begin: props.sound.begin, end: untilOf(props.sound) };
  const fps = playback.fps;
  if (part === "whole") return { first: first + by, begin, end };
  if (part === "begin") {
    const frames = Math.min(Math.max(by, Math.ceil(-begin * fps)), Math.floor((end - begin) * fps) - 1);
    return { first: first + frames, begin: Math.max(0, begin + frames / fps), end };
  }
  return { first, begin, end: Math.min(Math.max(end + by / fps, begin + 1 / fps), props.sound.seconds) };
}
const editOf = (part: Part, to: NonNullable<typeof held.value>): Edit => {
  if (part === "whole") return sounds.set(props.sound, { first: to.first });
  if (part === "begin") return sounds.set(props.sound, { first: to.first, begin: to.begin });
  return sounds.set(props.sound, { end: to.end >= props.sound.seconds - 1e-6 ? null : to.end });
};

function drag(event: PointerEvent, part: Part): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  sounds.pickedId = props.sound.id;
  const from = event.clientX;
  const edge = part === "end" ? over.value : now.value.first;
  // From the edge of the scene, what lies outside goes first.
  const outside = held.value || part === "whole" ? 0 : grips.value[part] - edge;
  const snaps = [
    { frame: 0 },
    { frame: playback.last + 1 },
    { frame: playback.frame },
    ...sounds.markers.map(({ frame }) => ({ frame })),
    ...sounds.list.filter((one) => one.id !== props.sound.id).map((one) => ({ frame: one.first })),
  ];
  const move = (e: PointerEvent): void => {
    const free = (e.clientX - from) / time.perFrame;
    const to = free === 0 ? edge : edge + outside + free;
    const found = e.altKey ? null : nearest(to, snaps, REACH / time.perFrame);
    const by = Math.round((found ? found.frame : to) - edge);
    const next = moved(part, by);
    if (held.value?.first === next.first && held.value.begin === next.begin && held.value.end === next.end) return;
    held.value = next;
    void scene.lookAt([editOf(part, next)]);
  };
  const end = async (kept: boolean): Promise<void> => {
    const done = held.value;
    if (kept && done) await scene.edit([editOf(part, done)]);
    else if (done) scene.letGo();
    held.value = null;
  };
  beginDrag(event, { move, end: (kept) => void end(kept) });
}
const nudge = (part: Part, by: number): void => void scene.edit([editOf(part, moved(part, by))]);
const said = computed(() => `${props.sound.name}: heard from frame ${now.value.first} to ${Math.round(over.value)}`);
function pick(): void {
  sounds.pickedId = props.sound.id;
  if (!sounds.open) void sounds.toggle();
}
</script>

<template>
  <div class="lane" :class="{ on: sounds.picked?.id === sound.id && sounds.open, off: !sound.on }" role="listitem">
    <div class="names" :style="{ width: `${NAMES}px` }">
      <button
        class="round small"
        :title="sound.on ? `Mute ${sound.name}` : `Hear ${sound.name} again`"
        :aria-label="sound.on ? `Mute ${sound.name}` : `Hear ${sound.name}`"
        :aria-pressed="!sound.on"
        @click="sounds.change(sound, { on: !sound.on })"
      >
        <VineIcon :name="sound.on ? 'sound' : 'silent'" />
      </button>
      <button class="name" :title="`${said}. Its loudness and its beats`" @click="pick">{{ sound.name }}</button>
    </div>
    <div ref="track" class="track">
      <button
        class="box"
        :style="box"
        :aria-label="`Move ${sound.name}: begins at frame ${now.first}`"
        :title="`${said}. Drag it, or move it by the arrow keys; with Alt it snaps to nothing`"
        @pointerdown="drag($event, 'whole')"
        @keydown.left.prevent.stop="nudge('whole', -1)"
        @keydown.right.prevent.stop="nudge('whole', 1)"
        @keydown.delete.prevent.stop="sounds.remove(sound)"
      />
      <canvas ref="canvas" aria-hidden="true" />
      <span v-for="at in strokes" :key="at" class="stroke" :style="{ left: `${at}px` }" />
      <button
        v-for="side in ['begin', 'end'] as const"
        :key="side"
        class="end"
        :class="side"
        :style="{ left: `${x(grips[side]) - (side === 'end' ? 8 : 0)}px` }"
        :aria-label="`${side === 'begin' ? 'Beginning' : 'End'} of ${sound.name}`"
        :title="`Drag to trim ${sound.name}; what is left stays on its frames`"
        @pointerdown="drag($event, side)"
        @keydown.left.prevent.stop="nudge(side, -1)"
        @keydown.right.prevent.stop="nudge(side, 1)"
      />
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: flex;
  height: 35px;
  border-top: 1px solid var(--line);
  background: var(--paper-2);
}
.names {
  flex: none;
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 8px;
}
.small {
  width: 24px;
  height: 24px;
}
.name {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: var(--ink);
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.on .name {
  font-weight: 600;
}
.track {
  position: relative;
  flex: 1;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 34px;
  color: var(--look);
  pointer-events: none;
}
.off canvas {
  color: #b9ad93;
}
.box {
  position: absolute;
  top: 1px;
  bottom: 1px;
  padding: 0;
  border: 1px solid transparent;
  border-radius: 7px;
  background: var(--look-pale);
  opacity: 0.75;
  cursor: grab;
  touch-action: none;
}
.off .box {
  background: var(--paper-3);
}
.on .box,
.box:hover {
  border-color: var(--look);
}
.stroke {
  position: absolute;
  top: 2px;
  height: 5px;
  border-left: 1.5px solid var(--ink-2);
  pointer-events: none;
}
.end {
  position: absolute;
  top: 6px;
  width: 8px;
  height: 22px;
  padding: 0;
  border: 0;
  background: var(--look);
  opacity: 0.35;
  cursor: ew-resize;
  touch-action: none;
}
.begin {
  border-radius: 0 4px 4px 0;
}
.end.end:not(.begin) {
  border-radius: 4px 0 0 4px;
}
.end:hover,
.end:focus-visible {
  opacity: 1;
}
</style>
