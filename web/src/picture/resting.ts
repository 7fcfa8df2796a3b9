/** Whether what some steps paint rests: numbers that are the same for two frames only if the pictures are. */
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
export function traceOf(steps: readonly Step[], view: FrameView, earlier: number, trace: number[] = []): number[] {
  const track = (rows: Rows | undefined, frame: number): void => {
    if (rows && rows.rows > 1) trace.push(runsOf(rows)[rowOf(frame, rows.first ?? 0, rows.rows)]!);
  };
  const outline = (one: Outlines, frame: number): void => {
    if (one.which.length > 1) trace.push(one.which[rowOf(frame, one.first ?? 0, one.which.length)]!);
  };
  for (const step of steps) {
    const frame = view.frameOf(step.id) - earlier;
    trace.push((view.only?.(step) ?? step.shown) ? 1 : 0);
    for (const one of step.opacity) track(one, frame);
    if ("matrix" in step) {
      if (view.matrixOf) trace.push(...placeOf(step, frame, view));
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
        trace.push(numberAt(step.page, frame));
        break;
      case "group":
        traceOf(step.steps, view, earlier, trace);
        traceOfEffects(step, view, earlier, trace);
        break;
      case "instance":
        if (step.frames) traceOf(step.steps, inside(step.frames, frame), 0, trace);
        else traceOf(step.steps, view, earlier + step.delay, trace);
        break;
      case "copies":
        track(step.order, frame);
        traceOf(step.instances, view, earlier, trace);
    }
  }
  return trace;
}

/** The same of the effects of a group. */
export function traceOfEffects(step: Group, view: FrameView, earlier: number, trace: number[] = []): number[] {
  const frame = view.frameOf(step.id) - earlier;
  for (const effect of effectsOf(step, view)) {
    for (const name of Object.keys(effect) as (keyof Effect)[]) {
      const part: unknown = effect[name];
      if (isRows(part) && part.rows > 1) trace.push(runsOf(part)[rowOf(frame, part.first ?? 0, part.rows)]!);
    }
    if (effect.effect === "mask") traceOf(effect.steps, view, earlier, trace);
  }
  return trace;
}

const isRows = (part: unknown): part is Rows => typeof part === "object" && part !== null && "rows" in part;
