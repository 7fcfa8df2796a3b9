/** What lies around an inset, dimmed, in the space of the scene inside it. */
import { type Motion, numberAt, type Rows, valuesAt } from "@/api/motion";
import { inverse, type Matrix, times, toMatrix } from "@/geometry/matrix";
import { acquireCanvas, releaseCanvas } from "@/picture/layers";
import { atFrame } from "@/picture/frameView";
import { paintSteps } from "@/picture/paint";

/** How much of what lies around is seen. */
const DIMMED = 0.28;

/** The frame outside at which an inset shows a frame of its inside: the first of those that come nearest. */
export function frameAround(shown: Rows, inner: number): number {
  let best = 0;
  for (let frame = 1; frame < shown.rows; frame++)
    if (Math.abs(numberAt(shown, frame) - inner) < Math.abs(numberAt(shown, best) - inner)) best = frame;
  return best;
}

/** Paint what lies around an inset over the empty picture of its inside, at a frame of that. */
export function paintAround(
  ctx: CanvasRenderingContext2D,
  outside: { readonly motion: Motion; readonly use: string },
  inner: number,
  scale: number,
): void {
  const { motion, use } = outside;
  const thing = motion.objects.get(use);
  const [shown, size] = [thing?.channels["inset.frame"], thing?.channels["inset.size"]];
  if (!thing || !shown || !size) return;
  const frame = frameAround(shown, inner);
  const [width = 0, height = 0] = valuesAt(size, 0);
  const home = inverse(times(toMatrix(valuesAt(thing.view, frame)), [1, 0, 0, 1, -width / 2, -height / 2]));
  if (!home) return;
  const base: Matrix = times([scale, 0, 0, scale, 0, 0], home);
  const layer = acquireCanvas(ctx.canvas.width, ctx.canvas.height);
  paintSteps(layer, motion.steps, { ...atFrame(frame), only: (step) => step.shown && step.id !== use }, base);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.globalAlpha = DIMMED;
  const { width: w, height: h } = ctx.canvas;
  ctx.drawImage(layer.canvas, 0, 0, w, h, 0, 0, w, h);
  ctx.globalAlpha = 1;
  releaseCanvas(layer);
}
