<script setup lang="ts">
/** The picture: painted frame below, handles and path above, and all that a hand can do in it. */
import { holdsNumbers } from "@/api/channels";
import { useDevicePixelRatio, useElementSize, useEventListener } from "@vueuse/core";
import { computed, onBeforeUnmount, ref, watch, watchEffect } from "vue";
import LookLine from "@/components/picture/LookLine.vue";
import PictureBlur from "@/components/picture/PictureBlur.vue";
import PictureCamera from "@/components/picture/PictureCamera.vue";
import PictureChips from "@/components/picture/PictureChips.vue";
import PathBar from "@/components/picture/PathBar.vue";
import PathPoints from "@/components/picture/PathPoints.vue";
import PictureGuides from "@/components/picture/PictureGuides.vue";
import PictureFigure from "@/components/picture/PictureFigure.vue";
import PictureDrives from "@/components/picture/PictureDrives.vue";
import PictureHandles from "@/components/picture/PictureHandles.vue";
import PictureOnion from "@/components/picture/PictureOnion.vue";
import PictureNote from "@/components/notes/PictureNote.vue";
import PicturePath from "@/components/picture/PicturePath.vue";
import PictureSeveral from "@/components/picture/PictureSeveral.vue";
import { useObjectBox } from "@/composables/useObjectBox";
import PictureGradient from "@/components/picture/PictureGradient.vue";
import PictureRules from "@/components/picture/PictureRules.vue";
import PictureTools from "@/components/picture/PictureTools.vue";
import OutlineBar from "@/components/outline/OutlineBar.vue";
import PictureDraw from "@/components/outline/PictureDraw.vue";
import PictureOutline from "@/components/outline/PictureOutline.vue";
import PictureParade from "@/components/parades/PictureParade.vue";
import PictureText from "@/components/text/PictureText.vue";
import { textOf } from "@/composables/useText";
import { useDrawing } from "@/composables/useDrawing";
import { useFigure } from "@/composables/useFigure";
import { hasPoints, useOutlineEdit } from "@/composables/useOutlineEdit";
import { usePathEdit } from "@/composables/usePathEdit";
import { usePictureDrag } from "@/composables/usePictureDrag";
import { usePictureView } from "@/composables/usePictureView";
import { useSnapping } from "@/composables/useSnapping";
import { readable } from "@/geometry/frames";
import type { Point } from "@/geometry/matrix";
import { boundsOf } from "@/geometry/together";
import { boxOf, copyAtPoint, corners, cornersOf, topmostAt, viewOf } from "@/picture/boxes";
import { paintAround } from "@/picture/around";
import { liveAt, paintLive } from "@/picture/live";
import { atFrame } from "@/picture/looked";
import { paintFrame, paintSteps } from "@/picture/paint";
import FirstWays from "@/components/guide/FirstWays.vue";
import GuideBar from "@/components/guide/GuideBar.vue";
import LiveBar from "@/components/cues/LiveBar.vue";
import { useGuide } from "@/stores/guide";
import { useInside } from "@/stores/inside";
import { useLinking } from "@/stores/linking";
import { useLive } from "@/stores/live";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useRoom } from "@/stores/room";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const scene = useScene();
const selection = useSelection();
const vocabulary = useVocabulary();
const playback = usePlayback();
const linking = useLinking();
const live = useLive();
const inside = useInside();
const guide = useGuide();
const room = useRoom();

const stage = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const { width, height } = useElementSize(stage);
const { pixelRatio } = useDevicePixelRatio();
const view = usePictureView(stage, width, height);
const snapping = useSnapping(() => view.scale.value);
const at = (event: PointerEvent | MouseEvent): Point => view.toPicture(event.clientX, event.clientY);
const drag = usePictureDrag(at, snapping);
const boxing = useObjectBox(at);
const path = usePathEdit(at);
const outline = useOutline();
const drawing = useDrawing(at, () => view.scale.value, snapping);
const points = useOutlineEdit(at, snapping);
watchEffect(() => (points.scale.value = view.scale.value));
const { figure: skeleton } = useFigure();
/** Leaving the tool drops what was being drawn. */
watch(() => selection.tool, drawing.abandon);
const hovered = ref<{ name: string; at: Point } | null>(null);

