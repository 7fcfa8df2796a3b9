import { describe, expect, it } from "vitest";
import { lookDrawingOf } from "./lookGrips";

const edges = { middle: { x: 100, y: 80 }, right: { x: 140, y: 80 } };
const grips = (kind: string, numbers: Record<string, number>, words: Record<string, string> = {}) =>
  lookDrawingOf({
    kind,
    number: (name) => numbers[name] ?? 0,
    word: (name) => words[name] ?? "",
    pivot: { x: 100, y: 80 },
    edges,
    nth: 0,
    px: 1,
  }).grips;

describe("grips of looks", () => {
  it("gives a shadow what lies between it and the middle", () => {
    const [where, blur] = grips("shadow", { dx: 8, dy: 12, blur: 6 });
    expect(where?.at).toEqual({ x: 108, y: 92 });
    expect(where?.drag({ x: 130.3, y: 70 })).toEqual({ dx: 30.5, dy: -10 });
    expect(blur?.drag({ x: blur.at.x + 4, y: 0 })).toEqual({ blur: 10 });
  });

  it("keeps a blur from going below nothing", () => {
    const [size] = grips("blur", { size: 6 });
    expect(size?.drag({ x: 0, y: 0 })).toEqual({ size: 0 });
    expect(size?.drag({ x: size.at.x + 1, y: 500 })).toEqual({ size: 7 });
  });

  it("turns and pulls a fringe, or pulls it outward", () => {
    const [one] = grips("fringe", { distance: 6 }, { way: "sideways" });
    expect(one?.drag({ x: 100, y: 80 + 24 + 9 })).toEqual({ distance: 9, angle: 90 });
    const [out] = grips("fringe", { distance: 6 }, { way: "outward" });
    expect(out?.at).toEqual({ x: 206, y: 80 });
    expect(out?.drag({ x: 212, y: 80 })).toEqual({ distance: 12 });
  });

  it("has none for what has no place in the picture", () => {
    expect(grips("recolour", {})).toEqual([]);
  });
});
