import { describe, expect, it } from "vitest";
import { across, frameOf, upwards, valuesUnder } from "./ranges";

const RANGES = { low: 0, high: 10, to_low: 100, to_high: -50 };

describe("a range onto a range", () => {
  it("shows both ranges and all the driver does", () => {
    const frame = frameOf(RANGES, -5, 8);
    expect(frame.left).toBeLessThan(-5);
    expect(frame.right).toBeGreaterThan(10);
    expect(frame.bottom).toBeLessThan(-50);
    expect(frame.top).toBeGreaterThan(100);
  });
  it("finds the values under a point, and the point of values", () => {
    const frame = frameOf(RANGES, 0, 10);
    const [x, y] = [across(frame, 7, 200), upwards(frame, 30, 120)];
    const under = valuesUnder(frame, x, y, 200, 120);
    expect(under.driver).toBeCloseTo(7, 1);
    expect(under.driven).toBeCloseTo(30, -1);
  });
  it("is never flat", () => {
    const frame = frameOf({ low: 2, high: 2, to_low: 1, to_high: 1 }, 2, 2);
    expect(frame.right).toBeGreaterThan(frame.left);
    expect(frame.top).toBeGreaterThan(frame.bottom);
  });
});
