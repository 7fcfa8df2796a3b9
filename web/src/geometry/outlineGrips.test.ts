import { describe, expect, it } from "vitest";
import { outlineDrawingOf, type OutlineGripped } from "./outlineGrips";

const on = (kind: string, numbers: Record<string, number>, words: Record<string, string> = {}): OutlineGripped => ({
  kind,
  number: (name) => numbers[name] ?? 0,
  word: (name) => words[name] ?? "",
  box: [-100, -50, 100, 50],
});
const grip = (given: OutlineGripped, id: string) => outlineDrawingOf(given).grips.find((one) => one.id === id)!;

describe("grips of rules on outlines", () => {
  it.each([
    ["ripple", { amplitude: 12, waves: 5 }, ["amplitude", "waves"]],
    ["taper", { size: 0.4, direction: 30 }, ["size", "direction"]],
    ["bend", { angle: 80, direction: 0 }, ["angle"]],
    ["swirl", { x: 10, y: -5, radius: 80, angle: 60 }, ["radius", "angle"]],
    ["rough", { amplitude: 6 }, ["amplitude"]],
    ["round", { radius: 20 }, ["radius"]],
  ] as const)("of %s stand for their settings where they lie", (kind, numbers, ids) => {
    for (const id of ids) {
      const one = grip(on(kind, numbers, { held: "start" }), id);
      const value = one.drag(one.at)[id];
      expect(value).toBeCloseTo((numbers as Record<string, number>)[id]!, 1);
    }
  });

  it("bend further where the end is pulled further, whatever is held", () => {
    for (const held of ["start", "middle", "end"]) {
      const given = on("bend", { angle: 60 }, { held });
      const tip = grip(given, "angle");
      expect(tip.drag(tip.at)["angle"]).toBeCloseTo(60, 0);
    }
  });

  it("follow the outline where it is drawn on", () => {
    const along = { at: (share: number) => ({ x: share * 100, y: 0 }), nearest: (to: { x: number }) => to.x / 100 };
    const given = { ...on("draw-on", { from: 0.1, to: 0.6 }), along };
    expect(grip(given, "to").at).toMatchObject({ x: expect.closeTo(60), y: 0 });
    expect(grip(given, "to").drag({ x: 82, y: 9 })).toEqual({ to: 0.82 });
    expect(outlineDrawingOf(on("draw-on", { to: 1 })).grips).toEqual([]);
  });
});
