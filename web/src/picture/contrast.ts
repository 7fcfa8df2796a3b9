/** True if a small mark contrasts enough with its background. */
import { luma } from "@/geometry/colour";

/** What is less apart than this from paper, of 255, is hardly seen on it. */
const HARDLY = 28;
/** What stands out by less than this on average over all pixels, of 255, is a few specks. */
const SPECKS = 0.5;

/** A colour without alpha, 0…255 each. */
type Ground = readonly [red: number, green: number, blue: number];

/**
 * Whether anything is painted that is hardly seen on a ground of one colour, such as pale objects on paper, or that is
 * but a few specks which stand out twice as much on another ground. `pixels`: r g b α in turn, as a canvas has them.
 */
export function hardlySeen(pixels: Uint8ClampedArray, ground: Ground, other: Ground): boolean {
  const [under, instead] = [luma(...ground), luma(...other)];
  let [painted, most, here, there] = [false, 0, 0, 0];
  for (let i = 0; i < pixels.length; i += 4) {
    const share = (pixels[i + 3] ?? 0) / 255;
    if (!share) continue;
    painted = true;
    const light = luma(pixels[i]!, pixels[i + 1]!, pixels[i + 2]!);
    const apart = share * Math.abs(light - under);
    most = Math.max(most, apart);
    here += apart;
    there += share * Math.abs(light - instead);
  }
  const specks = here < (SPECKS * pixels.length) / 4 && there > 2 * here;
  return painted && (most < HARDLY || specks);
}

/** How many whole pixels all that is painted comes to. */
export function areaOf(pixels: Uint8ClampedArray): number {
  let area = 0;
  for (let i = 3; i < pixels.length; i += 4) area += pixels[i]! / 255;
  return area;
}

/** The pixel that is painted most: its number, row by row, and how much of it, 0…1. */
export function strongest(pixels: Uint8ClampedArray): { readonly at: number; readonly share: number } {
  let best = 3;
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i]! > pixels[best]!) best = i;
  return { at: (best - 3) / 4, share: (pixels[best] ?? 0) / 255 };
}
