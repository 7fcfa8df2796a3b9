/** How the picture lies on its stage: fitted or zoomed, and moved about. */
import { beginDrag } from "@/composables/useDrag";
import { computed, type Ref, ref } from "vue";
import { distance, type Matrix, moved, type Point } from "@/geometry/matrix";
import type { Bounds } from "@/geometry/together";
import { useScene } from "@/stores/scene";

const MARGIN = 10;
/** What the tools beside the picture take of the stage, px. */
const TOOLS = 56;
/** What is left free around what is zoomed to, px. */
const AROUND = 40;
const LEAST = 0.05;
const MOST = 16;

export function usePictureView(stage: Ref<HTMLElement | undefined>, width: Ref<number>, height: Ref<number>) {
  const scene = useScene();
  /** Null while the picture is fitted to its stage. */
  const zoom = ref<number | null>(null);
  const pan = ref<Point>({ x: 0, y: 0 });

  const size = computed(() => scene.motion?.size ?? [1280, 720]);
  const fitted = computed(() =>
    Math.max(
      LEAST,
      Math.min((width.value - MARGIN * 2 - TOOLS) / size.value[0], (height.value - MARGIN * 2) / size.value[1]),
    ),
  );
  const scale = computed(() => zoom.value ?? fitted.value);
  const shownWidth = computed(() => size.value[0] * scale.value);
  const shownHeight = computed(() => size.value[1] * scale.value);
  const left = computed(() => Math.round((width.value + TOOLS - shownWidth.value) / 2 + pan.value.x));
  const top = computed(() => Math.round((height.value - shownHeight.value) / 2 + pan.value.y));

  function toStage(clientX: number, clientY: number): Point {
    const rect = stage.value?.getBoundingClientRect();
    return { x: clientX - (rect?.left ?? 0), y: clientY - (rect?.top ?? 0) };
  }

  function toPicture(clientX: number, clientY: number): Point {
    const at = toStage(clientX, clientY);
    return { x: (at.x - left.value) / scale.value, y: (at.y - top.value) / scale.value };
  }

  /** A point of an object's own space, on the stage. */
  function onStage(world: Matrix, point: Point): Point {
    const at = moved(world, point);
    return { x: at.x * scale.value + left.value, y: at.y * scale.value + top.value };
  }

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

  /** Two fingers move the picture, and zoom it by how far they are apart. */
  const fingers = new Map<number, Point>();
  const isPinching = (): boolean => fingers.size > 1;
  function touch(event: PointerEvent): void {
    if (event.pointerType !== "touch") return;
    const [at, known] = [{ x: event.clientX, y: event.clientY }, fingers.has(event.pointerId)];
    if (event.type === "pointerdown") fingers.set(event.pointerId, at);
    else if (event.type !== "pointermove") fingers.delete(event.pointerId);
    if (event.type !== "pointermove" || !known) return;
    const before = [...fingers.values()];
    fingers.set(event.pointerId, at);
    if (fingers.size !== 2) return;
    const now = [...fingers.values()];
    const [was, is] = [middle(before), middle(now)];
    const factor = distance(now[0]!, now[1]!) / Math.max(distance(before[0]!, before[1]!), 1);
    zoomTo(scale.value * factor, toStage(was.x, was.y));
    pan.value = { x: pan.value.x + is.x - was.x, y: pan.value.y + is.y - was.y };
  }

  function beginPan(event: PointerEvent): void {
    event.preventDefault();
    const from = { x: event.clientX - pan.value.x, y: event.clientY - pan.value.y };
    zoom.value ??= scale.value;
    beginDrag(event, { move: (e) => void (pan.value = { x: e.clientX - from.x, y: e.clientY - from.y }) });
  }

  return {
    zoom,
    scale,
    shownWidth,
    shownHeight,
    left,
    top,
    toStage,
    toPicture,
    onStage,
    zoomTo,
    showBox,
    touch,
    isPinching,
    fit,
    wheel,
    beginPan,
  };
}

const middle = ([a, b]: readonly Point[]): Point => ({ x: (a!.x + b!.x) / 2, y: (a!.y + b!.y) / 2 });

export type PictureView = ReturnType<typeof usePictureView>;
