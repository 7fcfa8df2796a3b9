/** A press in the picture, by the current tool. */
import type { Ref } from "vue";
import { holdsNumbers } from "@/api/channels";
import { isParade } from "@/api/kinds";
import { colourSeen } from "@/composables/picture/colourSeen";
import type { Drawing } from "@/composables/picture/useDrawing";
import { usePanKey } from "@/composables/picture/usePanKey";
import type { useObjectBox } from "@/composables/useObjectBox";
import type { OutlineEdit } from "@/composables/outline/useOutlineEdit";
import type { PathEdit } from "@/composables/path/usePathEdit";
import type { PictureDrag } from "@/composables/picture/usePictureDrag";
import type { PicturePicking } from "@/composables/picture/usePicturePicking";
import type { PictureView } from "@/composables/picture/usePictureView";
import type { Point } from "@/geometry/matrix";
import { copyAtPoint } from "@/picture/boxes";
import { liveAt } from "@/picture/live";
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
  const [linking, live, outline] = [useLinking(), useLive(), useOutline()];

  const panning = usePanKey();

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

  /** With the point tool: another object's outline, or a box around points of the current one. */
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
    else if (isParade(selection.thing) && scene.motion) {
      const copy = copyAtPoint(scene.motion, selection.thing.id, playback.frame, point, picking.reach());
      if (copy !== null) selection.copy = copy;
    }
    drag.begin(event, { kind: "move" });
  }

  /** Take the colour that is seen under the pointer. */
  function takeColour(event: PointerEvent): void {
    const take = outline.taking;
    outline.taking = null;
    const hex = canvas.value && scene.motion ? colourSeen(canvas.value, at(event), scene.motion.size) : null;
    if (hex) take?.(hex);
  }

  return { press, panning };
}
