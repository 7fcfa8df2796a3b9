<script setup lang="ts">
/** The picture: painted frame below, handles and path above, and all that a hand can do in it. */
import { useElementSize } from "@vueuse/core";
import { computed, onBeforeUnmount, ref, watch, watchEffect } from "vue";
import { isCamera } from "@/api/kinds";
import LiveBar from "@/components/cues/LiveBar.vue";
import FirstWays from "@/components/guide/FirstWays.vue";
import GuideBar from "@/components/guide/GuideBar.vue";
import PictureNote from "@/components/notes/PictureNote.vue";
import OutlineBar from "@/components/outline/OutlineBar.vue";
import PictureDraw from "@/components/outline/PictureDraw.vue";
import PictureOutline from "@/components/outline/PictureOutline.vue";
import PictureParade from "@/components/parades/PictureParade.vue";
import LookLine from "@/components/picture/LookLine.vue";
import PathBar from "@/components/picture/PathBar.vue";
import PathPoints from "@/components/picture/PathPoints.vue";
import PictureBlur from "@/components/picture/PictureBlur.vue";
import PictureCamera from "@/components/picture/PictureCamera.vue";
import PictureChips from "@/components/picture/PictureChips.vue";
import PictureDrives from "@/components/picture/PictureDrives.vue";
import PictureFigure from "@/components/picture/PictureFigure.vue";
import PictureGradient from "@/components/picture/PictureGradient.vue";
import PictureGuides from "@/components/picture/PictureGuides.vue";
import PictureHandles from "@/components/picture/PictureHandles.vue";
import PictureOnion from "@/components/picture/PictureOnion.vue";
import PicturePath from "@/components/picture/PicturePath.vue";
import PictureRules from "@/components/picture/PictureRules.vue";
import PictureSeveral from "@/components/picture/PictureSeveral.vue";
import PictureTools from "@/components/picture/PictureTools.vue";
import PictureText from "@/components/text/PictureText.vue";
import { useDragTag } from "@/composables/useDragTag";
import { useDrawing } from "@/composables/picture/useDrawing";
import { useFigure } from "@/composables/useFigure";
import { useObjectBox } from "@/composables/useObjectBox";
import { useOutlineEdit } from "@/composables/outline/useOutlineEdit";
import { usePathEdit } from "@/composables/path/usePathEdit";
import { usePictureDrag } from "@/composables/picture/usePictureDrag";
import { usePictureHover } from "@/composables/picture/usePictureHover";
import { usePictureOpening } from "@/composables/picture/usePictureOpening";
import { usePicturePaint } from "@/composables/picture/usePicturePaint";
import { usePicturePicking } from "@/composables/picture/usePicturePicking";
import { usePicturePress } from "@/composables/picture/usePicturePress";
import { usePictureView } from "@/composables/picture/usePictureView";
import { useSnapping } from "@/composables/picture/useSnapping";
import type { Point } from "@/geometry/matrix";
import { boundsOf } from "@/geometry/together";
import { boxOf, cornersOf, viewOf } from "@/picture/boxes";
import { useGuide } from "@/stores/guide";
import { useLinking } from "@/stores/linking";
import { useLive } from "@/stores/live";
import { useOutline } from "@/stores/outline";
import { usePanels } from "@/stores/panels";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const linking = useLinking();
const live = useLive();
const guide = useGuide();
const panels = usePanels();
const outline = useOutline();

const stage = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const { width, height } = useElementSize(stage);
const view = usePictureView(stage, width, height);
const { onStage, placed, pixelRatio } = usePicturePaint(canvas, view, width, height);
const snapping = useSnapping(() => view.scale.value);
const at = (event: PointerEvent | MouseEvent): Point => view.toPicture(event.clientX, event.clientY);
const drag = usePictureDrag(at, snapping);
const boxing = useObjectBox(at);
const path = usePathEdit(at);
const drawing = useDrawing(at, () => view.scale.value, snapping);
const points = useOutlineEdit(at, snapping);
watchEffect(() => (points.scale.value = view.scale.value));
/** Leaving the tool drops what was being drawn. */
watch(() => selection.tool, drawing.abandon);
const { figure: skeleton } = useFigure();

