/**
 * Fingerprints of pictures: numbers that are the same for two frames only if what some steps paint there is the same.
 */
import type { Outlines, Rows } from "@/api/motion";
import type { Effect, Group, Step } from "@/api/paintList";
import { numberAt } from "@/api/motion";
import { effectsOf, inside, type FrameView, placeOf } from "@/picture/frameView";

/** Of the rows of an array, for each the first of those before it that are all the same. */
const runs = new WeakMap<Rows, Int32Array>();

function runsOf(rows: Rows): Int32Array {
  const known = runs.get(rows);
  if (known) return known;
  const { data, width } = rows;
  const found = new Int32Array(rows.rows);
  for (let row = 1; row < rows.rows; row++) {
    let same = true;
    for (let i = row * width; same && i < (row + 1) * width; i++) same = data[i] === data[i - width];
    found[row] = same ? found[row - 1]! : row;
  }
  runs.set(rows, found);
  return found;
}

const rowOf = (frame: number, first: number, rows: number): number =>
  Math.min(Math.max(Math.round(frame - first), 0), rows - 1);

/** Numbers that say all that some steps are painted from at a frame. */
export function fingerprintOf(
  steps: readonly Step[],
  view: FrameView,
  earlier: number,
  fingerprint: number[] = [],
): number[] {
  const track = (rows: Rows | undefined, frame: number): void => {
    if (rows && rows.rows > 1) fingerprint.push(runsOf(rows)[rowOf(frame, rows.first ?? 0, rows.rows)]!);
  };
  const outline = (one: Outlines, frame: number): void => {
    if (one.which.length > 1) fingerprint.push(one.which[rowOf(frame, one.first ?? 0, one.which.length)]!);
  };
  for (const step of steps) {
    const frame = view.frameOf(step.id) - earlier;
    fingerprint.push((view.only?.(step) ?? step.shown) ? 1 : 0);
    for (const one of step.opacity) track(one, frame);
    if ("matrix" in step) {
      if (view.matrixOf) fingerprint.push(...placeOf(step, frame, view));
      else track(step.matrix, frame);
    }
    switch (step.op) {
      case "fill":
      case "stroke":
        outline(step.outline, frame);
        track(step.colour, frame);
        for (const end of step.gradient?.ends ?? []) track(end, frame);
        for (const stop of step.gradient?.stops ?? []) for (const part of stop) track(part, frame);
        if (step.op === "stroke") {
          track(step.width, frame);
          track(step.offset, frame);
        }
        break;
      case "picture":
        track(step.size, frame);
        fingerprint.push(numberAt(step.page, frame));
        break;
      case "group":
        fingerprintOf(step.steps, view, earlier, fingerprint);
        fingerprintOfEffects(step, view, earlier, fingerprint);
        break;
      case "instance":
        if (step.frames) fingerprintOf(step.steps, inside(step.frames, frame), 0, fingerprint);
        else fingerprintOf(step.steps, view, earlier + step.delay, fingerprint);
        break;
      case "copies":
        track(step.order, frame);
        fingerprintOf(step.instances, view, earlier, fingerprint);
    }
  }
  return fingerprint;
}

/** The same of the effects of a group. */
export function fingerprintOfEffects(
  step: Group,
  view: FrameView,
  earlier: number,
  fingerprint: number[] = [],
): number[] {
  const frame = view.frameOf(step.id) - earlier;
  for (const effect of effectsOf(step, view)) {
    for (const name of Object.keys(effect) as (keyof Effect)[]) {
      const part: unknown = effect[name];
      if (isRows(part) && part.rows > 1) fingerprint.push(runsOf(part)[rowOf(frame, part.first ?? 0, part.rows)]!);
    }
    if (effect.effect === "mask") fingerprintOf(effect.steps, view, earlier, fingerprint);
  }
  return fingerprint;
}

const isRows = (part: unknown): part is Rows => typeof part === "object" && part !== null && "rows" in part;
