/** Several objects as one: the box around them, what a drag of its handles means, and what is typed for all of them. */
import { calculate } from "@/geometry/arithmetic";
import { angleBetween, difference, type Point, rounded } from "@/geometry/matrix";

export interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The upright box around some points; null around none. */
export function boundsOf(points: readonly Point[]): Bounds | null {
  if (!points.length) return null;
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

export const middleOf = ({ left, top, right, bottom }: Bounds): Point => ({
  x: (left + right) / 2,
  y: (top + bottom) / 2,
});

/** What is done to all of them about their common pivot: degrees clockwise, and factors across and down. */
export interface Change {
  readonly turn: number;
  readonly scale: readonly [number, number];
}

/**
 * Turning: the angle that the pointer has passed around the pivot, over as many turns as it makes; steady, in steps of
 * 15°.
 */
export function beginTurning(pivot: Point, from: Point): (to: Point, steady: boolean) => Change {
  let last = difference(from, pivot);
  let passed = 0;
  return (to, steady) => {
    const now = difference(to, pivot);
    passed += angleBetween(last, now);
    last = now;
    return { turn: steady ? Math.round(passed / 15) * 15 : rounded(passed, 0.1), scale: [1, 1] };
  };
}

/** The least factor by which objects can be made smaller with one drag: from nothing there is no way back. */
const LEAST = 0.001;

/** Sizing: the corner that was taken follows the pointer, the pivot stays; steady, the proportions stay too. */
export function beginSizing(pivot: Point, corner: Point): (to: Point, steady: boolean) => Change {
  const arm = difference(corner, pivot);
  return (to, steady) => {
    const reach = difference(to, pivot);
    let [wide, high] = [share(reach.x, arm.x), share(reach.y, arm.y)];
    if (steady) wide = high = (reach.x * arm.x + reach.y * arm.y) / (arm.x * arm.x + arm.y * arm.y || 1);
    return { turn: 0, scale: [rounded(wide, LEAST) || LEAST, rounded(high, LEAST) || LEAST] };
  };
}

/** A pivot on an edge of the box leaves points on that edge in place. */
const share = (reach: number, arm: number): number => (Math.abs(arm) > 1e-6 ? reach / arm : 1);

/** What a text typed for several values does to each of them. */
export interface TypedChange {
  readonly how: "set" | "add" | "multiply";
  readonly value: number;
}

/**
 * What a text means for several values at once: `40` for all of them, `+20` (or `+-20`) more for each, `*1.5` or `/2`
 * of each. `shown` is the shown number for 1 in the model. Null if it means nothing.
 */
export function typedChange(text: string, shown: number): TypedChange | null {
  const plain = text.trim().replaceAll("×", "*").replaceAll("÷", "/");
  const how = plain.startsWith("+") ? "add" : /^[*/]/.test(plain) ? "multiply" : "set";
  const value = calculate(plain, how === "multiply" ? 1 : 0);
  if (value === null) return null;
  return { how, value: Number((how === "multiply" ? value : value / shown).toPrecision(12)) };
}
