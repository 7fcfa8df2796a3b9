import { expect, test } from "vitest";
import { copyLanes, MOST_LANES } from "@/geometry/copyLanes";

test("every copy's keys, as much later as it starts", () => {
  const lanes = copyLanes([0, 5, 10], 5, [20, 0, 20]);
  expect(lanes.map((lane) => lane.frames)).toEqual([
    [0, 20],
    [5, 25],
    [10, 30],
  ]);
  expect(lanes.map((lane) => lane.rank)).toEqual([0, 1, 2]);
  expect([lanes[2]!.from, lanes[2]!.to]).toEqual([10, 30]);
});

test("without a delay, a pull still has something to go by", () => {
  expect(copyLanes([0, 0, 0], 0, [0, 8]).map((lane) => lane.rank)).toEqual([0, 1, 2]);
});

test("of many copies, the first and the last", () => {
  const lanes = copyLanes(
    Array.from({ length: 40 }, (_, k) => 2 * k),
    2,
    [0],
  );
  expect(lanes).toHaveLength(MOST_LANES);
  expect(lanes.at(-1)!.copy).toBe(39);
});
