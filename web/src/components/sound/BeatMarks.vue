<script setup lang="ts">
/** Markers on the ruler, to drag, and the lines of beats and markers down through the lanes. */
import { computed, ref } from "vue";
import type { Marker } from "@/api/types";
import { beginDrag } from "@/composables/useDrag";
import { usePlayback } from "@/stores/playback";
import { useSounds } from "@/stores/sounds";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

const sounds = useSounds();
const playback = usePlayback();
const time = useTimeView();
/** A marker that is dragged, and where to. */
const held = ref<{ from: number; to: number } | null>(null);
const x = (frame: number): number => AIR + frame * time.perFrame - time.scroll;
const seen = (frame: number): boolean => x(frame) >= 0 && x(frame) <= time.room + 2 * AIR;
/** Beats that are too close to distinguish are not drawn. */
const beats = computed(() => {
  const near = sounds.beatFrames.filter((one) => seen(one.frame));
  return near.length * 4 < time.room ? near : near.filter((one) => one.bar);
});
const shown = computed(() =>
  sounds.markers
    .map((one) => ({ ...one, at: held.value?.from === one.frame ? held.value.to : one.frame }))
    .filter((one) => seen(one.at)),
);

function drag(event: PointerEvent, one: Marker): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const from = event.clientX;
  const move = (e: PointerEvent): void => {
    const to = Math.round(one.frame + (e.clientX - from) / time.perFrame);
    held.value = { from: one.frame, to: Math.min(Math.max(to, 0), playback.last) };
  };
  const end = async (kept: boolean): Promise<void> => {
    const to = held.value?.to ?? one.frame;
    if (kept && to === one.frame) playback.goTo(one.frame);
    else if (kept) await moveTo(one, to);
    held.value = null;
  };
  beginDrag(event, { move, end: (kept) => void end(kept) });
}
const moveTo = (one: Marker, frame: number): Promise<unknown> =>
  sounds.setMarkers(
    sounds.markers
      .filter((other) => other.frame !== frame || other.frame === one.frame)
      .map((other) => (other.frame === one.frame ? { ...other, frame } : other)),
  );
const remove = (one: Marker): void =>
  void sounds.setMarkers(sounds.markers.filter((other) => other.frame !== one.frame));
</script>

<template>
  <div class="marks" :style="{ left: `${NAMES}px` }">
    <span
      v-for="one in beats"
      :key="one.frame"
      class="beat"
      :class="{ bar: one.bar }"
      :style="{ left: `${x(one.frame)}px` }"
    />
    <template v-for="one in shown" :key="`m${one.frame}`">
      <span class="line" :style="{ left: `${x(one.at)}px` }" />
      <button
        class="marker"
        :style="{ left: `${x(one.at)}px` }"
        :aria-label="`Marker at frame ${one.at}${one.name ? `: ${one.name}` : ''}`"
        :title="`${one.name || 'Marker'} at frame ${one.at}. Drag it; leaves snap to it. Delete, or a double click, takes it away`"
        @pointerdown="drag($event, one)"
        @dblclick.stop="remove(one)"
        @keydown.delete.prevent.stop="remove(one)"
        @keydown.left.prevent.stop="moveTo(one, Math.max(0, one.frame - 1))"
        @keydown.right.prevent.stop="moveTo(one, Math.min(playback.last, one.frame + 1))"
      >
        <span v-if="one.name">{{ one.name }}</span>
      </button>
    </template>
  </div>
</template>

<style scoped>
.marks {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}
.beat {
  position: absolute;
  top: 24px;
  bottom: 0;
  border-left: 1px dotted #b9ad9388;
}
.beat.bar {
  border-left: 1px solid #b9ad9399;
}
.line {
  position: absolute;
  top: 26px;
  bottom: 0;
  border-left: 1px dashed var(--size);
  opacity: 0.6;
}
/* A drop, as of resin on a stem. */
.marker {
  position: absolute;
  top: 14px;
  width: 11px;
  height: 14px;
  margin-left: -5.5px;
  padding: 0;
  border: 1.5px solid var(--paper);
  border-radius: 0 55% 55% 55%;
  transform: rotate(45deg) scale(0.85);
  background: var(--size);
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
}
.marker span {
  position: absolute;
  /* Above the numbers of the ruler; the drop it belongs to is turned. */
  left: -3px;
  top: -14px;
  line-height: 10px;
  transform: rotate(-45deg);
  transform-origin: left center;
  font-size: 10px;
  color: #8f4e07;
  white-space: nowrap;
}
</style>
