import { describe, expect, it } from "vitest";
import { curvePath, extent, speeds, stemPath } from "./curves";
import { parseFrame, readable, rulerStep, spaced, whose } from "./frames";
import { angleBetween, inverse, type Matrix, moved, rounded, straightened } from "./matrix";

describe("frames as people write them", () => {
  it.each([
    ["24", 24],
    ["1s", 24],
    ["1.5 s", 36],
    ["0,5s", 12],
    ["12f", 12],
    ["+6", 106],
    ["- 6", 94],
    [".5s", 12],
  ])("%s means frame %d", (text, frame) => expect(parseFrame(text, 24, 100)).toBe(frame));

  it.each(["", "s", "2x", "1 2", "--3", "1e3"])("%j means none", (text) =>
    expect(parseFrame(text, 24, 100)).toBeNull(),
  );

  it("labels a ruler with room to read", () => {
    for (const perFrame of [0.01, 0.3, 2, 8, 70]) {
      expect(rulerStep(perFrame, 24) * perFrame).toBeGreaterThanOrEqual(Math.min(64, 14400 * perFrame));
    }
    expect(rulerStep(8, 24)).toBe(10);
    expect(rulerStep(3, 24)).toBe(24);
  });
});

describe("numbers as people write them", () => {
  it("says whose it is", () => expect([whose("Mango"), whose("Near leaves")]).toEqual(["Mango’s", "Near leaves’"]));
  it("never shows a minus nought", () => expect(readable(-0.01)).toBe("0.0"));
  it("sets units apart, but for degrees", () =>
    expect(["°", "px", "%", ""].map(spaced)).toEqual(["°", " px", " %", ""]));
  it("rounds without a tail", () => expect(rounded(0.1 + 0.2, 0.1)).toBe(0.3));
});

describe("matrices", () => {
  const matrix: Matrix = [2, 0.5, -1, 3, 40, -7];
  it("undoes what it did", () => {
    const there = moved(matrix, { x: 5, y: -8 });
    const back = moved(inverse(matrix)!, there);
    expect(back.x).toBeCloseTo(5, 10);
    expect(back.y).toBeCloseTo(-8, 10);
  });
  it("has no inverse when flat", () => expect(inverse([1, 2, 2, 4, 0, 0])).toBeNull());
  it("turns clockwise with y down", () => expect(angleBetween({ x: 1, y: 0 }, { x: 0, y: 1 })).toBeCloseTo(90));
  it("keeps one direction", () => expect(straightened({ x: 3, y: -9 })).toEqual({ x: 0, y: -9 }));
});

describe("curves", () => {
  it("draws high values high", () => expect(curvePath([0, 1], 10, 4, 0, 1)).toBe("M0.0 4.0L10.0 0.0"));
  it("gives a still curve some height", () => expect(extent([[5, 5]])).toEqual({ low: 4.5, high: 5.5 }));
  it("measures speed along both axes together", () =>
    expect([
      ...speeds(
        [
          [0, 3, 3],
          [0, 4, 4],
        ],
        3,
      ),
    ]).toEqual([5, 0]));
  it("makes the stem thick where it is fast", () => {
    const path = stemPath([0, 9, 9, 9], 0, 4, 9, 10, 2, 10);
    expect(path).toContain("0.0 -1.00");
    expect(path).toContain("30.0 -5.00");
  });
});
