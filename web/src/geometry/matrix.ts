/** Plane affine matrices [a b c d e f], as the service bakes them; for turning a drag in the picture into values. */
export type Matrix = readonly [number, number, number, number, number, number];
export interface Point {
  readonly x: number;
  readonly y: number;
}

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

export const toMatrix = (row: ArrayLike<number>): Matrix => [
  row[0] ?? 1,
  row[1] ?? 0,
  row[2] ?? 0,
  row[3] ?? 1,
  row[4] ?? 0,
  row[5] ?? 0,
];

/** Where a point goes. */
export const moved = ([a, b, c, d, e, f]: Matrix, p: Point): Point => ({
  x: a * p.x + c * p.y + e,
  y: b * p.x + d * p.y + f,
});

/** Where a difference between two points goes. */
export const turned = ([a, b, c, d]: Matrix, p: Point): Point => ({ x: a * p.x + c * p.y, y: b * p.x + d * p.y });

/** left · right: what `right` does happens first. */
export const times = ([a, b, c, d, e, f]: Matrix, [p, q, r, s, t, u]: Matrix): Matrix => [
  a * p + c * q,
  b * p + d * q,
  a * r + c * s,
  b * r + d * s,
  a * t + c * u + e,
  b * t + d * u + f,
];

/** The inverse; null for a matrix that flattens everything. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix | null {
  const det = a * d - b * c;
  if (!Number.isFinite(det) || Math.abs(det) < 1e-12) return null;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** Degrees from one direction to another as seen from the origin, −180…180, clockwise positive (y is down). */
export function angleBetween(from: Point, to: Point): number {
  return (Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y) * 180) / Math.PI;
}

export const difference = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
export const length = (p: Point): number => Math.hypot(p.x, p.y);
export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The drag kept to the one direction it mostly has. */
export const straightened = (p: Point): Point => (Math.abs(p.x) >= Math.abs(p.y) ? { x: p.x, y: 0 } : { x: 0, y: p.y });

/** A number rounded to steps such as 0.1, without the tail binary fractions leave. */
export const rounded = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(6));
