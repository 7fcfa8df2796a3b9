<script setup lang="ts">
/** The ruler: frames, the playhead one can drag, the play range, and where the view is in the scene when zoomed. */
import { beginDrag } from "@/composables/useDrag";
import { computed, ref } from "vue";
import SheetMenu from "@/components/sheet/SheetMenu.vue";
import { rulerStep } from "@/geometry/frames";
import { nearest } from "@/geometry/snapping";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const props = defineProps<{
  /** Frames of keys the playhead snaps to while Shift is held. */ stops: readonly number[];
}>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();
const time = useTimeView();
const ruler = ref<HTMLElement>();

const TABS = [
  { name: "sheet" as const, label: "Sheet", about: "Lanes with leaves: the timing of all objects" },
  { name: "curves" as const, label: "Curves", about: "Values over time, with keys and handles to drag" },
  { name: "speed" as const, label: "Speed", about: "How fast it goes over time, to drag faster or slower" },
  { name: "depth" as const, label: "Depth", about: "Depths of the objects, seen from the side" },
  { name: "links" as const, label: "Links", about: "Who drives whom in the whole scene" },
];
/** Depth is visible only through a camera. */
const tabs = computed(() =>
  TABS.filter(({ name }) => name !== "depth" || scene.camera !== null || selection.sheetTab === "depth"),
);
const step = computed(() => rulerStep(time.perFrame, playback.fps));
/** Frames to mark, of those that can be seen. */
function every(distance: number): number[] {
  const begin = Math.max(0, Math.floor(time.first / distance) * distance);
  const end = Math.min(playback.last, time.first + time.shown + distance);
  return Array.from({ length: Math.max(0, Math.floor((end - begin) / distance) + 1) }, (_, i) => begin + i * distance);
}
const labels = computed(() => every(step.value));
const minor = computed(() => {
  const fine = [1, 2, 3, 4, 5, 6, 10, 12].find((n) => step.value % n === 0 && n * time.perFrame >= 7 && n < step.value);
  return fine ? every(fine).filter((f) => f % step.value) : [];
});
const x = (frame: number): string => `${AIR + frame * time.perFrame - time.scroll}px`;
/** Cues that begin together share a mark. */
const cues = computed(() =>
  [...Map.groupBy(scene.head?.cues ?? [], (cue) => cue.first)].map(([first, some]) => ({
    first,
    last: Math.max(...some.map((cue) => cue.last)),
    names: some.map((cue) => cue.name).join(" · "),
    about: some.map((cue) => `Cue ${cue.name}: frames ${cue.first} to ${cue.last}`).join("\n"),
  })),
);
/** Widths in px: of a digit, from a mark to its number, and of the playhead's flag beyond its own number. */
const [DIGIT, BEFORE, AROUND] = [7, 4, 10];
/** Whether the playhead's number lies over that of a mark: digits that look out beside it would be read with it. */
function isCovered(frame: number): boolean {
  const from = (frame - playback.frame) * time.perFrame + BEFORE;
  const half = (String(playback.frame).length * DIGIT) / 2 + AROUND;
  return from < half && from + String(frame).length * DIGIT > -half;
}
const part = computed(() => playback.from > 0 || playback.to < playback.last);

function scrub(event: PointerEvent): void {
  if (event.button !== 0) return;
  const go = (e: PointerEvent): void => {
    const at = (e.clientX - ruler.value!.getBoundingClientRect().left - AIR + time.scroll) / time.perFrame;
    const found = e.shiftKey
      ? nearest(
          at,
          props.stops.map((frame) => ({ frame })),
          12 / time.perFrame,
        )
      : null;
    playback.goTo(found?.frame ?? at);
  };
  go(event);
  beginDrag(event, { move: go });
}

function slide(event: PointerEvent): void {
  const from = event.clientX;
  const first = time.first;
  const move = (e: PointerEvent): void => time.panTo(first + ((e.clientX - from) / time.room) * time.end);
  beginDrag(event, { move });
}
</script>

