import { describe, expect, it } from "vitest";
import { hardlySeen } from "./contrast";

const PAPER = [238, 230, 214] as const;
const pixels = (...all: number[][]): Uint8ClampedArray => new Uint8ClampedArray(all.flat());

describe("hardlySeen", () => {
  it("is so of pale things, and of dark ones that are nearly see-through", () => {
    expect(hardlySeen(pixels([255, 255, 240, 255]), PAPER)).toBe(true);
    expect(hardlySeen(pixels([0, 0, 0, 12]), PAPER)).toBe(true);
  });

  it("is not so where a part stands out", () => {
    expect(hardlySeen(pixels([255, 255, 240, 255], [30, 60, 40, 255]), PAPER)).toBe(false);
    expect(hardlySeen(pixels([0, 0, 0, 60]), PAPER)).toBe(false);
  });

  it("is not so where nothing is painted", () => {
    expect(hardlySeen(pixels([0, 0, 0, 0]), PAPER)).toBe(false);
  });
});
