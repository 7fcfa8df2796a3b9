import { describe, expect, it } from "vitest";
import type { Cue } from "@/api/types";
import { rounds, runAt } from "./cueRuns";

const cue = (plays: Cue["plays"]): Cue => ({
  id: "c",
  name: "C",
  first: 10,
  last: 19,
  objects: [],
  key: "r",
  click: null,
  plays,
});
const FPS = 25;
const ms = (frames: number): number => (frames / FPS) * 1000;

describe("the run of a cue", () => {
  it("shows its first frame at once and its last for good", () => {
    const run = { cue: cue("once"), begun: 1000, ends: null };
    expect(runAt(run, FPS, 1000)).toEqual({ frame: 10, running: true });
    expect(runAt(run, FPS, 1000 + ms(9))).toEqual({ frame: 19, running: true });
    expect(runAt(run, FPS, 1000 + ms(10))).toEqual({ frame: 19, running: false });
    expect(runAt(run, FPS, 1000 + ms(500))).toEqual({ frame: 19, running: false });
    expect(rounds(run, FPS, 1000 + ms(500))).toBe(10);
  });
  it("goes round until it is asked to end, and ends with its round", () => {
    for (const plays of ["loop", "held"] as const) {
      const run = { cue: cue(plays), begun: 0, ends: null as number | null };
      expect(runAt(run, FPS, ms(33))).toEqual({ frame: 13, running: true });
      run.ends = ms(33);
      expect(runAt(run, FPS, ms(39)).running).toBe(true);
      expect(runAt(run, FPS, ms(40))).toEqual({ frame: 19, running: false });
      expect(rounds(run, FPS, ms(200))).toBe(40);
    }
  });
});
