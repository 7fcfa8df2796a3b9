/** Painting the picture on its canvas: the frame at the playhead, the whole stage, or what is played live. */
import { useDevicePixelRatio } from "@vueuse/core";
import { computed, type Ref, watch, watchEffect } from "vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { paintAround } from "@/picture/around";
import { atFrame } from "@/picture/frameView";
import { paintLive } from "@/picture/live";
import { paintFrame, paintSteps } from "@/picture/paint";
import { useInside } from "@/stores/inside";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/** What of its size is left to the camera's frame when the whole stage comes into view. */
const CLEAR_OF_EDGES = 0.72;

export function usePicturePaint(
  canvas: Ref<HTMLCanvasElement | undefined>,
  view: PictureView,
  width: Ref<number>,
  height: Ref<number>,
) {
  const [scene, playback, live, inside] = [useScene(), usePlayback(), useLive(), useInside()];
  const { pixelRatio } = useDevicePixelRatio();

  /** Whether the whole stage is painted, as far as there is room. */
  const onStage = computed(() => scene.wholeStage && scene.camera !== null && !live.on);
  /** What the canvas covers: the picture, or all there is room for. */
  const covered = computed(() =>
    onStage.value
      ? { left: 0, top: 0, width: width.value, height: height.value }
      : { left: view.left.value, top: view.top.value, width: view.shownWidth.value, height: view.shownHeight.value },
  );
  /** The same as a style. */
  const placed = computed(() =>
    Object.fromEntries(Object.entries(covered.value).map(([side, length]) => [side, `${length}px`])),
  );

  watch(onStage, (whole) => (whole ? view.zoomTo(view.scale.value * CLEAR_OF_EDGES) : view.fit()));

  watchEffect(() => {
    const motion = scene.motion;
    const ctx = canvas.value?.getContext("2d");
    if (!ctx || !motion) return;
    const ratio = pixelRatio.value;
    const w = Math.max(1, Math.round(covered.value.width * ratio));
    const h = Math.max(1, Math.round(covered.value.height * ratio));
    if (ctx.canvas.width !== w || ctx.canvas.height !== h) [ctx.canvas.width, ctx.canvas.height] = [w, h];
    if (onStage.value) {
      const scale = view.scale.value * ratio;
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      ctx.fillStyle = motion.background;
      ctx.fillRect(0, 0, w, h);
      const base = [scale, 0, 0, scale, view.left.value * ratio, view.top.value * ratio] as const;
      paintSteps(ctx, motion.steps, atFrame(playback.frame), base);
    } else if (live.on) {
      paintLive(ctx, motion, { frameOf: live.frames && live.frameOf, parentOf: scene.parentOf }, w, h);
    } else {
      const outside = inside.outside;
      const around = outside && ((scale: number) => paintAround(ctx, outside, playback.frame, scale));
      paintFrame(ctx, motion, playback.frame, w, h, around ?? undefined);
    }
  });

  return { onStage, placed, pixelRatio };
}
