/** When objects are shown. */
import type { SceneObject } from "./types";

/** The first and the last frame something is shown at; null is the scene's own. */
export interface Span {
  readonly first: number | null;
  readonly last: number | null;
}

export const spanOf = (thing: SceneObject): Span => ({
  first: thing.span?.first ?? null,
  last: thing.span?.last ?? null,
});

/** The last frame at which something is shown in a scene that ends at `end`. */
export const lastShown = (thing: SceneObject, end: number): number => Math.min(spanOf(thing).last ?? end, end);
