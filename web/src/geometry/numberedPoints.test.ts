import { describe, expect, it } from "vitest";
import type { OutlinePoints } from "@/api/types";
import { movedPoint, numbered, withHandleMoved } from "@/geometry/numberedPoints";

const at = (x: number, y: number, into: number[] | null = null, out: number[] | null = null) => ({
  x,
  y,
  into,
  out,
  smooth: into !== null && out !== null,
});
const PARTS = [
  { closed: true, points: [at(0, 0), at(10, 0, [6, 0], [14, 0]), at(10, 10)] },
  { closed: false, points: [at(20, 0), at(30, 0)] },
] as unknown as OutlinePoints["parts"];

describe("points of an outline", () => {
  it("are numbered through all parts; closed parts come back to their first", () => {
    const points = numbered(PARTS);
    expect(points.map((one) => one.number)).toEqual([0, 1, 2, 3, 4]);
    expect(points.map((one) => one.next)).toEqual([1, 2, 0, 4, null]);
    expect(points.map((one) => one.first)).toEqual([true, false, false, true, false]);
    expect(points.map((one) => one.end)).toEqual([false, false, false, true, true]);
  });

  it("move with their handles", () => {
    const moved = movedPoint(numbered(PARTS)[1]!, { x: 1, y: 2 });
    expect([moved.at, moved.into, moved.out]).toEqual([
      { x: 11, y: 2 },
      { x: 7, y: 2 },
      { x: 15, y: 2 },
    ]);
  });

  it("turn the other handle along with the one that is moved, at its own length", () => {
    const turned = withHandleMoved(numbered(PARTS)[1]!, "out", { x: -4, y: 8 }, false);
    expect(turned.out).toEqual({ x: 10, y: 8 });
    expect(turned.into!.x).toBeCloseTo(10, 12);
    expect(turned.into!.y).toBeCloseTo(-4, 12);
  });

  it("leave the other handle alone where they are broken apart, and a missing handle missing", () => {
    const points = numbered(PARTS);
    expect(withHandleMoved(points[1]!, "in", { x: 0, y: 3 }, true).out).toEqual({ x: 14, y: 0 });
    expect(withHandleMoved(points[0]!, "in", { x: 0, y: 3 }, false)).toEqual(points[0]);
  });
});
