<script setup lang="ts">
/** The time sheet: a ruler with the playhead, and below it lanes, curves or speed. */
import { useElementSize } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { isFigure, isParade } from "@/api/kinds";
import CurveView from "@/components/curves/CurveView.vue";
import DepthView from "@/components/camera/DepthView.vue";
import DrivesView from "@/components/links/DrivesView.vue";
import SpeedView from "@/components/curves/SpeedView.vue";
import ClearDialog from "@/components/sheet/ClearDialog.vue";
import LeafActions from "@/components/sheet/LeafActions.vue";
import PasteDialog from "@/components/sheet/PasteDialog.vue";
import CopyLanes from "@/components/parades/CopyLanes.vue";
import { withParts } from "@/picture/boxes";
import { MOST_LANES } from "@/geometry/copyLanes";
import FootLanes from "@/components/figures/FootLanes.vue";
import SheetLane from "@/components/sheet/SheetLane.vue";
import SheetNote from "@/components/notes/SheetNote.vue";
import SheetPlayhead from "@/components/sheet/SheetPlayhead.vue";
import SheetRuler from "@/components/sheet/SheetRuler.vue";
import BeatMarks from "@/components/sound/BeatMarks.vue";
import SoundLanes from "@/components/sound/SoundLanes.vue";
import StretchGrips from "@/components/sheet/StretchGrips.vue";
import { useBoxPick } from "@/composables/useBoxPick";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { useLanes } from "@/composables/sheet/useLanes";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useLeafDrag } from "@/composables/sheet/useLeafDrag";
import { useRowsInView } from "@/composables/sheet/useRowsInView";
import { useSlideStyle } from "@/composables/useSlideStyle";
import type { Steps } from "@/api/motion";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";
import { usePlayback } from "@/stores/playback";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const picks = usePicks();
const time = useTimeView();
const body = ref<HTMLElement>();
const { width } = useElementSize(body);
watch(width, (now) => now > 0 && (time.width = now));
const { lanes, opened, open } = useLanes();

const leaf = useLeafActions();
const drag = useLeafDrag(
  () => time.perFrame,
  () => lanes.value,
);
useSlideStyle(() => (drag.sliding.value?.by ?? 0) * time.perFrame);
/** The steps of a figure, where it walks. */
function stepsOf(id: string): Steps | null {
  const steps = scene.calmMotion?.objects.get(id)?.steps;
  return steps && Object.keys(steps.down).length ? steps : null;
}
/** The lanes of feet under the lane of a figure that walks, while it is opened or picked. */
function footLanes(lane: Lane): Steps | null {
  const near = opened.value.has(lane.thing.id) || selection.objectId === lane.thing.id;
  return !lane.row && isFigure(lane.thing) && near ? stepsOf(lane.thing.id) : null;
}

/** Lanes and lanes of feet are so high, and this many are there beyond both ends of what is seen. */
const [LANE, FOOT_LANE, BEYOND] = [24, 20, 40];
const heights = computed(() =>
  lanes.value.map((lane) => LANE + FOOT_LANE * ((footLanes(lane) ? legsOf(lane) : 0) + copiesOf(lane))),
);
/** How many copies of a parade have a lane under its own, while it is opened or picked. */
function copiesOf(lane: Lane): number {
  const near = opened.value.has(lane.thing.id) || selection.objectId === lane.thing.id;
  if (lane.row || !isParade(lane.thing) || !near || !selection.copyLanes) return 0;
  const baked = scene.calmMotion?.objects.get(lane.thing.id)?.channels;
  // Without keys and delays, the lane is empty.
  const parts = withParts(lane.thing.id, scene.parts).slice(1);
  const keyed = parts.some((id) => Object.values(scene.byId.get(id)?.channels ?? {}).some((one) => one.keys.length));
  if (!keyed && !baked?.["copies.lag"]?.data.some((lag) => lag !== 0)) return 0;
  return Math.min(MOST_LANES, (baked?.["copies"]?.width ?? 0) / 6);
}
const legsOf = (lane: Lane): number =>
  isFigure(lane.thing) ? lane.thing.figure.limbs.filter((limb) => limb.kind === "leg").length : 0;
const { shown, containerProps, wrapperProps } = useRowsInView(() => lanes.value, {
  heightOf: (place) => heights.value[place] ?? LANE,
  beyond: BEYOND,
  isPicked: (lane) => lane.thing.id === selection.objectId,
  picked: () => selection.objectId,
});
const box = useBoxPick(
  containerProps.ref,
  () => lanes.value,
  () => heights.value,
);

/** Whether what is shown goes from left to right in time. */
const timed = computed(() => selection.sheetTab !== "links" && selection.sheetTab !== "depth");
const nothingKeyed = computed(() => scene.objects.length > 0 && lanes.value.every((lane) => lane.frames.length === 0));
const stops = computed(() => [...new Set(lanes.value.flatMap((lane) => lane.frames))]);
watch(
  () => playback.frame,
  (frame) => !playback.playing && time.reveal(frame),
);
/** The lane that carries the stretch grips: the last one with a picked leaf. */
const gripLane = computed(() => {
  if (picks.frames.length < 2) return -1;
  return lanes.value.findLastIndex(
    (lane) =>
      lane.row !== null &&
      lane.channels.some((channel) =>
        picks.keys.some((one) => one.object === lane.thing.id && one.channel === channel),
      ),
  );
});