const box = computed(() =>
  scene.motion && selection.object ? boxOf(scene.motion, selection.object.id, playback.frame, scene.parts) : null,
);
const matrix = computed(() =>
  // The camera is taken hold of on the whole stage: what it sees fills the picture.
  scene.motion && selection.object && (selection.object.kind !== "camera" || onStage.value)
    ? viewOf(scene.motion, selection.object.id, playback.frame)
    : null,
);

/** Whether the whole stage is painted, as far as there is room. */
const onStage = computed(() => scene.wholeStage && scene.camera !== null && !live.on);
/** What the canvas covers: the picture, or all there is room for. */
const shown = computed(() =>
  onStage.value
    ? { left: 0, top: 0, width: width.value, height: height.value }
    : {
        left: view.left.value,
        top: view.top.value,
        width: view.shownWidth.value,
        height: view.shownHeight.value,
      },
);

/** The frame of the camera lies clear of the edges when the whole stage comes into view. */
watch(onStage, (whole) => (whole ? view.zoomTo(view.scale.value * 0.72) : view.fit()));

watchEffect(() => {
  const motion = scene.motion;
  const ctx = canvas.value?.getContext("2d");
  if (!ctx || !motion) return;
  const [w, h] = [
    Math.max(1, Math.round(shown.value.width * pixelRatio.value)),
    Math.max(1, Math.round(shown.value.height * pixelRatio.value)),
  ];
  if (ctx.canvas.width !== w || ctx.canvas.height !== h) [ctx.canvas.width, ctx.canvas.height] = [w, h];
  if (onStage.value) {
    const ratio = pixelRatio.value;
    const scale = view.scale.value * ratio;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.fillStyle = motion.background;
    ctx.fillRect(0, 0, w, h);
    paintSteps(ctx, motion.steps, atFrame(playback.frame), [
      scale,
      0,
      0,
      scale,
      view.left.value * ratio,
      view.top.value * ratio,
    ]);
  } else if (live.on) paintLive(ctx, motion, { frameOf: live.frames && live.frameOf, parentOf }, w, h);
  else {
    const outside = inside.outside;
    const around = outside && ((scale: number) => paintAround(ctx, outside, playback.frame, scale));
    paintFrame(ctx, motion, playback.frame, w, h, around ?? undefined);
  }
});

/** What a click picks: the whole that a part belongs to, unless a part of it is being worked on already. */
function pickable(id: string): string {
  const groupOf = (one: string): string => {
    const parent = scene.byId.get(one)?.parent;
    const above = parent ? scene.byId.get(parent) : undefined;
    return above && vocabulary.kindWordsOf(above)?.is_whole ? groupOf(above.id) : one;
  };
  const whole = groupOf(id);
  const current = selection.objectId;
  return current && current !== whole && groupOf(current) === whole ? id : whole;
}

/** While Z is held, a drag moves the picture about. */
const panning = ref(false);
useEventListener(window, "keydown", (event: KeyboardEvent) => {
  const typing = (event.target as HTMLElement | null)?.closest?.("input, textarea, select, [contenteditable=true]");
  if (event.key.toLowerCase() === "z" && !event.ctrlKey && !event.metaKey && !event.altKey && !typing)
    panning.value = true;
});
useEventListener(window, ["keyup", "blur"], () => (panning.value = false));

