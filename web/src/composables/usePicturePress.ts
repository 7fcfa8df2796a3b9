/** What a press in the picture does, by the tool at hand; also the double click, and what is told under the pointer. */
import { useEventListener } from "@vueuse/core";
import { ref, type Ref } from "vue";
import { holdsNumbers } from "@/api/channels";
import type { Drawing } from "@/composables/useDrawing";
import type { useObjectBox } from "@/composables/useObjectBox";
import type { OutlineEdit } from "@/composables/outline/useOutlineEdit";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import type { PathEdit } from "@/composables/usePathEdit";
import type { PictureDrag } from "@/composables/usePictureDrag";
import type { PicturePicking } from "@/composables/usePicturePicking";
import type { PictureView } from "@/composables/usePictureView";
import { textOf } from "@/composables/useText";
import { hexOf } from "@/geometry/colour";
import type { Point } from "@/geometry/matrix";
import { copyAtPoint } from "@/picture/boxes";
import { liveAt } from "@/picture/live";
import { useInside } from "@/stores/inside";
import { useLinking } from "@/stores/linking";
import { useLive } from "@/stores/live";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** What presses are handed on to. */
interface Parts {
  readonly stage: Ref<HTMLElement | undefined>;
  readonly canvas: Ref<HTMLCanvasElement | undefined>;
  readonly at: (event: PointerEvent | MouseEvent) => Point;
  readonly view: PictureView;
  readonly picking: PicturePicking;
  readonly drag: PictureDrag;
  readonly boxing: ReturnType<typeof useObjectBox>;
  readonly drawing: Drawing;
  readonly points: OutlineEdit;
  readonly path: PathEdit;
}

export function usePicturePress({ stage, canvas, at, view, picking, drag, boxing, drawing, points, path }: Parts) {
  const [scene, selection, playback] = [useScene(), useSelection(), usePlayback()];
  const [linking, live, inside, outline] = [useLinking(), useLive(), useInside(), useOutline()];

  /** While Z is held, a drag moves the picture about. */
  const panning = ref(false);
  useEventListener(window, "keydown", (event: KeyboardEvent) => {
    const typing = (event.target as HTMLElement | null)?.closest?.("input, textarea, select, [contenteditable=true]");
    if (event.key.toLowerCase() === "z" && !event.ctrlKey && !event.metaKey && !event.altKey && !typing)
      panning.value = true;
  });
  useEventListener(window, ["keyup", "blur"], () => (panning.value = false));

  function press(event: PointerEvent): void {
    if (live.on && event.button === 0 && scene.motion) {
      const found = liveAt(scene.motion, { frameOf: live.frameOf, parentOf: scene.parentOf }, at(event));
      if (found) live.click(found);
      return;
    }
    if (view.isPinching()) return;
    if (event.button === 1 || (event.button === 0 && panning.value)) return view.beginPan(event);
    if (event.button !== 0 || !scene.motion) return;
    stage.value?.focus({ preventScroll: true });
    if (outline.taking) return takeColour(event);
    if (selection.tool === "draw") return drawing.press(event);
    if (selection.tool === "points") return pressPoints(event);
    if (selection.tool === "path" && selection.object) return void path.goOnTo(event);
    if (selection.tool === "link") return beginLink(event);
    pressObjects(event);
  }

  /** With the tool for points: another object's outline, or a box around some points of the one at hand. */
  function pressPoints(event: PointerEvent): void {
    const other = picking.underPointer(event);
    if (other && other !== selection.objectId) selection.pick(other);
    else if (points.thing.value) points.beginBox(event);
    else if (!other) selection.pick(null);
  }

  function beginLink(event: PointerEvent): void {
    const id = picking.underPointer(event);
    const thing = id ? scene.byId.get(id) : undefined;
    if (!thing) return;
    selection.pick(thing.id);
    const channel = selection.channel && holdsNumbers(selection.channel) ? selection.channel.name : "rotation";
    linking.begin(event, { object: thing.id, channel });
  }

  /** Pick what is under the pointer, and drag it; or draw a box around several. */
  function pressObjects(event: PointerEvent): void {
    const point = at(event);
    const found = picking.foremost(point);
    const together = event.shiftKey || event.ctrlKey || event.metaKey;
    if (!found) {
      if (!together) selection.pick(null);
      return boxing.begin(event);
    }
    if (together) {
      const id = picking.pickable(found);
      selection.toggle(id);
      if (selection.picked.includes(id) && selection.several) drag.beginTogether(event);
      return;
    }
    if (selection.several && selection.picked.some((id) => picking.isOn(found, id))) return drag.beginTogether(event);
    if (!picking.onPicked(found)) selection.pick(picking.pickable(found));
    else if (selection.thing?.kind === "parade" && scene.motion) {
      const copy = copyAtPoint(scene.motion, selection.thing.id, playback.frame, point, picking.reach());
      if (copy !== null) selection.copy = copy;
    }
    drag.begin(event, { kind: "move" });
  }

  /** Take the colour that is seen under the pointer. */
  function takeColour(event: PointerEvent): void {
    const p = at(event);
    const ctx = canvas.value?.getContext("2d");
    const take = outline.taking;
    outline.taking = null;
    if (!ctx || !take || !scene.motion) return;
    const [w, h] = scene.motion.size;
    const [x, y] = [Math.floor((p.x / w) * ctx.canvas.width), Math.floor((p.y / h) * ctx.canvas.height)];
    const [r = 0, g = 0, b = 0, alpha = 0] = ctx.getImageData(x, y, 1, 1).data;
    if (alpha) take(hexOf([r / 255, g / 255, b / 255]));
  }

  /** A double click goes into an inset, to the words of a text or the points of an outline, or picks a part of a whole. */
  function open(event: MouseEvent): void {
    if (selection.tool === "draw") {
      if (outline.drawn.length > 1) void drawing.finish(false);
      return;
    }
    if (!scene.motion || selection.tool === "path" || live.on) return;
    const found = picking.foremost(at(event));
    if (!found) return;
    const thing = scene.byId.get(found);
    if (thing?.kind === "inset") return inside.enter(found);
    selection.pick(found);
    if (textOf(thing)) selection.writing = found;
    else if (selection.tool === "pick" && hasPoints(thing)) selection.tool = "points";
  }

  /** The name of what is under the pointer, and where on the stage the pointer is. */
  const hovered = ref<{ name: string; at: Point } | null>(null);
  function hover(event: PointerEvent): void {
    hovered.value = null;
    if (selection.tool === "draw") return drawing.hover(event);
    if (!scene.motion || drag.active.value || playback.playing || live.on) return;
    const id = picking.underPointer(event);
    const name = id ? scene.byId.get(id)?.name : null;
    if (name) hovered.value = { name, at: view.toStage(event.clientX, event.clientY) };
  }

  return { press, open, hover, hovered, panning };
}
