import { describe, expect, it } from "vitest";
import type { Rows } from "@/api/motion";
import { GAP, placesOf, pathsApart } from "@/picture/compared";

const ROOM = { width: 1000 + GAP, height: 600 };
const rows = (...points: [number, number][]): Rows => ({
  width: 2,
  rows: points.length,
  data: Float32Array.from(points.flat()),
});

describe("two versions in one room", () => {
  it("lie beside each other, as large as half of it allows", () => {
    const { now, kept } = placesOf("side", ROOM, [1000, 500], 0.5);
    expect(now).toEqual({ left: 0, top: 175, width: 500, height: 250, from: 0, to: 500 });
    expect(kept).toEqual({ left: 500 + GAP, top: 175, width: 500, height: 250, from: 500 + GAP, to: 1000 + GAP });
  });

  it("lie over each other, or meet at a line", () => {
    const over = placesOf("over", { width: 800, height: 800 }, [400, 200], 0.5);
    expect(over.now).toEqual(over.kept);
    expect(over.now).toMatchObject({ left: 0, width: 800, top: 200, height: 400 });
    const wipe = placesOf("wipe", { width: 800, height: 800 }, [400, 200], 0.25);
    expect([wipe.now.from, wipe.now.to, wipe.kept.from, wipe.kept.to]).toEqual([0, 200, 200, 800]);
    expect(wipe.now.left).toBe(wipe.kept.left);
  });
});

describe("two ways", () => {
  it("are as far apart as their farthest places, also where one rests", () => {
    expect(pathsApart(rows([0, 0], [3, 4]), rows([0, 0], [0, 0]))).toBe(5);
    expect(pathsApart(rows([0, 0], [3, 4]), rows([3, 0]))).toBe(4);
    expect(pathsApart(undefined, rows([3, 0]))).toBe(0);
  });
});
