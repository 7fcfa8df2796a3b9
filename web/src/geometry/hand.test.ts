import { describe, expect, it } from "vitest";
import { onionFrames } from "@/picture/onion";
import { calculate } from "./arithmetic";
import { nearest, pictureGuides, snapTo } from "./snapping";

describe("arithmetic in fields", () => {
  it.each([
    ["960/2", 480],
    ["2+3*4", 14],
    ["(2+3)*4", 20],
    ["-5", -5],
    ["−5 px", -5],
    ["10 - -4", 14],
    ["7-3-2", 2],
    ["64/4/2", 8],
    ["1,5*2", 3],
    [".5", 0.5],
    ["12 %", 12],
    ["+20", 120],
    ["*1.5", 150],
    ["/4", 25],
    ["+-20", 80],
  ])("%s is %d, from 100", (text, value) => expect(calculate(text, 100)).toBeCloseTo(value, 12));

  it.each(["", "abc", "1/0", "2**3", "3+", "(1", "1)", "1 2", "--", "alert(1)", "1e", "9".repeat(200)])(
    "%j is no number",
    (text) => expect(calculate(text, 100)).toBeNull(),
  );

  it("agrees with the language on random sums", () => {
    let seed = 7;
    const random = (n: number): number => (seed = (seed * 48271) % 2147483647) % n;
    for (let i = 0; i < 300; i++) {
      const text = Array.from(
        { length: 2 + random(5) },
        (_, n) => `${n ? "+-*/"[random(4)] : ""}${1 + random(40)}${random(3) ? "" : ".25"}`,
      ).join("");

      expect(calculate(text, 0)).toBeCloseTo(Number(new Function(`return ${text}`)()), 9);
    }
  });
});

describe("snapping", () => {
  const guides = pictureGuides([1200, 600], { across: 8, down: 0 });
  it("knows edges, centre, thirds, quarters and grid", () => {
    expect(guides.upright.map((one) => one.at)).toEqual(
      expect.arrayContaining([0, 1200, 600, 400, 800, 300, 900, 150, 1050]),
    );
    expect(guides.level.map((one) => one.at)).toEqual([0, 600, 300, 200, 400, 150, 450]);
  });
  it("moves the nearest place onto the nearest guide", () => {
    expect(snapTo([390, 597, 700], guides.upright, 6)).toEqual({ by: 3, guide: { at: 600, says: "centre" } });
    expect(snapTo([350], guides.upright, 6)).toBeNull();
  });
  it("finds the nearest frame within reach", () => {
    const stops = [{ frame: 10 }, { frame: 14 }];
    expect(nearest(12.4, stops, 3)).toEqual({ frame: 14 });
    expect(nearest(20, stops, 3)).toBeNull();
  });
});

describe("onion skin", () => {
  const how = { before: 2, after: 1, every: 5, keys: false };
  const frames = (keys: boolean, at: number) =>
    onionFrames({ ...how, keys }, at, 40, [0, 8, 20, 30]).map((ghost) => [ghost.frame, ghost.side]);
  it("takes every so many frames within the scene", () => {
    expect(frames(false, 12)).toEqual(
      [
        [2, "before"],
        [7, "before"],
        [17, "after"],
      ].sort((a, b) => (a[0] === 2 ? -1 : b[0] === 2 ? 1 : 0)),
    );
    expect(frames(false, 3)).toEqual([[8, "after"]]);
  });
  it("takes keys only", () =>
    expect(frames(true, 22)).toEqual(
      [
        [8, "before"],
        [20, "before"],
        [30, "after"],
      ].sort((a) => (a[0] === 8 ? -1 : 0)),
    ));
  it("shows none where none are wanted", () =>
    expect(onionFrames({ before: 0, after: 0, every: 5, keys: true }, 22, 40, [0, 8, 30])).toEqual([]));
  it("paints the nearest strongest", () => expect(onionFrames(how, 20, 40, []).at(-1)!.strength).toBe(1));
});
