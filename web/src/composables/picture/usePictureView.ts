/** How the picture is shown on its stage: fitted or zoomed, and moved about. */
import type { Ref } from "vue";
import { LEAST, TOOLS, usePicturePlace } from "@/composables/picture/usePicturePlace";
import { usePinch } from "@/composables/picture/usePinch";
import { beginDrag } from "@/composables/useDrag";
import type { Point } from "@/geometry/matrix";
import type { Bounds } from "@/geometry/together";

/** What is left free around what is zoomed to, px. */
const AROUND = 40;
/** The largest scale. */
const MOST = 16;

export function usePictureView(stage: Ref<HTMLElement | undefined>, width: Ref<number>, height: Ref<number>) {
  const place = usePicturePlace(stage, width, height);
  const { zoom, pan, size, scale, shownWidth, shownHeight, left, top, toStage } = place;

  /** Zoom so that the point of the stage stays where it is. */
  function zoomTo(next: number, about: Point = { x: width.value / 2, y: height.value / 2 }): void {
    const before = { x: (about.x - left.value) / scale.value, y: (about.y - top.value) / scale.value };
    zoom.value = Math.min(Math.max(next, LEAST), MOST);
    const now = {
      x: before.x * scale.value + (width.value + TOOLS - shownWidth.value) / 2,
      y: before.y * scale.value + (height.value - shownHeight.value) / 2,
    };
    pan.value = { x: about.x - now.x, y: about.y - now.y };
  }

  function fit(): void {
    zoom.value = null;
    pan.value = { x: 0, y: 0 };
  }

  function wheel(event: WheelEvent): void {
    event.preventDefault();
    if (event.ctrlKey || event.metaKey)
      zoomTo(scale.value * Math.exp(-event.deltaY / 300), toStage(event.clientX, event.clientY));
    else if (zoom.value !== null) pan.value = { x: pan.value.x - event.deltaX, y: pan.value.y - event.deltaY };
  }

  /** Show a box of the picture, px, as large as there is room for. */
  function showBox({ left: l, top: t, right, bottom }: Bounds): void {
    const [wide, high] = [Math.max(right - l, 1), Math.max(bottom - t, 1)];
    const next = Math.min((width.value - TOOLS - AROUND * 2) / wide, (height.value - AROUND * 2) / high);
    zoom.value = Math.min(Math.max(next, LEAST), MOST);
    const [x, y] = [(l + right) / 2, (t + bottom) / 2];
    pan.value = { x: (size.value[0] / 2 - x) * scale.value, y: (size.value[1] / 2 - y) * scale.value };
  }

  const { touch, isPinching } = usePinch((was, is, factor) => {
    zoomTo(scale.value * factor, toStage(was.x, was.y));
    pan.value = { x: pan.value.x + is.x - was.x, y: pan.value.y + is.y - was.y };
  });

  function beginPan(event: PointerEvent): void {
    event.preventDefault();
    const from = { x: event.clientX - pan.value.x, y: event.clientY - pan.value.y };
    zoom.value ??= scale.value;
    beginDrag(event, { move: (e) => void (pan.value = { x: e.clientX - from.x, y: e.clientY - from.y }) });
  }

  return { ...place, zoomTo, showBox, touch, isPinching, fit, wheel, beginPan };
}

export type PictureView = ReturnType<typeof usePictureView>;
