/** Where the run of a cue stands at a moment: which frame of its stretch, and whether it still runs. */
import type { Cue } from "@/api/types";

export interface Run {
  readonly cue: Cue;
  /** When it began, and when it was asked to end, in milliseconds. */
  readonly begun: number;
  ends: number | null;
}

const passed = (begun: number, now: number, fps: number): number =>
  Math.max(0, Math.floor(((now - begun) / 1000) * fps + 1e-6));
const lengthOf = (cue: Cue): number => cue.last - cue.first + 1;

/** How many frames a run takes: those of its stretch, or of all rounds until the one it was asked to end in is over. */
function framesOf(run: Run, fps: number): number {
  const length = lengthOf(run.cue);
  if (run.cue.plays === "once") return length;
  return run.ends === null ? Infinity : (Math.floor(passed(run.begun, run.ends, fps) / length) + 1) * length;
}

export function runAt(run: Run, fps: number, now: number): { frame: number; running: boolean } {
  const at = passed(run.begun, now, fps);
  if (at >= framesOf(run, fps)) return { frame: run.cue.last, running: false };
  return { frame: run.cue.first + (at % lengthOf(run.cue)), running: true };
}

/** How many frames a run has run up to a moment. */
export const rounds = (run: Run, fps: number, now: number): number =>
  Math.min(framesOf(run, fps), passed(run.begun, now, fps) + 1);
