import { describe, expect, it } from "vitest";
import { drawingOf, type Gripped } from "./ruleGrips";

const on = (kind: string, numbers: Record<string, number>, rest: Partial<Gripped> = {}): Gripped => ({
  kind,
  number: (name) => numbers[name] ?? 0,
  word: () => "left",
  frame: 0,
  fps: 24,
  last: 95,
  place: () => ({ x: 100, y: 200 }),
  rotation: () => 0,
  keys: [],
  ...rest,
});
const grip = (drawing: ReturnType<typeof drawingOf>, id: string) => drawing.grips.find((one) => one.id === id)!;

describe("what can be held of a rule in the picture", () => {
  it("is the floor of a bounce and its next height", () => {
    const drawing = drawingOf(on("bounce", { floor: 600, fall: 10, keep: 0.25 }));
    expect(grip(drawing, "floor").drag({ x: 0, y: 550.4 })).toEqual({ floor: 550 });
    expect(grip(drawing, "apex").at.y).toBe(500);
    expect(grip(drawing, "apex").says).toBe("keeps 25 %");
    expect(grip(drawing, "apex").drag({ x: 0, y: 400 })).toEqual({ keep: 0.5 });
    expect(grip(drawing, "apex").drag({ x: 0, y: -900 })).toEqual({ keep: 0.98 });
  });

  it("is the weight of a pendulum: its angle and its length", () => {
    const bob = grip(drawingOf(on("pendulum", { length: 100, angle: 0 })), "bob");
    expect(bob.at).toEqual({ x: 100, y: 300 });
    expect(bob.drag({ x: 0, y: 200 })).toEqual({ angle: 90, length: 100 });
  });

  it("is the middle of an arc", () => {
    const place = (frame: number) => (frame < 10 ? { x: 0, y: 0 } : { x: 200, y: 0 });
    const middle = grip(drawingOf(on("arc", { bulge: 0.25 }, { place, keys: [0, 20] })), "middle");
    expect(middle.at).toEqual({ x: 100, y: -50 });
    expect(middle.drag({ x: 100, y: -80 })).toEqual({ bulge: 0.4 });
    expect(drawingOf(on("arc", { bulge: 0.25 })).grips).toEqual([]);
  });

  it("is the rim of what rolls and the front of what faces", () => {
    expect(grip(drawingOf(on("roll", { radius: 40 })), "radius").drag({ x: 100, y: 260 })).toEqual({ radius: 60 });
    expect(grip(drawingOf(on("face", { offset: 10 })), "front").drag({ x: 100, y: 270 })).toEqual({ offset: 100 });
    expect(drawingOf(on("noise", {})).grips).toEqual([]);
  });
});
