import { describe, expect, it } from "vitest";
import { curvePath, extent, speeds, stemPath } from "@/geometry/curves";

describe("curves of baked numbers", () => {
  it("go from the left to the right of their box, low values drawn low", () => {
    expect(curvePath([0, 1, 2], 100, 50, 0, 2)).toBe("M0.0 50.0L50.0 25.0L100.0 0.0");
    expect(curvePath([1], 100, 50, 0, 2)).toBe("M0.0 25.0L100 25.0");
    expect(curvePath([], 100, 50, 0, 2)).toBe("");
  });

  it("end on their last value however many are left out between", () => {
    const values = Array.from({ length: 1000 }, (_, i) => (i === 999 ? 1 : 0));
    const path = curvePath(values, 20, 10, 0, 1);
    expect(path.split("L").length).toBeLessThan(80);
    expect(path.endsWith("L20.0 0.0")).toBe(true);
  });

  it("reach with a little air, and are never of no height", () => {
    expect(extent([[0, 10], [5]])).toEqual({ low: -0.8, high: 10.8 });
    expect(extent([[4, 4]])).toEqual({ low: 3.6, high: 4.4 });
    expect(extent([[0]])).toEqual({ low: -1, high: 1 });
    expect(extent([])).toEqual({ low: -1, high: 1 });
  });

  it("of speed join those of several channels", () => {
    expect([...speeds([new Float32Array([0, 3, 3]), new Float32Array([0, 4, 4])], 3)]).toEqual([5, 0]);
    expect([...speeds([new Float32Array([7])], 3)]).toEqual([0, 0]);
  });

  it("of stems are thick where it is fast, and nothing where there is no stretch", () => {
    expect(stemPath([1, 1], 4, 4, 1, 10)).toBe("");
    const [upper] = stemPath([4, 4, 4], 0, 2, 4, 10, 2, 10).slice(1).split("L");
    expect(upper).toBe("0.0 -5.00");
  });
});