/** Ctrl and wheel zooms at the pointer; Shift and wheel, or a sideways wheel, scrolls in time. */
function wheel(event: WheelEvent): void {
  const sideways = event.shiftKey ? event.deltaY || event.deltaX : event.deltaX;
  if (event.ctrlKey || event.metaKey) {
    event.preventDefault();
    const at =
      (event.clientX - (body.value?.getBoundingClientRect().left ?? 0) - NAMES - AIR + time.scroll) / time.perFrame;
    time.zoomBy(Math.exp(-event.deltaY / 300), at);
  } else if (sideways) {
    event.preventDefault();
    time.panTo(time.first + sideways / time.perFrame);
  }
}
</script>

<template>
  <section
    ref="body"
    class="sheet"
    aria-label="Time sheet"
    :style="{ '--names': `${NAMES}px`, '--air': `${AIR}px`, '--scroll': `${time.scroll}px` }"
    @wheel="wheel"
  >
    <SheetRuler :stops="stops" />
    <CurveView v-if="selection.sheetTab === 'curves'" />
    <SpeedView v-else-if="selection.sheetTab === 'speed'" />
    <DepthView v-else-if="selection.sheetTab === 'depth'" />
    <DrivesView v-else-if="selection.sheetTab === 'links'" />
    <div v-else v-bind="containerProps" class="lanes" :class="{ under: picks.count > 0 }" @pointerdown="box.begin">
      <div v-bind="wrapperProps" role="list" aria-label="Lanes">
        <template v-for="{ row: lane, place: i } in shown" :key="lane.key">
          <SheetLane
            :class="{ even: i % 2 }"
            :lane="lane"
            :per-frame="time.perFrame"
            :opened="opened.has(lane.thing.id)"
            @open="open(lane.thing.id)"
            @grip="drag.begin"
            @nudge="drag.nudge"
            @remove="leaf.remove"
          />
          <FootLanes
            v-if="lane.thing.kind === 'figure' && footLanes(lane)"
            :thing="lane.thing"
            :steps="footLanes(lane)!"
            :per-frame="time.perFrame"
            :depth="lane.depth"
          />
          <CopyLanes
            v-if="lane.thing.kind === 'parade' && copiesOf(lane)"
            :thing="lane.thing"
            :per-frame="time.perFrame"
            :depth="lane.depth"
          />
          <div v-if="i === gripLane && !drag.sliding.value" class="grips" role="listitem">
            <div class="strip"><StretchGrips :per-frame="time.perFrame" /></div>
          </div>
        </template>
      </div>
      <div
        v-if="box.shown.value"
        class="box"
        :style="{
          left: `${box.shown.value.left}px`,
          top: `${box.shown.value.top}px`,
          width: `${box.shown.value.width}px`,
          height: `${box.shown.value.height}px`,
        }"
      />
      <p v-if="!scene.objects.length" class="hint">
        The time sheet shows the timing of all motion. Add an object, then key it with the leaf beside its values.
      </p>
      <p v-else-if="nothingKeyed && !scene.objects.some((one) => one.rules.length)" class="hint">
        No keys yet. Select an object, click the leaf beside Travel, go to another frame and move it.
      </p>
    </div>
    <div
      v-if="drag.sliding.value?.snapped"
      class="snapped"
      :style="{ left: `${NAMES + AIR + drag.sliding.value.snapped.frame * time.perFrame - time.scroll}px` }"
    >
      <span>{{ drag.sliding.value.snapped.frame }} · on {{ drag.sliding.value.snapped.to }}</span>
    </div>
    <SoundLanes v-if="timed" />
    <BeatMarks v-if="timed" />
    <LeafActions v-if="selection.sheetTab === 'sheet'" />
    <ClearDialog />
    <PasteDialog />
    <SheetNote v-if="timed" />
    <SheetPlayhead v-if="timed" />
  </section>
</template>

<style scoped>
.sheet {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-top: 1px solid var(--line);
  background: var(--paper);
  overflow: hidden;
}
.lanes {
  position: relative;
  overflow-y: auto;
  overflow-x: hidden;
  flex: 1;
}
/* Room for the bar of what can be done with picked leaves. */
.lanes.under {
  padding-bottom: 48px;
}
.hint {
  margin: 10px 14px 10px calc(var(--names) + 2 * var(--air));
  color: var(--ink-2);
}
/* Lies over the lane before it and takes no room. */
.grips {
  position: relative;
  height: 24px;
  margin: -24px 0 0 var(--names);
  padding: 0 var(--air);
  overflow: clip;
  pointer-events: none;
}
.strip {
  position: relative;
  height: 100%;
  transform: translateX(calc(-1 * var(--scroll)));
}
.box {
  position: absolute;
  border: 1px solid var(--playhead);
  background: #d0365b1c;
  pointer-events: none;
}
.snapped {
  position: absolute;
  top: 28px;
  bottom: 0;
  width: 0;
  border-left: 1px dashed var(--ink-2);
  pointer-events: none;
}
.snapped span {
  position: absolute;
  bottom: 4px;
  left: 5px;
  background: var(--ink);
  color: var(--paper);
  border-radius: 4px;
  padding: 1px 6px;
  font-size: 11px;
  white-space: nowrap;
}
</style>
