/** Painting objects that are each at a frame of their own, as while cues are played. */
import { type Motion, valuesAt } from "@/api/motion";
import { type Matrix, times, toMatrix } from "@/geometry/matrix";
import { hits } from "@/picture/boxes";
import { background, paintObject } from "@/picture/paint";

export interface Live {
  /** The frame an object is at. */
  readonly frameOf: (id: string) => number;
  readonly parentOf: (id: string) => string | null;
}

/** Where an object is when it and what it hangs on are at frames of their own. */
export function worldLive(motion: Motion, live: Live, id: string): Matrix {
  const frame = live.frameOf(id);
  const thing = motion.objects.get(id);
  const parent = live.parentOf(id);
  if (!thing) return [1, 0, 0, 1, 0, 0];
  let alike = true;
  for (let at = parent; at; at = live.parentOf(at)) alike &&= live.frameOf(at) === frame;
  return parent && !alike ? times(worldLive(motion, live, parent), toMatrix(valuesAt(thing.local, frame))) : toMatrix(valuesAt(thing.world, frame));
}

export function paintLive(ctx: CanvasRenderingContext2D, motion: Motion, live: Live, width: number, height: number): void {
  const scale = background(ctx, motion, width, height);
  for (const id of motion.order) {
    const thing = motion.objects.get(id);
    if (thing?.outline && !motion.hidden.has(id)) paintObject(ctx, thing, live.frameOf(id), scale, 0, 0, worldLive(motion, live, id));
  }
}

/** The foremost object at a point, each at its own frame. */
export const liveAt = (motion: Motion, live: Live, point: { x: number; y: number }): string | null =>
  motion.order.findLast((id) => !motion.hidden.has(id) && hits(motion, id, live.frameOf(id), point, 4, worldLive(motion, live, id))) ?? null;
