import { describe, expect, it } from "vitest";
import { frequencyMoved, peaks, phaseMoved, type WaveNumbers } from "./wave";

const FPS = 24;
const sine: WaveNumbers = { wave: "sine", amplitude: 10, frequency: 0.5, phase: 0, start: 0 };
const turns = (of: WaveNumbers, frame: number): number => of.phase / 360 + (of.frequency * (frame - of.start)) / FPS;
const height = (of: WaveNumbers, frame: number): number => Math.sin(2 * Math.PI * turns(of, frame));

describe("the grips of a wave", () => {
  it("lie on its peaks", () => {
    expect(peaks(sine, FPS)).toEqual({ first: 12, second: 60 });
    expect(peaks({ ...sine, phase: 90 }, FPS).first).toBe(0);
    expect(peaks({ ...sine, wave: "cosine" }, FPS).first).toBe(0);
    expect(peaks({ ...sine, start: 30 }, FPS).first).toBe(42);
    const backwards = { ...sine, frequency: -0.5 };
    expect(height(backwards, peaks(backwards, FPS).first)).toBeCloseTo(1, 9);
    expect(peaks({ ...sine, start: -100 }, FPS).first).toBeGreaterThanOrEqual(0);
  });

  it("carry the wave along by its phase", () => {
    const moved = { ...sine, phase: phaseMoved(sine, 6, FPS) };
    expect(peaks(moved, FPS).first).toBeCloseTo(18, 6);
  });

  it("change the pace and leave the first peak where it is", () => {
    const moved = { ...sine, ...frequencyMoved(sine, -24, FPS) };
    expect(moved.frequency).toBe(1);
    expect(peaks(moved, FPS)).toEqual({ first: 12, second: 36 });
    expect(frequencyMoved(sine, -1000, FPS).frequency).toBe(24);
  });
});
