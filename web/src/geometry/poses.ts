/** The four poses of a step, each with a mark drawn in a box of 10 by 10: legs apart, down, one leg, up. */
export interface PoseWords {
  readonly label: string;
  readonly about: string;
  readonly mark: string;
}

export const POSES: Readonly<Record<string, PoseWords>> = {
  contact: { label: "Contact", about: "The heel comes down, both legs are far apart.", mark: "M5 1 1.5 9M5 1 8.5 9" },
  down: { label: "Down", about: "The weight is taken: lowest.", mark: "M2 3.5 5 7.5 8 3.5" },
  passing: { label: "Passing", about: "The other leg comes by.", mark: "M5 1.5V8.5" },
  up: { label: "Up", about: "Pushed up from the ball of the foot: highest.", mark: "M2 6.5 5 2.5 8 6.5" },
};

/**
 * The next pose from a frame on (1) or the one before it (−1), of some poses [frame, …]; undefined where there is
 * none.
 */
export function nextPose(
  poses: readonly (readonly [number, ...unknown[]])[],
  frame: number,
  by: 1 | -1,
): number | undefined {
  const frames = [...new Set(poses.map(([one]) => Math.round(one)))].sort((a, b) => a - b);
  return by > 0 ? frames.find((one) => one > frame) : frames.findLast((one) => one < frame);
}