/** Show all of the picture, the picked things as large as there is room for, or every pixel as one of the screen. */
function zoom(what: "fit" | "picked" | "whole"): void {
  if (what === "fit") return view.fit();
  if (what === "whole") return view.zoomTo(1 / pixelRatio.value);
  const points = selection.picked.flatMap((id) =>
    scene.motion ? (cornersOf(scene.motion, id, playback.frame, scene.parts) ?? []) : [],
  );
  const around = boundsOf(points);
  if (around) view.showBox(around);
}

const parentOf = (id: string): string | null => scene.byId.get(id)?.parent ?? null;

function press(event: PointerEvent): void {
  if (live.on && event.button === 0 && scene.motion) {
    const found = liveAt(scene.motion, { frameOf: live.frameOf, parentOf }, at(event));
    if (found) live.click(found);
    return;
  }
  if (view.isPinching()) return;
  if (event.button === 1 || (event.button === 0 && panning.value)) {
    view.beginPan(event);
    return;
  }
  if (event.button !== 0 || !scene.motion) return;
  stage.value?.focus({ preventScroll: true });
  if (outline.taking) {
    takeColour(event);
    return;
  }
  if (selection.tool === "draw") {
    drawing.press(event);
    return;
  }
  if (selection.tool === "points") {
    const other = underPointer(event);
    if (other && other !== selection.objectId) selection.pick(other);
    else if (points.thing.value) points.beginBox(event);
    else if (!other) selection.pick(null);
    return;
  }
  if (selection.tool === "path" && selection.object) {
    void path.goOnTo(event);
    return;
  }
  if (selection.tool === "link") {
    const id = underPointer(event);
    const thing = id ? scene.byId.get(id) : undefined;
    if (!thing) return;
    selection.pick(thing.id);
    const channel = selection.channel && holdsNumbers(selection.channel) ? selection.channel.name : "rotation";
    linking.begin(event, { object: thing.id, channel });
    return;
  }
  const point = at(event);
  const found = foremost(point);
  const together = event.shiftKey || event.ctrlKey || event.metaKey;
  if (!found) {
    if (!together) selection.pick(null);
    boxing.begin(event);
    return;
  }
  if (together) {
    const id = pickable(found);
    selection.toggle(id);
    if (selection.picked.includes(id) && selection.several) drag.beginTogether(event);
    return;
  }
  if (selection.several && selection.picked.some((id) => isOn(found, id))) {
    drag.beginTogether(event);
    return;
  }
  if (!onPicked(found)) selection.pick(pickable(found));
  else if (selection.thing?.kind === "parade") {
    const copy = copyAtPoint(scene.motion, selection.thing.id, playback.frame, point, 5 / view.scale.value);
    if (copy !== null) selection.copy = copy;
  }
  drag.begin(event, { kind: "move" });
}

/** The foremost thing at a point of the picture; what is locked is looked through. */
const foremost = (point: Point): string | null =>
  scene.motion ? topmostAt(scene.motion, playback.frame, point, 5 / view.scale.value, scene.locked) : null;

/** The thing under the pointer, as a click would pick it. */
function underPointer(event: PointerEvent): string | null {
  const found = foremost(at(event));
  return found && (onPicked(found) ? selection.objectId : pickable(found));
}
linking.finder = underPointer;
onBeforeUnmount(() => (linking.finder = null));

/** Whether the object found belongs to what is picked already, so that a drag moves that. */
const onPicked = (found: string): boolean => selection.objectId !== null && isOn(found, selection.objectId);

/** Whether an object is another, or hangs on it. */
function isOn(found: string, other: string): boolean {
  for (let id: string | null | undefined = found; id; id = scene.byId.get(id)?.parent) if (id === other) return true;
  return false;
}

/** Take the colour that is seen under the pointer. */
function takeColour(event: PointerEvent): void {
  const p = at(event);
  const ctx = canvas.value?.getContext("2d");
  const take = outline.taking;
  outline.taking = null;
  if (!ctx || !take || !scene.motion) return;
  const [w, h] = scene.motion.size;
  const pixel = ctx.getImageData(
    Math.floor((p.x / w) * ctx.canvas.width),
    Math.floor((p.y / h) * ctx.canvas.height),
    1,
    1,
  );
  const [r = 0, g = 0, b = 0, alpha = 0] = pixel.data;
  if (alpha) take(`#${[r, g, b].map((one) => one.toString(16).padStart(2, "0")).join("")}`.toUpperCase());
}

