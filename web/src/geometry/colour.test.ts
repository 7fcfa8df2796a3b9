import { describe, expect, it } from "vitest";
import { hexOf, rgbaOf } from "./colour";

describe("colours in hex", () => {
  it("come out as they went in, short forms in full", () => {
    for (const [written, long] of [
      ["#F2932B", "#F2932B"],
      ["#abc", "#AABBCC"],
      ["#1234", "#11223344"],
      ["#11223344", "#11223344"],
    ]) {
      expect(hexOf(rgbaOf(written!))).toBe(long);
    }
  });
  it("are opaque unless they say otherwise", () => {
    expect(rgbaOf("#000")).toEqual([0, 0, 0, 1]);
    expect(rgbaOf("#00000080")[3]).toBeCloseTo(128 / 255);
  });
});
