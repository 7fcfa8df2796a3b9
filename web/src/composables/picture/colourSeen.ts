/** Taking a colour from what is painted. */
import { hexOf } from "@/geometry/colour";
import type { Point } from "@/geometry/matrix";

/** The colour that a canvas shows at a point of the picture; null where it shows none. `size`: of the picture, px. */
export function colourSeen(canvas: HTMLCanvasElement, point: Point, [w, h]: readonly [number, number]): string | null {
  const [x, y] = [Math.floor((point.x / w) * canvas.width), Math.floor((point.y / h) * canvas.height)];
  const [r = 0, g = 0, b = 0, alpha = 0] = canvas.getContext("2d")?.getImageData(x, y, 1, 1).data ?? [];
  return alpha ? hexOf([r / 255, g / 255, b / 255]) : null;
}
