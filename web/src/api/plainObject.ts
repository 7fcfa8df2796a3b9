/**
 * What an object is like unless told otherwise: it has no parent, is seen from the first frame to the last, and
 * nothing acts on it.
 */
export const plainObject = () => ({
  parent: null,
  shown: true,
  pinned: false,
  blurred: true,
  locked: false,
  tag: null,
  blend: "normal" as const,
  span: {},
  rules: [],
});
