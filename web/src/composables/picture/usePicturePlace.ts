/** Where the picture is on its stage, and where its points are there. */
import { computed, type Ref, ref } from "vue";
import { type Matrix, moved, type Point } from "@/geometry/matrix";
import { useScene } from "@/stores/scene";

const MARGIN = 10;
/** What the tools beside the picture take of the stage, px. */
export const TOOLS = 56;
/** The smallest scale the picture is shown at. */
export const LEAST = 0.05;

export function usePicturePlace(stage: Ref<HTMLElement | undefined>, width: Ref<number>, height: Ref<number>) {
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

  return { zoom, pan, size, scale, shownWidth, shownHeight, left, top, toStage, toPicture, onStage };
}

export type PicturePlace = ReturnType<typeof usePicturePlace>;
