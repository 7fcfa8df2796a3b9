import { describe, expect, it } from "vitest";
import type { SceneObject } from "@/api/types";
import { FIRST_SCENE, nextStep, type Seen } from "./firstScene";

const key = (frame: number, value: number, ease = "linear") => ({ frame, value, ease });
const hold = { mode: "hold", times: null };
function mango(channels: Record<string, unknown> = {}, rules: unknown[] = []): SceneObject {
  return { id: "mango", name: "Mango", kind: "shape", channels, rules } as unknown as SceneObject;
}
const seen = (objects: SceneObject[], more: Partial<Seen> = {}): Seen => ({
  objects,
  picked: null,
  frame: 0,
  playing: false,
  ...more,
});
const falling = (after: object = hold, ease = "linear") => ({
  y: { base: 0, keys: [key(0, 100, ease), key(18, 600)], before: hold, after },
});

describe("the first scene", () => {
  it("goes on as each step is done, and stays where one is not", () => {
    expect(nextStep(0, seen([]))).toBe(0);
    expect(nextStep(0, seen([mango()]))).toBe(1);
    const up = mango({ y: { base: 0, keys: [key(0, 100)], before: hold, after: hold } });
    expect(nextStep(1, seen([up]))).toBe(2);
    expect(nextStep(2, seen([up], { frame: 18 }))).toBe(3);
    expect(nextStep(3, seen([up], { frame: 18 }))).toBe(3);
    expect(nextStep(3, seen([mango(falling())], { frame: 18 }))).toBe(4);
    const looped = { mode: "ping-pong", times: null };
    expect(nextStep(4, seen([mango(falling(looped))]))).toBe(5);
    expect(nextStep(5, seen([mango(falling(looped, "slow-out"))]))).toBe(6);
    expect(nextStep(6, seen([mango(falling(looped, "slow-out"), [{ kind: "squash-stretch" }])]))).toBe(7);
    expect(nextStep(7, seen([], { playing: true }))).toBe(FIRST_SCENE.length);
  });
  it("asks for a move, and not for the same value twice", () => {
    const same = mango({ y: { base: 0, keys: [key(0, 100), key(18, 100)], before: hold, after: hold } });
    expect(nextStep(3, seen([same], { frame: 18 }))).toBe(3);
  });
  it("says of every step what to do, where, and by which keys", () => {
    for (const step of FIRST_SCENE) {
      expect(step.title && step.keys).toBeTruthy();
      expect(step.says.split(/\s+/).length).toBeLessThan(30);
      expect(step.at).toMatch(/[[#]/);
    }
  });
});
