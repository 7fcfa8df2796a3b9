/** Two fingers on the picture: they move it, and zoom it by how far they are apart. */
import { distance, type Point } from "@/geometry/matrix";

const middle = ([a, b]: readonly Point[]): Point => ({ x: (a!.x + b!.x) / 2, y: (a!.y + b!.y) / 2 });

/** `pinched` receives the old and new centre of the fingers on the screen, and the change of their distance. */
export function usePinch(pinched: (was: Point, is: Point, factor: number) => void) {
  const fingers = new Map<number, Point>();
  const isPinching = (): boolean => fingers.size > 1;

  function touch(event: PointerEvent): void {
    if (event.pointerType !== "touch") return;
    const [at, known] = [{ x: event.clientX, y: event.clientY }, fingers.has(event.pointerId)];
    if (event.type === "pointerdown") fingers.set(event.pointerId, at);
    else if (event.type !== "pointermove") fingers.delete(event.pointerId);
    if (event.type !== "pointermove" || !known) return;
    const before = [...fingers.values()];
    fingers.set(event.pointerId, at);
    if (fingers.size !== 2) return;
    const now = [...fingers.values()];
    pinched(middle(before), middle(now), distance(now[0]!, now[1]!) / Math.max(distance(before[0]!, before[1]!), 1));
  }

  return { touch, isPinching };
}
