/** Arrow keys as steps in the picture. */
import type { Point } from "./matrix";

export const ARROWS: Readonly<Record<string, readonly [dx: number, dy: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The step of an arrow key, ten times as far with Shift, which nothing else shall hear of; null for other keys. */
export function arrowStep(event: KeyboardEvent): Point | null {
  const by = ARROWS[event.key];
  if (!by) return null;
  event.preventDefault();
  event.stopPropagation();
  const far = event.shiftKey ? 10 : 1;
  return { x: by[0] * far, y: by[1] * far };
}
