/** The points of an outline as they are edited: numbered through all its parts, with their handles. */
import type { OutlinePoints } from "@/api/types";
import { distance, type Point } from "@/geometry/matrix";
import type { HandledPoint } from "@/geometry/outline";

/** A point with its number, in the object's own space. */
export interface NumberedPoint extends HandledPoint {
  readonly number: number;
  readonly smooth: boolean;
  /** The next point of its part, for which the outline leaves it; none at the end of an open part. */
  readonly next: number | null;
  readonly first: boolean;
  /** Whether it is an end of an open part. */
  readonly end: boolean;
}
export type Side = "in" | "out";

const point = (p: readonly number[] | null | undefined): Point | null => (p ? { x: p[0]!, y: p[1]! } : null);
const shifted = (p: Point | null, by: Point): Point | null => p && { x: p.x + by.x, y: p.y + by.y };

/** All points of all parts, numbered one after the other. */
export function numbered(parts: OutlinePoints["parts"]): NumberedPoint[] {
  let begin = 0;
  return parts.flatMap((part) => {
    const start = begin;
    begin += part.points.length;
    return part.points.map((one, i): NumberedPoint => {
      const last = i === part.points.length - 1;
      return {
        number: start + i,
        at: { x: one.x, y: one.y },
        into: point(one.into),
        out: point(one.out),
        smooth: one.smooth,
        next: last ? (part.closed ? start : null) : start + i + 1,
        first: i === 0,
        end: !part.closed && (i === 0 || last),
      };
    });
  });
}

export const handleOf = (one: HandledPoint, side: Side): Point | null => (side === "out" ? one.out : one.into);

/** A point moved with both its handles. */
export const movedPoint = (one: NumberedPoint, by: Point): NumberedPoint => ({
  ...one,
  at: { x: one.at.x + by.x, y: one.at.y + by.y },
  into: shifted(one.into, by),
  out: shifted(one.out, by),
});

/** A point with one handle moved. The other keeps its length and lies across from it, unless they are broken apart. */
export function withHandleMoved(one: NumberedPoint, side: Side, by: Point, broken: boolean): NumberedPoint {
  const to = shifted(handleOf(one, side), by);
  if (!to) return one;
  const other = handleOf(one, side === "out" ? "in" : "out");
  const reach = distance(to, one.at);
  const own = other ? distance(other, one.at) : 0;
  const across =
    other && !broken && reach > 0
      ? { x: one.at.x - ((to.x - one.at.x) * own) / reach, y: one.at.y - ((to.y - one.at.y) * own) / reach }
      : other;
  return side === "out" ? { ...one, out: to, into: across } : { ...one, into: to, out: across };
}
