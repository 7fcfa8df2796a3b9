/** A minimal scene for unit tests: two seconds of an empty gorge. */
export const HEAD = {
  name: "Gorge",
  fps: 24,
  length: 48,
  size: [640, 360],
  background: "#FFFFFF",
  dials: [],
  copies: [],
  cues: [],
};
