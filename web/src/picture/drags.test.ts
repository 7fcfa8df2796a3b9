import { describe, expect, it } from "vitest";
import { type Matrix, moved } from "@/geometry/matrix";
import { beginMove, beginPivot, beginScale, beginTurn, type Held } from "./drags";

const free = { steady: false };
const steady = { steady: true };

/** The object matrix of the design, for objects without skew and stretch. */
function view(values: Record<string, number>, parent: Matrix = [1, 0, 0, 1, 0, 0]): Matrix {
  const angle = ((values.rotation ?? 0) * Math.PI) / 180;
  const [sx, sy] = [values["scale.x"] ?? 1, values["scale.y"] ?? 1];
  const [a, b, c, d] = [Math.cos(angle) * sx, Math.sin(angle) * sx, -Math.sin(angle) * sy, Math.cos(angle) * sy];
  const [px, py] = [values["pivot.x"] ?? 0, values["pivot.y"] ?? 0];
  const own: Matrix = [a, b, c, d, (values.x ?? 0) - a * px - c * py, (values.y ?? 0) - b * px - d * py];
  const origin = moved(parent, { x: own[4], y: own[5] });
  const [i, j] = [
    moved(parent, { x: own[4] + own[0], y: own[5] + own[1] }),
    moved(parent, { x: own[4] + own[2], y: own[5] + own[3] }),
  ];
  return [i.x - origin.x, i.y - origin.y, j.x - origin.x, j.y - origin.y, origin.x, origin.y];
}

const hold = (values: Record<string, number>, parent: Matrix = [1, 0, 0, 1, 0, 0]): Held => ({
  values,
  parent,
  view: view(values, parent),
});
const VALUES = { x: 100, y: 50, rotation: 30, "scale.x": 2, "scale.y": 0.5, "pivot.x": 10, "pivot.y": -4 };

describe("moving", () => {
  it("follows the pointer within a turned and grown parent", () => {
    const parent: Matrix = [0, 2, -2, 0, 300, 40];
    const held = hold(VALUES, parent);
    const grip = { x: 20, y: 8 };
    const from = moved(held.view, grip);
    const to = { x: from.x + 37, y: from.y - 12 };
    const after = { ...VALUES, ...beginMove(held, from)(to, free) };
    const now = moved(view(after, parent), grip);
    expect(now.x).toBeCloseTo(to.x, 0);
    expect(now.y).toBeCloseTo(to.y, 0);
  });
  it("keeps one direction with Shift", () => {
    expect(beginMove(hold(VALUES), { x: 0, y: 0 })({ x: 30, y: 4 }, steady)).toEqual({ x: 130, y: 50 });
  });
});

describe("turning", () => {
  it("counts whole turns", () => {
    const held = hold({ x: 0, y: 0, rotation: 0, "scale.x": 1, "scale.y": 1 });
    const drag = beginTurn(held, { x: 10, y: 0 });
    let rotation = 0;
    for (let degrees = 10; degrees <= 450; degrees += 10) {
      const angle = (degrees * Math.PI) / 180;
      rotation = drag({ x: 10 * Math.cos(angle), y: 10 * Math.sin(angle) }, free).rotation!;
    }
    expect(rotation).toBeCloseTo(450, 5);
  });
  it("goes in steps of 15° with Shift", () => {
    expect(beginTurn(hold({ x: 0, y: 0 }), { x: 10, y: 0 })({ x: 10, y: 4 }, steady).rotation).toBe(15);
  });
});

describe("scaling", () => {
  it("puts the corner under the pointer and leaves the pivot", () => {
    const held = hold(VALUES);
    const corner = { x: 60, y: 60 };
    const to = { x: 260, y: 190 };
    const after = { ...VALUES, ...beginScale(held, corner)(to, free) };
    const now = moved(view(after), corner);
    expect(now.x).toBeCloseTo(to.x, 0);
    expect(now.y).toBeCloseTo(to.y, 0);
    const pivot = { x: 10, y: -4 };
    expect(moved(view(after), pivot).x).toBeCloseTo(moved(held.view, pivot).x, 9);
    expect(moved(view(after), pivot).y).toBeCloseTo(moved(held.view, pivot).y, 9);
  });
  it("keeps proportions with Shift, and never becomes nothing", () => {
    const grown = beginScale(hold({ ...VALUES, rotation: 0 }), { x: 60, y: 60 })({ x: 300, y: 90 }, steady);
    expect(grown["scale.x"]! / grown["scale.y"]!).toBeCloseTo(4, 2);
    const flat = beginScale(hold({ x: 0, y: 0, "scale.x": 1, "scale.y": 1 }), { x: 50, y: 50 })({ x: 0, y: 0 }, free);
    expect(flat["scale.x"]).not.toBe(0);
  });
});

it("the pivot is found in the object's own space", () => {
  const held = hold(VALUES);
  const there = beginPivot(held)(moved(held.view, { x: -22, y: 31 }), free);
  expect(there["pivot.x"]).toBeCloseTo(-22, 5);
  expect(there["pivot.y"]).toBeCloseTo(31, 5);
});
