import { describe, expect, it } from "vitest";
import { nearestOn, onPiece, pathOf, thinned } from "./outline";

const corner = (x: number, y: number) => ({ at: { x, y }, into: null, out: null });
const smooth = { at: { x: 100, y: 0 }, into: { x: 80, y: 0 }, out: { x: 120, y: 0 } };

describe("drawn outlines", () => {
  it("are lines between corners and curves where a handle is", () => {
    expect(pathOf([corner(0, 0), smooth, corner(200, 50)], false)).toBe("M 0 0 C 0 0 80 0 100 0 C 120 0 200 50 200 50");
    expect(pathOf([corner(0, 0), corner(10, 0), corner(10, 10.126)], true)).toBe("M 0 0 L 10 0 L 10 10.13 Z");
    expect(pathOf([smooth, corner(0, 0)], true)).toBe("M 100 0 C 120 0 0 0 0 0 C 0 0 80 0 100 0 Z");
    expect(pathOf([], true)).toBe("");
  });

  it("tell the place nearest to a pointer", () => {
    expect(nearestOn(corner(0, 0), corner(100, 0), { x: 30, y: 40 })).toBeCloseTo(0.3, 2);
    const u = nearestOn(corner(0, 0), smooth, { x: 60, y: 5 });
    expect(Math.hypot(onPiece(corner(0, 0), smooth, u).x - 60, onPiece(corner(0, 0), smooth, u).y - 5)).toBeLessThan(6);
  });

  it("keep both ends of a hand's way when it is thinned", () => {
    const places = Array.from({ length: 1000 }, (_, i) => i);
    const few = thinned(places, 100);
    expect([few.length, few[0], few.at(-1)]).toEqual([100, 0, 999]);
    expect(thinned([1, 2], 100)).toEqual([1, 2]);
  });
});
