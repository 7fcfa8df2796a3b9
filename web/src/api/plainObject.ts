/**
 * What an object is like unless told otherwise: it hangs on nothing, is seen from the first frame to the last, and
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
