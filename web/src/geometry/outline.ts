/** Outlines as they are drawn and edited: path data of points with handles, and the nearest place on a curve. */
import { distance, type Point } from "./matrix";

export interface HandledPoint {
  readonly at: Point;
  readonly into: Point | null;
  readonly out: Point | null;
}

const said = (p: Point): string => `${Number(p.x.toFixed(2))} ${Number(p.y.toFixed(2))}`;

/** The SVG path data of points with handles, one after the other. */
export function pathOf(points: readonly HandledPoint[], closed: boolean): string {
  const [first] = points;
  if (!first) return "";
  const pieces = points.slice(1).map((point, i) => pieceOf(points[i]!, point));
  const last = points.at(-1)!;
  if (closed) pieces.push(last.out || first.into ? `${pieceOf(last, first)} Z` : "Z");
  return [`M ${said(first.at)}`, ...pieces].join(" ");
}

const pieceOf = (from: HandledPoint, to: HandledPoint): string =>
  from.out || to.into ? `C ${said(from.out ?? from.at)} ${said(to.into ?? to.at)} ${said(to.at)}` : `L ${said(to.at)}`;

/** The point of a piece at a share of its parameter. */
export function onPiece(from: HandledPoint, to: HandledPoint, u: number): Point {
  const [a, b, c, d] = [from.at, from.out ?? from.at, to.into ?? to.at, to.at];
  if (!from.out && !to.into) return { x: a.x + (d.x - a.x) * u, y: a.y + (d.y - a.y) * u };
  const v = 1 - u;
  const mixed = (k: "x" | "y"): number => v ** 3 * a[k] + 3 * v * v * u * b[k] + 3 * v * u * u * c[k] + u ** 3 * d[k];
  return { x: mixed("x"), y: mixed("y") };
}

/** The share of a piece, between its ends, that is nearest to a point. */
export function nearestOn(from: HandledPoint, to: HandledPoint, point: Point): number {
  let best = { u: 0.5, far: Infinity };
  for (let u = 0.01; u < 1; u += 0.01) {
    const far = distance(onPiece(from, to, u), point);
    if (far < best.far) best = { u, far };
  }
  return Number(best.u.toFixed(3));
}

/** Of many places along a hand's way at most this many, evenly. */
export function thinned<T>(places: readonly T[], most: number): readonly T[] {
  if (places.length <= most) return places;
  const step = (places.length - 1) / (most - 1);
  return Array.from({ length: most }, (_, i) => places[Math.round(i * step)]!);
}

/** The box around some path data, by all numbers in it: control points too. */
export function boxAround(paths: readonly string[]): { x: number; y: number; width: number; height: number } {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const path of paths) {
    const numbers = path.match(/-?\d+(?:\.\d+)?/g) ?? [];
    for (let i = 0; i + 1 < numbers.length; i += 2) {
      const [x, y] = [Number(numbers[i]), Number(numbers[i + 1])];
      [left, right] = [Math.min(left, x), Math.max(right, x)];
      [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
    }
  }
  if (left > right) return { x: 0, y: 0, width: 1, height: 1 };
  const room = Math.max(right - left, bottom - top, 1) * 0.06;
  return { x: left - room, y: top - room, width: right - left + 2 * room, height: bottom - top + 2 * room };
}