function pickPart(event: MouseEvent): void {
  if (selection.tool === "draw") {
    if (outline.drawn.length > 1) void drawing.finish(false);
    return;
  }
  if (!scene.motion || selection.tool === "path" || live.on) return;
  const found = foremost(at(event));
  if (!found) return;
  if (scene.byId.get(found)?.kind === "inset") {
    inside.enter(found);
    return;
  }
  selection.pick(found);
  if (textOf(scene.byId.get(found))) selection.writing = found;
  // What has points of its own is opened to them.
  else if (selection.tool === "pick" && hasPoints(scene.byId.get(found))) selection.tool = "points";
}

function hover(event: PointerEvent): void {
  if (selection.tool === "draw") {
    hovered.value = null;
    drawing.hover(event);
    return;
  }
  if (!scene.motion || drag.active.value || playback.playing || live.on) {
    hovered.value = null;
    return;
  }
  const found = foremost(at(event));
  const id = found && (onPicked(found) ? selection.objectId : pickable(found));
  const name = id ? scene.byId.get(id)?.name : null;
  hovered.value = name ? { name, at: view.toStage(event.clientX, event.clientY) } : null;
}

const LABELS: Record<string, string> = {
  x: "x",
  y: "y",
  rotation: "turn",
  "scale.x": "wide",
  "scale.y": "high",
  "pivot.x": "pivot x",
  "pivot.y": "pivot y",
};
const dragged = computed(() => {
  if (path.moving.value) {
    const key = path.keys.value.find((one) => one.frame === path.moving.value!.frame);
    return key ? { text: path.moving.value.text, at: view.onStage(path.space.value, path.pointOf(key)) } : null;
  }
  if (!drag.values.value || !matrix.value || !box.value) return null;
  const entries = Object.entries(drag.values.value).map(([name, value]) =>
    name.startsWith("scale")
      ? `${LABELS[name]} ${readable(value * 100)} %`
      : `${LABELS[name] ?? name} ${readable(value)}${name === "rotation" ? "°" : ""}`,
  );
  const lowest = corners(box.value)
    .map((corner) => view.onStage(matrix.value!, corner))
    .reduce((a, b) => (b.y > a.y ? b : a));
  return { text: entries.join("   "), at: lowest };
});

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
  if (what === "remove") void points.does.remove();
  else outline.clear();
  return true;
}

/** Arrow keys move the picked points where there are some, else the object. */
async function nudge(kind: Parameters<typeof drag.nudge>[0], by: Record<string, number>): Promise<void> {
  if (kind === "move" && points.thing.value && points.list.value.length)
    await points.does.nudge({ x: by["x"] ?? 0, y: by["y"] ?? 0 });
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
      @dblclick="pickPart"
      @wheel="view.wheel"
    >
      <canvas
        ref="canvas"
        class="canvas"
        data-testid="picture-canvas"
        :style="{
          left: `${shown.left}px`,
          top: `${shown.top}px`,
          width: `${shown.width}px`,
          height: `${shown.height}px`,
        }"
      />
      <PictureBlur
        v-if="scene.head?.blur && selection.showBlur && !onStage && !live.on"
        :scale="view.scale.value * pixelRatio"
        :style="{
          left: `${shown.left}px`,
          top: `${shown.top}px`,
          width: `${shown.width}px`,
          height: `${shown.height}px`,
        }"
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
      v-if="scene.head && !scene.objects.length && !guide.on && selection.tool === 'pick' && !live.on && !room.big"
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
  /* The chips stand in a row of their own, so that nothing lies over the picture's edges. */
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
