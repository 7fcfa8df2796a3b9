/** How lengths and directions of effects come out in device pixels, and how far effects paint. */
import { numberAt, valuesAt } from "@/api/motion";
import type { Effect, Fringe } from "@/api/paintList";
import { type Matrix, moved, type Point, times, toMatrix, turned } from "@/geometry/matrix";

/** This many standard deviations away from its edge, nothing of a blurred picture is left. */
export const FAR = 3;

/** From the space an effect is measured in to device pixels. */
export const measured = (effect: Effect, frame: number, base: Matrix): Matrix =>
  effect.matrix ? times(base, toMatrix(valuesAt(effect.matrix, frame))) : base;

/** How many px one of its own is, whichever the direction. */
export const scaleOf = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c));

/** A direction in degrees as one in radians in the picture. */
export function directionOf(matrix: Matrix, angle: number): number {
  const { x, y } = turned(matrix, {
    x: Math.cos((angle * Math.PI) / 180),
    y: Math.sin((angle * Math.PI) / 180),
  });
  return Math.atan2(y, x);
}

/** What the colours of a fringe are moved outward from. */
export function middleOf(effect: Fringe, frame: number, matrix: Matrix): Point | null {
  if (!effect.middle) return null;
  const [x = 0, y = 0] = valuesAt(effect.middle, frame);
  return moved(matrix, { x, y });
}

/** How far beyond a box an effect can paint, in px. */
export function reachOf(
  effect: Effect,
  frame: number,
  matrix: Matrix,
  box: { left: number; top: number; width: number; height: number },
): number {
  switch (effect.effect) {
    case "shadow": {
      const { x, y } = turned(matrix, { x: numberAt(effect.dx, frame), y: numberAt(effect.dy, frame) });
      return Math.hypot(x, y) + FAR * scaleOf(matrix) * numberAt(effect.blur, frame);
    }
    case "glow":
    case "blur":
      return FAR * scaleOf(matrix) * numberAt(effect.size, frame);
    case "fringe": {
      const distance = Math.abs(numberAt(effect.distance, frame));
      const middle = middleOf(effect, frame, matrix);
      if (!middle) return distance * scaleOf(matrix);
      const { left, top, width, height } = box;
      const [x, y] = [
        Math.max(Math.abs(left - middle.x), Math.abs(left + width - middle.x)),
        Math.max(Math.abs(top - middle.y), Math.abs(top + height - middle.y)),
      ];
      return (distance / 100) * Math.hypot(x, y);
    }
    default:
      return 0;
  }
}
