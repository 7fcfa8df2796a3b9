/** Painting objects that are each at a frame of their own, as while cues are played. */
import { type Motion, valuesAt } from "@/api/motion";
import { IDENTITY, type Matrix, times, toMatrix } from "@/geometry/matrix";
import { topmostIn } from "@/picture/boxes";
import type { FrameView } from "@/picture/frameView";
import { background, paintSteps } from "@/picture/paint";

export interface Live {
  /** The frame an object is at. */
  readonly frameOf: (id: string) => number;
  readonly parentOf: (id: string) => string | null;
}

/** Where an object is in the picture when it and its parent are at frames of their own. */
export function viewLive(motion: Motion, live: Live, id: string): Matrix {
  const frame = live.frameOf(id);
  const thing = motion.objects.get(id);
  const parent = live.parentOf(id);
  if (!thing) return IDENTITY;
  let alike = true;
  for (let at = parent; at; at = live.parentOf(at)) alike &&= live.frameOf(at) === frame;
  return parent && !alike
    ? times(viewLive(motion, live, parent), toMatrix(valuesAt(thing.local, frame)))
    : toMatrix(valuesAt(thing.view, frame));
}

const view = (motion: Motion, live: Live): FrameView => ({
  frameOf: live.frameOf,
  // What is in copies has a place of its own there.
  matrixOf: (step) =>
    "matrix" in step && motion.objects.get(step.id)?.view === step.matrix ? viewLive(motion, live, step.id) : undefined,
});

/** Paint one frame of a scene in which cues put objects at frames of their own. */
export function paintLive(
  ctx: CanvasRenderingContext2D,
  motion: Motion,
  live: Live,
  width: number,
  height: number,
): void {
  const scale = background(ctx, motion, width, height);
  paintSteps(ctx, motion.steps, view(motion, live), [scale, 0, 0, scale, 0, 0]);
}

/** The foremost object at a point, each at its own frame. */
export const liveAt = (motion: Motion, live: Live, point: { x: number; y: number }): string | null =>
  topmostIn(motion.steps, view(motion, live), point, 4);