const picking = usePicturePicking(at, () => view.scale.value);
linking.finder = picking.underPointer;
onBeforeUnmount(() => (linking.finder = null));
const { hover, hovered } = usePictureHover(view, picking, drag, drawing);
const { open } = usePictureOpening(at, picking, drawing);
const { press, panning } = usePicturePress({
  stage,
  canvas,
  at,
  view,
  picking,
  drag,
  boxing,
  drawing,
  points,
  path,
});

const box = computed(() =>
  scene.motion && selection.object ? boxOf(scene.motion, selection.object.id, playback.frame, scene.parts) : null,
);
const matrix = computed(() =>
  // The camera is dragged on the whole stage: its own view fills the picture.
  scene.motion && selection.object && (!isCamera(selection.object) || onStage.value)
    ? viewOf(scene.motion, selection.object.id, playback.frame)
    : null,
);
const dragged = useDragTag(drag, path, view, matrix, box, () => scene.look !== null);

/** Show all of the picture, the picked objects as large as there is room for, or every pixel as one of the screen. */
function zoom(what: "fit" | "picked" | "whole"): void {
  if (what === "fit") return view.fit();
  if (what === "whole") return view.zoomTo(1 / pixelRatio.value);
  const shownCorners = selection.picked.flatMap((id) =>
    scene.motion ? (cornersOf(scene.motion, id, playback.frame, scene.parts) ?? []) : [],
  );
  const around = boundsOf(shownCorners);
  if (around) view.showBox(around);
}

/** Something done from the keyboard to what is being drawn; false where nothing is. */
function drawn(what: "finish" | "back" | "drop"): boolean {
  if (outline.taking) {
    outline.taking = null;
    return true;
  }
  if (!outline.drawn.length) return false;
  if (what === "finish") void drawing.finish(false);
  else if (what === "back") drawing.back();
  else drawing.abandon();
  return true;
}

/** Something done from the keyboard to the picked points; false where none are. */
function withPoints(what: "remove" | "clear"): boolean {
  if (!points.thing.value || !points.list.value.length) return false;
  if (what === "remove") void points.actions.remove();
  else outline.clear();
  return true;
}

/** Arrow keys move the picked points where there are some, else the object. */
async function nudge(kind: Parameters<typeof drag.nudge>[0], by: Record<string, number>): Promise<void> {
  if (kind === "move" && points.thing.value && points.list.value.length)
    await points.actions.nudge({ x: by["x"] ?? 0, y: by["y"] ?? 0 });
  else await drag.nudge(kind, by);
}

/** Where in the picture the pointer is; nothing beside the picture. */
function pointAt(event: MouseEvent): Point | undefined {
  const p = at(event);
  const [w, h] = scene.motion?.size ?? [0, 0];
  return p.x >= 0 && p.y >= 0 && p.x <= w && p.y <= h ? p : undefined;
}

defineExpose({ zoom, nudge, drawn, points: withPoints, pointAt });
</script>

