<script lang="ts">
const SIDE = 28;
/** What thumbnails are on, r g b: --paper-3, and --ink-2. */
const [PAPER, INK] = [[239, 231, 214] as const, [86, 96, 90] as const];
/** One canvas paints all thumbnails: many canvases on a page cost every frame of playback, pictures cost nothing. */
let painter: CanvasRenderingContext2D | null = null;

function shared(): CanvasRenderingContext2D | null {
  if (!painter) {
    const canvas = document.createElement("canvas");
    canvas.width = canvas.height = SIDE * 2;
    painter = canvas.getContext("2d", { willReadFrequently: true });
  }
  return painter;
}
</script>

<script setup lang="ts">
/** Some objects, painted small from their kept motion: while something is dragged, its thumbnail can wait. */
import { useElementVisibility, watchDebounced } from "@vueuse/core";
import { ref } from "vue";
import { IDENTITY } from "@/geometry/matrix";
import { areaOf, hardlySeen, strongest } from "@/picture/contrast";
import { extentOf } from "@/picture/layers";
import { atFrame } from "@/picture/frameView";
import { paintSteps } from "@/picture/paint";
import { stepsOf } from "@/api/paintList";
import { arrived } from "@/api/pictures";
import { useScene } from "@/stores/scene";

const props = defineProps<{ ids: readonly string[]; frame: number }>();
const scene = useScene();
const image = ref<HTMLElement>();
const seen = useElementVisibility(image);
const source = ref("");
/** Pale objects are on a dark ground. */
const pale = ref(false);

const painted = () => props.ids.map((id) => scene.kept?.objects.get(id));

/**
 * What is not painted by a third anywhere is not there; what comes to fewer pixels than this are specks, of which one
 * is shown larger.
 */
const [THERE, FEW, LARGER] = [1 / 3, 12, 16];

function paint(): void {
  const ctx = shared();
  if (!ctx) return;
  const side = ctx.canvas.width;
  const steps = stepsOf(scene.kept?.steps ?? [], new Set(props.ids));
  const last = (scene.kept?.length ?? 1) - 1;
  let pixels = new Uint8ClampedArray();

  /** Paint at a frame, `x` and `y` of the picture in the middle. */
  function paintAt(frame: number, scale: number, x: number, y: number): void {
    ctx!.setTransform(1, 0, 0, 1, 0, 0);
    ctx!.clearRect(0, 0, side, side);
    paintSteps(ctx!, steps, plainAt(frame), [scale, 0, 0, scale, side / 2 - x * scale, side / 2 - y * scale]);
    pixels = ctx!.getImageData(0, 0, side, side).data;
  }

  // What grows out of nothing, or fades in, is shown at a frame at which it is there.
  for (const frame of [props.frame, Math.round(last / 3), Math.round((2 * last) / 3)]) {
    const box = extentOf(steps, plainAt(frame), IDENTITY, 0);
    if (!box || box.width < 0.5) continue;
    const scale = (side - 6) / Math.max(box.width, box.height, 1);
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    paintAt(frame, scale, x, y);
    const { at, share } = strongest(pixels);
    if (share < THERE) continue;
    const [right, down] = [(at % side) + 0.5 - side / 2, Math.floor(at / side) + 0.5 - side / 2];
    if (areaOf(pixels) < FEW) paintAt(frame, scale * LARGER, x + right / scale, y + down / scale);
    break;
  }
  pale.value = hardlySeen(pixels, PAPER, INK);
  source.value = ctx.canvas.toDataURL();
}

/** What an object is shows best without what is done to its look. */
const plainAt = (frame: number) => ({ ...atFrame(frame), only: () => true, effectsOf: () => [] });

watchDebounced([seen, painted, arrived], ([visible]) => visible && paint(), {
  debounce: () => (source.value ? 250 : 0),
  immediate: true,
});
</script>

<template>
  <span ref="image" class="thumb" :class="{ pale }"
    ><img v-if="source" :src="source" :width="SIDE" :height="SIDE" alt="" draggable="false"
  /></span>
</template>

<style scoped>
.thumb {
  width: 28px;
  height: 28px;
  border-radius: 8px;
  background: var(--paper-3);
  flex: none;
  display: block;
}
.pale {
  background: var(--ink-2);
}
img {
  display: block;
}
</style>
