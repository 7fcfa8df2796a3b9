/**
 * What a drag in the picture means in values. Each function begins a drag from the values at its start and returns the
 * values for any later pointer position (in picture pixels). This is the inverse of the object matrix at one frame.
 */
import {
  angleBetween,
  difference,
  inverse,
  type Matrix,
  moved,
  type Point,
  rounded,
  straightened,
  turned,
} from "@/geometry/matrix";

export interface Held {
  /** The object's channel values at the frame. */
  readonly values: Readonly<Record<string, number>>;
  /** From its parent's space to the picture; identity without a parent. */
  readonly parent: Matrix;
  /** From its own space to the picture. */
  readonly view: Matrix;
}

export interface Modifiers {
  /** Shift: keep one direction, keep proportions, or turn in steps. */
  readonly steady: boolean;
}

export type Drag = (to: Point, modifiers: Modifiers) => Record<string, number>;

const value = (held: Held, name: string): number => held.values[name] ?? 0;
const PIXEL = 0.1;

/** Move by hand: x and y follow the pointer. */
export function beginMove(held: Held, from: Point): Drag {
  const home = inverse(held.parent);
  return (to, { steady }) => {
    const whole = difference(to, from);
    const by = home ? turned(home, steady ? straightened(whole) : whole) : { x: 0, y: 0 };
    return { x: rounded(value(held, "x") + by.x, PIXEL), y: rounded(value(held, "y") + by.y, PIXEL) };
  };
}

/** Turn about the pivot: the angle the pointer has passed, over as many turns as it makes. */
export function beginTurn(held: Held, from: Point): Drag {
  const pivot = moved(held.view, { x: value(held, "pivot.x"), y: value(held, "pivot.y") });
  const mirrored = held.parent[0] * held.parent[3] - held.parent[1] * held.parent[2] < 0 ? -1 : 1;
  let last = difference(from, pivot);
  let passed = 0;
  return (to, { steady }) => {
    const now = difference(to, pivot);
    passed += angleBetween(last, now) * mirrored;
    last = now;
    const rotation = value(held, "rotation") + passed;
    return { rotation: steady ? Math.round(rotation / 15) * 15 : rounded(rotation, 0.1) };
  };
}

/** Scale by a corner (given in the object's own space): it follows the pointer, the pivot stays. */
export function beginScale(held: Held, corner: Point): Drag {
  const [sx, sy] = [value(held, "scale.x"), value(held, "scale.y")];
  const arm = { x: corner.x - value(held, "pivot.x"), y: corner.y - value(held, "pivot.y") };
  const home = inverse(held.view);
  return (to, { steady }) => {
    if (!home) return { "scale.x": sx || 1, "scale.y": sy || 1 };
    const at = moved(home, to);
    const reach = { x: at.x - value(held, "pivot.x"), y: at.y - value(held, "pivot.y") };
    let fx = Math.abs(arm.x) > 1e-6 ? reach.x / arm.x : 1;
    let fy = Math.abs(arm.y) > 1e-6 ? reach.y / arm.y : 1;
    if (steady) fx = fy = (reach.x * arm.x + reach.y * arm.y) / (arm.x * arm.x + arm.y * arm.y || 1);
    return { "scale.x": rounded(sx * fx, 0.001) || 0.001, "scale.y": rounded(sy * fy, 0.001) || 0.001 };
  };
}

/** Where the pivot is dragged to, in the object's own space. */
export function beginPivot(held: Held): Drag {
  const home = inverse(held.view);
  return (to) => {
    const at = home ? moved(home, to) : { x: value(held, "pivot.x"), y: value(held, "pivot.y") };
    return { "pivot.x": rounded(at.x, PIXEL), "pivot.y": rounded(at.y, PIXEL) };
  };
}