<template>
  <section class="stage-frame" :class="{ guided: guide.on && !live.on }" aria-label="Picture">
    <GuideBar v-if="guide.on && !live.on" />
    <div
      ref="stage"
      class="stage"
      :class="{ drawing: selection.tool === 'draw' || outline.taking, panning }"
      tabindex="0"
      role="application"
      aria-label="Picture. Page Up and Page Down pick an object; arrow keys move it, [ and ] turn it, - and = size it."
      @pointerdown.capture="view.touch"
      @pointermove.capture="view.touch"
      @pointerup.capture="view.touch"
      @pointercancel.capture="view.touch"
      @pointerdown="press"
      @pointermove="hover"
      @pointerleave="hovered = null"
      @dblclick="open"
      @wheel="view.wheel"
    >
      <canvas ref="canvas" class="canvas" data-testid="picture-canvas" :style="placed" />
      <PictureBlur
        v-if="scene.head?.blur && selection.showBlur && !onStage && !live.on"
        :scale="view.scale.value * pixelRatio"
        :style="placed"
      />
      <PictureOnion
        v-if="selection.onion.on && !playback.playing && !live.on"
        :view="view"
        :width="width"
        :height="height"
      />
      <svg v-if="!live.on" class="overlay" role="group" aria-label="Handles in the picture">
        <PictureGuides :view="view" :snapping="snapping" />
        <PicturePath
          v-if="selection.tool !== 'joints' && (selection.showPath || selection.tool === 'path') && selection.object"
          :id="selection.object.id"
          :view="view"
        />
        <PictureDrives
          v-if="selection.tool !== 'joints' && selection.showDrives && selection.thing && !playback.playing"
          :view="view"
        />
        <PictureCamera v-if="onStage && scene.camera" :id="scene.camera.id" :view="view" @grip="drag.begin" />
        <PictureHandles
          v-if="
            selection.object &&
            matrix &&
            !playback.playing &&
            !selection.several &&
            !scene.locked.has(selection.object.id)
          "
          :thing="selection.object"
          :matrix="matrix"
          :box="box"
          :view="view"
          @grip="drag.begin"
        />
        <PictureFigure
          v-if="skeleton && !playback.playing"
          :key="skeleton.id"
          :thing="skeleton"
          :view="view"
          :to-picture="at"
        />
        <PictureNote v-if="!playback.playing" :view="view" />
        <PictureSeveral
          v-if="!playback.playing"
          :view="view"
          :width="width"
          :height="height"
          :box="boxing.shown.value"
          :to-picture="at"
        />
        <PictureGradient v-if="selection.tool === 'pick' && !playback.playing" :view="view" :to-picture="at" />
        <PictureRules
          v-if="selection.tool === 'pick' && selection.object?.rules.length && !playback.playing"
          :view="view"
          :to-picture="at"
        />
        <PictureParade
          v-if="selection.tool === 'pick' && selection.object?.kind === 'parade' && !playback.playing"
          :thing="selection.object"
          :view="view"
          :to-picture="at"
        />
        <PictureOutline v-if="points.thing.value && !playback.playing" :edit="points" :view="view" />
        <PictureDraw v-if="selection.tool === 'draw'" :view="view" :closes="drawing.closes" />
        <PathPoints
          v-if="selection.tool === 'path' && selection.object && !playback.playing"
          :path="path"
          :view="view"
        />
      </svg>
      <span v-if="hovered" class="tag" :style="{ left: `${hovered.at.x + 14}px`, top: `${hovered.at.y + 14}px` }">{{
        hovered.name
      }}</span>
      <span v-if="dragged" class="tag strong" :style="{ left: `${dragged.at.x}px`, top: `${dragged.at.y + 16}px` }">{{
        dragged.text
      }}</span>
    </div>
    <PictureText
      v-if="selection.writing && !playback.playing && !live.on"
      :view="view"
      :width="width"
      :height="height"
    />
    <FirstWays
      v-if="scene.head && !scene.objects.length && !guide.on && selection.tool === 'pick' && !live.on && !panels.big"
    />
    <LiveBar />
    <PictureTools v-if="!live.on" />
    <PathBar v-if="selection.tool === 'path'" :path="path" />
    <OutlineBar
      v-if="(selection.tool === 'draw' || selection.tool === 'points') && !live.on"
      :edit="points"
      :drawing="drawing"
    />
    <PictureChips v-if="!live.on" :view="view" @zoom="zoom" />
    <LookLine />
  </section>
</template>

<style scoped>
.stage-frame {
  /* The chips are in a row of their own, so that nothing lies over the picture's edges. */
  --chips: 38px;
  /* So does what guides through the first scene. */
  --guide: 0px;
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  background: var(--paper-3);
}
.guided {
  --guide: 46px;
}
.stage {
  position: absolute;
  inset: var(--guide) 0 var(--chips);
  overflow: hidden;
  touch-action: none;
  outline-offset: -1px;
}
.drawing {
  cursor: crosshair;
}
.panning {
  cursor: grab;
}
.stage:focus-visible {
  outline-width: 1px;
}
.stage:focus:not(:focus-visible) {
  outline: none;
}
.canvas {
  position: absolute;
  border-radius: 4px;
  box-shadow:
    0 1px 3px #5a4a2033,
    0 6px 24px #5a4a2022;
}
.overlay {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.tag {
  position: absolute;
  pointer-events: none;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 1px 7px;
  font-size: 12px;
  white-space: pre;
}
.strong {
  background: var(--ink);
  color: var(--paper);
  border-color: transparent;
  font-family: var(--mono);
  transform: translateX(-50%);
}
</style>
