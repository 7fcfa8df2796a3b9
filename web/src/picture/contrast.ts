/** Whether something small can be told from what it lies on. */
import { luma } from "@/geometry/colour";

/** What is less apart than this from paper, of 255, is hardly seen on it. */
const HARDLY = 28;

/** Whether anything is painted that is hardly seen on a ground of one colour, 0…255: pale things on paper, say. `pixels`: r g b α in turn, as a
 * canvas has them. */
export function hardlySeen(pixels: Uint8ClampedArray, ground: readonly [number, number, number]): boolean {
  const under = luma(...ground);
  let [painted, most] = [false, 0];
  for (let i = 0; i < pixels.length; i += 4) {
    const share = (pixels[i + 3] ?? 0) / 255;
    if (!share) continue;
    painted = true;
    most = Math.max(most, share * Math.abs(luma(pixels[i]!, pixels[i + 1]!, pixels[i + 2]!) - under));
  }
  return painted && most < HARDLY;
}
