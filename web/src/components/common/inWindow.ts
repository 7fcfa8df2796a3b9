/**
 * How what pops up is placed (options of Popper): within the window, over its own button rather than beyond an edge.
 * It is fixed there, as the page would else grow by what lies beyond its edge, and scroll away under the hand.
 */
export const IN_WINDOW = {
  strategy: "fixed" as const,
  modifiers: [{ name: "preventOverflow", options: { altAxis: true, padding: 8 } }],
};
