/** How a paint list is looked at: at which frame each step is, and what its tracks say there. */
import { numberAt, type Outlines, type Rows, valuesAt } from "@/api/motion";
import { type Matrix, toMatrix } from "@/geometry/matrix";
import type { Effect, Group, Step } from "@/api/paintList";

/** How steps are looked at: which frame each is at, where it is, and which are painted. */
export interface FrameView {
  readonly frameOf: (id: string) => number;
  /** Another matrix than the step's own, for an object's steps. */
  readonly matrixOf?: (step: Step) => Matrix | undefined;
  /** Which are painted; those that are shown, unless said. */
  readonly only?: (step: Step) => boolean;
  /** Which effects of a group are applied; all, unless said. */
  readonly effectsOf?: (step: Group) => readonly Effect[];
}

export const atFrame = (frame: number): FrameView => ({ frameOf: () => frame });
/** How the scene inside an inset is looked at, at a frame of the step that paints it: in its own time, whole. */
export const inside = (frames: Rows, frame: number): FrameView => atFrame(numberAt(frames, frame));

export const effectsOf = (step: Group, view: FrameView): readonly Effect[] => view.effectsOf?.(step) ?? step.effects;

/** The opacity of a step at a frame, of its own and of what faded into it. */
export const opacityAt = (step: Step, frame: number): number =>
  Math.min(
    1,
    step.opacity.reduce((opacity, track) => opacity * numberAt(track, frame), 1),
  );

/** Where a step is, in the space of what it is in. */
export const placeOf = (step: Extract<Step, { matrix: Rows }>, frame: number, view: FrameView): Matrix =>
  view.matrixOf?.(step) ?? toMatrix(valuesAt(step.matrix, frame));

/** The outline shown at a frame. */
export function outlineAt(track: Outlines | undefined, frame: number) {
  if (!track) return undefined;
  const row = Math.round(frame - (track.first ?? 0));
  const which = track.which[Math.min(Math.max(row, 0), track.which.length - 1)];
  return track.outline(which ?? 0);
}
