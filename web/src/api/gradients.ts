/** The gradients of shapes: which parts they colour, and how their channels are called. */
import type { ShapeThing } from "@/api/types";

export type Painted = "fill" | "stroke";
export const PAINTED: readonly Painted[] = ["fill", "stroke"];
export const MOST_STOPS = 8;

/** The channels of both ends: x and y of the first, x and y of the last. */
export const endNames = (of: Painted) => [`${of}.from.x`, `${of}.from.y`, `${of}.to.x`, `${of}.to.y`] as const;
/** The channels of a stop, counted from 1. */
export const stopNames = (of: Painted, stop: number) =>
  ({ place: `${of}.${stop}.place`, colour: `${of}.${stop}.colour` }) as const;

/** The gradient of a part; null where it is one colour. */
export const gradientOf = (thing: ShapeThing, of: Painted) => thing.paints[of] ?? null;

/** Which part of a shape, and which of its stops, a channel of a gradient belongs to; null for other channels. */
export function partOf(channel: string): { of: Painted; stop: number | null } | null {
  const found = /^(fill|stroke)\.(?:(\d)\.(?:place|colour)|(?:from|to)\.[xy])$/.exec(channel);
  return found ? { of: found[1] as Painted, stop: found[2] ? Number(found[2]) : null } : null;
}
