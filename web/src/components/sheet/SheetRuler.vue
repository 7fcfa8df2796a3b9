<script setup lang="ts">
/** The ruler: frames, the playhead one can drag, and the play range. */
import { computed, ref } from "vue";
import { rulerStep } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ perFrame: number; names: number; air: number }>();
const playback = usePlayback();
const selection = useSelection();
const ruler = ref<HTMLElement>();

const TABS = [
  { name: "sheet" as const, label: "Sheet", about: "Lanes with leaves: when things happen" },
  { name: "curves" as const, label: "Curves", about: "Values over time, with keys and handles to drag" },
];
const step = computed(() => rulerStep(props.perFrame, playback.fps));
const labels = computed(() => Array.from({ length: Math.floor(playback.last / step.value) + 1 }, (_, i) => i * step.value));
const minor = computed(() => {
  const fine = [1, 2, 3, 4, 5, 6, 10, 12].find((n) => step.value % n === 0 && n * props.perFrame >= 7 && n < step.value);
  return fine ? Array.from({ length: Math.floor(playback.last / fine) + 1 }, (_, i) => i * fine).filter((f) => f % step.value) : [];
});
const x = (frame: number): string => `${props.air + frame * props.perFrame}px`;
const part = computed(() => playback.from > 0 || playback.to < playback.last);

function scrub(event: PointerEvent): void {
  if (event.button !== 0) return;
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  const go = (e: PointerEvent): void => playback.goTo((e.clientX - ruler.value!.getBoundingClientRect().left - props.air) / props.perFrame);
  go(event);
  target.addEventListener("pointermove", go);
  target.addEventListener("pointerup", () => target.removeEventListener("pointermove", go), { once: true });
}
</script>

<template>
  <div class="head">
    <div class="names" :style="{ width: `${names}px` }"><div role="tablist" aria-label="Time">
        <button v-for="tab in TABS" :key="tab.name" class="tab" role="tab" :aria-selected="selection.sheetTab === tab.name" :class="{ on: selection.sheetTab === tab.name }" :title="tab.about" @click="selection.sheetTab = tab.name">{{ tab.label }}</button>
      </div>
      <button v-if="selection.sheetTab === 'sheet'" class="chip only" :class="{ on: selection.onlyMoving }" role="switch" :aria-checked="selection.onlyMoving" title="Leave out objects without keys" @click="selection.onlyMoving = !selection.onlyMoving">only keyed</button>
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
      title="Drag to move the playhead"
      @pointerdown="scrub"
      @keydown.left.prevent="playback.goTo(playback.frame - 1)"
      @keydown.right.prevent="playback.goTo(playback.frame + 1)"
    >
      <span v-if="part" class="range" :style="{ left: x(playback.from), width: `${(playback.to - playback.from) * perFrame}px` }" />
      <span v-for="frame in minor" :key="`m${frame}`" class="tick" :style="{ left: x(frame) }" />
      <span v-for="frame in labels" :key="frame" class="mark" :style="{ left: x(frame) }">{{ frame }}</span>
      <span class="flag" :style="{ left: x(playback.frame) }">{{ playback.frame }}</span>
    </div>
  </div>
</template>

<style scoped>
.head { display: flex; height: 28px; flex: none; border-bottom: 1px solid var(--line); }
.names { flex: none; display: flex; align-items: center; justify-content: space-between; padding: 0 10px 0 12px; }
.only { padding: 0 8px; font-size: 11.5px; color: var(--ink-2); }
.only.on { background: var(--travel-pale); border-color: var(--travel); color: var(--travel); }
.tab { border: 0; border-bottom: 2px solid transparent; background: none; padding: 1px 2px; margin-right: 10px; font: 600 13px var(--heading); color: var(--ink-2); cursor: pointer; }
.tab.on { color: var(--travel); border-color: var(--travel); }
.ruler { position: relative; flex: 1; cursor: ew-resize; overflow: hidden; touch-action: none; outline-offset: -2px; }
.mark { position: absolute; bottom: 0; height: 15px; border-left: 1px solid #b9ad93; padding-left: 4px; font: 11px var(--mono); color: var(--ink-2); line-height: 8px; }
.tick { position: absolute; bottom: 0; height: 6px; border-left: 1px solid #d6cab0; }
.range { position: absolute; bottom: 0; height: 4px; background: var(--travel); opacity: 0.5; border-radius: 2px; }
.flag { position: absolute; top: 2px; transform: translateX(-50%); background: var(--playhead); color: #fff; border-radius: 99px; padding: 1px 8px; font: 700 12px var(--mono); }
</style>
