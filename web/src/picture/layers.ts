/** Layers: where some steps are on the canvas, and spare canvases to paint them on. */
import { numberAt, valuesAt } from "@/api/motion";
import { IDENTITY, type Matrix, moved, times } from "@/geometry/matrix";
import { effectsOf, inside, type FrameView, outlineAt, placeOf } from "@/picture/frameView";
import { measured, reachOf as reachOfEffect } from "@/picture/measure";
import { endless, type Group, reachOf, type Step } from "@/api/paintList";

/** A box in device pixels. */
export interface Extent {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Half of what is repeated without end: px, beyond every picture. */
const ENDLESS = 1e7;

/**
 * The box that some steps can paint in; null if they paint nothing. What effects paint beyond that counts with
 * `withEffects`.
 */
export function extentOf(
  steps: readonly Step[],
  view: FrameView,
  base: Matrix,
  earlier: number,
  withEffects = false,
): Extent | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const add = (matrix: Matrix, box: readonly [number, number, number, number]): void => {
    for (const x of [box[0], box[2]]) {
      for (const y of [box[1], box[3]]) {
        const p = moved(matrix, { x, y });
        [left, top, right, bottom] = [
          Math.min(left, p.x),
          Math.min(top, p.y),
          Math.max(right, p.x),
          Math.max(bottom, p.y),
        ];
      }
    }
  };
  const visit = (some: readonly Step[], seen: FrameView, outer: Matrix, before: number): void => {
    for (const step of some) {
      const frame = seen.frameOf(step.id) - before;
      if (step.op === "group" && withEffects && step.effects.length) {
        const inner = extentOf(step.steps, seen, outer, before, true);
        const box = inner && withReach(inner, step, seen, frame, outer);
        if (box) add(IDENTITY, [box.left, box.top, box.left + box.width, box.top + box.height]);
      } else if (step.op === "group") visit(step.steps, seen, outer, before);
      else if (step.op === "copies") visit(step.instances, seen, outer, before);
      else if (step.op === "instance") {
        const place = times(outer, placeOf(step, frame, seen));
        if (step.frames) visit(step.steps, inside(step.frames, frame), place, 0);
        else visit(step.steps, seen, place, before + step.delay);
      } else if (step.op === "picture") {
        const [width = 0, height = 0] = valuesAt(step.size, frame);
        const [across, down] = endless(step);
        const [wide, high] = [across ? ENDLESS : width / 2, down ? ENDLESS : height / 2];
        add(times(outer, placeOf(step, frame, seen)), [-wide, -high, wide, high]);
      } else {
        const bounds = outlineAt(step.outline, frame)?.bounds;
        const line = step.op === "stroke" ? (numberAt(step.width, frame) / 2) * reachOf(step) : 0;
        if (bounds)
          add(times(outer, placeOf(step, frame, seen)), [
            bounds[0] - line,
            bounds[1] - line,
            bounds[2] + line,
            bounds[3] + line,
          ]);
      }
    }
  };
  visit(steps, view, base, earlier);
  return right >= left ? { left, top, width: right - left, height: bottom - top } : null;
}

/** A box with room for what the effects of a group paint around it. */
export function withReach(box: Extent, step: Group, view: FrameView, frame: number, base: Matrix): Extent {
  return effectsOf(step, view).reduce((now, effect) => {
    const reach = reachOfEffect(effect, frame, measured(effect, frame, base), now);
    return grown(now, reach);
  }, box);
}

/** A box with this many px more all round. */
export const grown = ({ left, top, width, height }: Extent, by: number): Extent => ({
  left: left - by,
  top: top - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/**
 * Spare canvases by their size, in steps of STEP px: what is painted from a canvas costs as much as the whole of it.
 */
const spare = new Map<string, CanvasRenderingContext2D[]>();
const STEP = 32;
const stepped = (side: number): number => Math.max(STEP, Math.ceil(side / STEP) * STEP);

/** An empty canvas of at least this size, to be released when it is done with. */
export function acquireCanvas(width: number, height: number): CanvasRenderingContext2D {
  const [wide, high] = [stepped(width), stepped(height)];
  const known = spare.get(`${wide} ${high}`)?.pop();
  if (known) {
    known.setTransform(1, 0, 0, 1, 0, 0);
    known.clearRect(0, 0, wide, high);
    return known;
  }
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [wide, high];
  const ctx = canvas.getContext("2d", { willReadFrequently: true });
  if (!ctx) throw new Error("the browser makes no canvas to paint on");
  return ctx;
}

/** This many spare canvases of one size are kept, and of this many sizes. */
const [MOST_ALIKE, MOST_SIZES] = [8, 24];

/** Give a canvas back. */
export function releaseCanvas(layer: CanvasRenderingContext2D): void {
  const size = `${layer.canvas.width} ${layer.canvas.height}`;
  const alike = spare.get(size) ?? [];
  // The sizes asked for last come last.
  spare.delete(size);
  spare.set(size, alike);
  if (alike.length < MOST_ALIKE) alike.push(layer);
  for (const old of spare.keys()) {
    if (spare.size <= MOST_SIZES) break;
    spare.delete(old);
  }
}