<template>
  <div class="head">
    <div class="names" :style="{ width: `${NAMES}px` }">
      <div role="tablist" aria-label="Time">
        <button
          v-for="tab in tabs"
          :key="tab.name"
          class="tab"
          role="tab"
          :aria-selected="selection.sheetTab === tab.name"
          :class="{ on: selection.sheetTab === tab.name }"
          :title="tab.about"
          @click="selection.sheetTab = tab.name"
        >
          {{ tab.label }}
        </button>
      </div>
      <SheetMenu />
    </div>
    <div
      ref="ruler"
      class="ruler"
      role="slider"
      tabindex="0"
      aria-label="Playhead"
      :aria-valuenow="playback.frame"
      aria-valuemin="0"
      :aria-valuemax="playback.last"
      :aria-valuetext="`frame ${playback.frame}`"
      title="Drag to move the playhead; hold Shift to jump from key to key"
      @pointerdown="scrub"
      @keydown.left.prevent="playback.goTo(playback.frame - 1)"
      @keydown.right.prevent="playback.goTo(playback.frame + 1)"
    >
      <span
        v-if="part"
        class="range"
        :style="{ left: x(playback.from), width: `${(playback.to - playback.from) * time.perFrame}px` }"
      />
      <span
        v-for="cue in cues"
        :key="cue.first"
        class="cue"
        :style="{ left: x(cue.first), width: `${(cue.last - cue.first) * time.perFrame}px` }"
        :title="cue.about"
        ><span>{{ cue.names }}</span></span
      >
      <span v-for="frame in minor" :key="`m${frame}`" class="tick" :style="{ left: x(frame) }" />
      <span
        v-for="frame in labels"
        :key="frame"
        class="mark"
        :class="{ covered: isCovered(frame) }"
        :style="{ left: x(frame) }"
        >{{ frame }}</span
      >
      <span class="flag" :style="{ left: x(playback.frame) }">{{ playback.frame }}</span>
      <span
        v-if="time.zoomed"
        class="whole"
        title="The part of the scene in view: drag it along"
        @pointerdown.stop="slide"
        ><span
          class="part"
          :style="{
            left: `${(time.first / time.end) * 100}%`,
            width: `${(time.shown / time.end) * 100}%`,
          }"
      /></span>
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  height: 28px;
  flex: none;
  border-bottom: 1px solid var(--line);
}
.names {
  flex: none;
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 2px 0 10px;
  border-right: 1px solid transparent;
  background: var(--paper);
}
[role="tablist"] {
  white-space: nowrap;
}
.tab {
  border: 0;
  border-bottom: 2px solid transparent;
  background: none;
  padding: 1px 1px;
  margin-right: 4px;
  font: 600 12px var(--heading);
  color: var(--ink-2);
  cursor: pointer;
}
.tab.on {
  color: var(--travel);
  border-color: var(--travel);
}
.ruler {
  position: relative;
  flex: 1;
  cursor: ew-resize;
  overflow: hidden;
  touch-action: none;
  outline-offset: -2px;
}
.mark {
  position: absolute;
  bottom: 0;
  height: 15px;
  border-left: 1px solid #b9ad93;
  padding-left: 4px;
  font: 11px var(--mono);
  color: var(--ink-2);
  line-height: 8px;
}
.covered {
  color: transparent;
}
.tick {
  position: absolute;
  bottom: 0;
  height: 6px;
  border-left: 1px solid #d6cab0;
}
.range {
  position: absolute;
  bottom: 0;
  height: 4px;
  background: var(--travel);
  opacity: 0.5;
  border-radius: 2px;
}
.cue {
  position: absolute;
  top: 1px;
  height: 11px;
  border-left: 2px solid var(--look);
  border-bottom: 1.5px solid var(--look);
  border-radius: 0 0 0 4px;
  overflow: hidden;
}
.cue span {
  position: absolute;
  left: 4px;
  top: -1px;
  font-size: 9.5px;
  line-height: 11px;
  color: var(--look);
  white-space: nowrap;
}
.flag {
  position: absolute;
  top: 4px;
  transform: translateX(-50%);
  background: var(--playhead);
  color: #fff;
  border-radius: 99px;
  padding: 1px 8px;
  font: 700 12px var(--mono);
}
.whole {
  position: absolute;
  left: 22px;
  right: 22px;
  top: 0;
  height: 5px;
  background: var(--paper-3);
  border-radius: 3px;
  cursor: grab;
}
.part {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--ink-3);
  border-radius: 3px;
  min-width: 8px;
}
</style>
