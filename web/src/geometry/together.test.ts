import { describe, expect, it } from "vitest";
import { beginSizing, beginTurning, boundsOf, middleOf, typedChange } from "./together";

describe("the box around several things", () => {
  it("lies around all points, and there is none around nothing", () => {
    const box = boundsOf([
      { x: 3, y: 9 },
      { x: -2, y: 4 },
      { x: 8, y: 5 },
    ]);
    expect(box).toEqual({ left: -2, top: 4, right: 8, bottom: 9 });
    expect(middleOf(box!)).toEqual({ x: 3, y: 6.5 });
    expect(boundsOf([])).toBeNull();
  });
});

describe("turning together", () => {
  it("counts whole turns and keeps to steps of 15° where it is steady", () => {
    const turn = beginTurning({ x: 10, y: 10 }, { x: 20, y: 10 });
    expect(turn({ x: 10, y: 20 }, false)).toEqual({ turn: 90, scale: [1, 1] });
    expect(turn({ x: 0, y: 10 }, false).turn).toBe(180);
    expect(turn({ x: 10, y: 0 }, false).turn).toBe(270);
    expect(turn({ x: 20, y: 10 }, false).turn).toBe(360);
    expect(turn({ x: 20, y: 11 }, true).turn).toBe(360);
  });
});

describe("sizing together", () => {
  it("lets the corner follow the pointer, or keeps the proportions", () => {
    const size = beginSizing({ x: 0, y: 0 }, { x: 10, y: 20 });
    expect(size({ x: 20, y: 10 }, false).scale).toEqual([2, 0.5]);
    expect(size({ x: 20, y: 40 }, true).scale).toEqual([2, 2]);
    expect(size({ x: 0, y: 0 }, false).scale).toEqual([0.001, 0.001]);
  });
  it("leaves what lies along an edge with the pivot on it", () => {
    expect(beginSizing({ x: 10, y: 0 }, { x: 10, y: 20 })({ x: 90, y: 10 }, false).scale).toEqual([1, 0.5]);
  });
});

describe("what is typed for several values", () => {
  it.each([
    ["40", 1, { how: "set", value: 40 }],
    ["-40", 1, { how: "set", value: -40 }],
    ["50", 100, { how: "set", value: 0.5 }],
    ["+20", 1, { how: "add", value: 20 }],
    ["+-20", 1, { how: "add", value: -20 }],
    ["+20 %", 100, { how: "add", value: 0.2 }],
    ["*1.5", 100, { how: "multiply", value: 1.5 }],
    ["× 2", 1, { how: "multiply", value: 2 }],
    ["/4", 1, { how: "multiply", value: 0.25 }],
    ["960/2", 1, { how: "set", value: 480 }],
  ])("%s", (text, shown, wish) => expect(typedChange(text, shown)).toEqual(wish));
  it.each(["", "leaf", "+", "mixed", "20 20"])("means nothing by '%s'", (text) =>
    expect(typedChange(text, 1)).toBeNull(),
  );
});
