import { describe, expect, it } from "vitest";
import { areaOf, hardlySeen, strongest } from "./contrast";

const PAPER = [238, 230, 214] as const;
const INK = [86, 96, 90] as const;
const pixels = (...all: number[][]): Uint8ClampedArray => new Uint8ClampedArray(all.flat());

describe("hardlySeen", () => {
  it("is so of pale things, and of dark ones that are nearly see-through", () => {
    expect(hardlySeen(pixels([255, 255, 240, 255]), PAPER, INK)).toBe(true);
    expect(hardlySeen(pixels([0, 0, 0, 12]), PAPER, INK)).toBe(true);
  });

  it("is not so where a part stands out", () => {
    expect(hardlySeen(pixels([255, 255, 240, 255], [30, 60, 40, 255]), PAPER, INK)).toBe(false);
    expect(hardlySeen(pixels([0, 0, 0, 60]), PAPER, INK)).toBe(false);
  });

  it("is not so where nothing is painted", () => {
    expect(hardlySeen(pixels([0, 0, 0, 0]), PAPER, INK)).toBe(false);
  });

  it("is so of a few specks that stand out more on another ground, and not of dark ones", () => {
    const specks = (...colour: number[]): Uint8ClampedArray => {
      const all = new Uint8ClampedArray(4 * 56 * 56);
      for (const place of [40, 1200, 2900]) all.set(colour, 4 * place);
      return all;
    };
    expect(hardlySeen(specks(255, 190, 60, 255), PAPER, INK)).toBe(true);
    expect(hardlySeen(specks(20, 30, 20, 255), PAPER, INK)).toBe(false);
  });
});

describe("areaOf and strongest", () => {
  it("tell how many pixels are painted, each by its share, and which one most", () => {
    const three = pixels([255, 255, 255, 0], [90, 90, 90, 51], [90, 90, 90, 102]);
    expect(areaOf(three)).toBeCloseTo(0.6);
    expect(strongest(three)).toEqual({ at: 2, share: 0.4 });
    expect([areaOf(pixels()), strongest(pixels())]).toEqual([0, { at: 0, share: 0 }]);
  });
});
