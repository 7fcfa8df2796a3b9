import { expect, test } from "vitest";
import type { TableWords } from "@/api/types";
import { layEdit, samplesOf, sparkline } from "@/geometry/samples";

const WIND: TableWords = {
  columns: [
    { name: "time", kind: "number", cells: [0, 0.5, 1, null] },
    { name: "wind", kind: "number", cells: [3, null, 5, 7] },
    { name: "station", kind: "words", cells: ["A", "A", "B", "B"] },
  ],
  rows: 4,
  time: 0,
  unit: "seconds",
  remarks: [],
};
const VANE = { object: "vane", channel: "rotation", scale: 2, offset: -1 };

test("only rows with a time and a value are samples", () => {
  expect(samplesOf(WIND, 1, 0)).toEqual([
    [0, 1],
    [3, 5],
  ]);
  expect(samplesOf(WIND, 1, null)).toEqual([
    [0, 2, 3],
    [3, 5, 7],
  ]);
});

test("a column becomes a track at the pace of its unit", () => {
  const timing = { column: 0, unit: "seconds", every: 1, first: 12 } as const;
  expect(layEdit(WIND, [null, VANE, null], timing, 24, 0.5)).toEqual({
    edit: "lay-samples",
    tracks: [{ ...VANE, times: [0, 1], values: [3, 5] }],
    first: 12,
    pace: 24,
    tolerance: 0.5,
  });
  expect(layEdit(WIND, [null, VANE, null], { ...timing, unit: "frames" }, 24, 0)?.pace).toBe(1);
  expect(layEdit(WIND, [null, VANE, null], { ...timing, column: null, every: 2 }, 24, 0)?.pace).toBe(2);
});

test("nothing goes anywhere without a target, and time itself goes nowhere", () => {
  const timing = { column: 0, unit: "frames", every: 1, first: 0 } as const;
  expect(layEdit(WIND, [null, null, null], timing, 24, 0)).toBeNull();
  expect(layEdit(WIND, [VANE, null, null], timing, 24, 0)).toBeNull();
});

test("a small picture of numbers fills its box", () => {
  expect(sparkline([0, 1, 2], [0, 10, 5], 100, 20)).toBe("0.0,20.0 50.0,0.0 100.0,10.0");
  expect(sparkline([4], [1], 100, 20)).toBe("50.0,10.0");
});
