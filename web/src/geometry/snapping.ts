/** Snapping of a dragged object: the nearest position within reach. */

/** The target nearest to a frame, if one is within reach. */
export function nearest<T extends { readonly frame: number }>(
  at: number,
  targets: readonly T[],
  reach: number,
): T | null {
  let best: T | null = null;
  for (const one of targets) {
    const far = Math.abs(one.frame - at);
    if (far <= reach && (!best || far < Math.abs(best.frame - at))) best = one;
  }
  return best;
}

/** A line an object can snap to, across the picture (at a height) or upright. */
export interface Guide {
  readonly at: number;
  /** What it is, such as "centre" or an object's name. */
  readonly says: string;
}

export interface Guides {
  readonly upright: readonly Guide[];
  readonly level: readonly Guide[];
}

/** The lines of a picture: its edges, centre, thirds and quarters, and those of a grid. */
export function pictureGuides(
  [width, height]: readonly [number, number],
  grid: { readonly across: number; readonly down: number },
): Guides {
  const lines = (size: number, cells: number): Guide[] => [
    { at: 0, says: "edge" },
    { at: size, says: "edge" },
    { at: size / 2, says: "centre" },
    { at: size / 3, says: "third" },
    { at: (size * 2) / 3, says: "third" },
    { at: size / 4, says: "quarter" },
    { at: (size * 3) / 4, says: "quarter" },
    ...Array.from({ length: Math.max(0, cells - 1) }, (_, i) => ({ at: (size * (i + 1)) / cells, says: "grid" })),
  ];
  return { upright: lines(width, grid.across), level: lines(height, grid.down) };
}

export interface Snap {
  /** How far to move so that one of the places is on the guide. */
  readonly by: number;
  readonly guide: Guide;
}

/**
 * The guide that one of some places comes nearest to, if one is within reach. Earlier guides win where two are as
 * near.
 */
export function snapTo(places: readonly number[], guides: readonly Guide[], reach: number): Snap | null {
  let best: Snap | null = null;
  for (const guide of guides) {
    for (const place of places) {
      const by = guide.at - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by) - 1e-9)) best = { by, guide };
    }
  }
  return best;
}
