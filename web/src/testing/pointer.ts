/** A hand on a pointer, for unit tests of what is dragged. */
import { vi } from "vitest";

/** An element, as far as drags need one. */
export class Pressed extends EventTarget {
  captured: number | null = null;
  setPointerCapture(id: number): void {
    this.captured = id;
  }
}

/** Options of a pointer event in tests: modifier keys, and the pointer's number. */
export type Held = Partial<
  Pick<PointerEvent, "shiftKey" | "altKey" | "ctrlKey" | "metaKey" | "button" | "pointerId" | "pointerType">
>;

/** A place on the screen. */
type Place = readonly [x: number, y: number];

const NOTHING_HELD = { shiftKey: false, altKey: false, ctrlKey: false, metaKey: false, button: 0, pointerId: 1 };

/** A press at a place, on an element of its own unless told on which. */
export function pressAt([clientX, clientY]: Place, held: Held = {}, target = new Pressed()): PointerEvent {
  const silent = { preventDefault: vi.fn(), stopPropagation: vi.fn() };
  return { ...NOTHING_HELD, type: "pointerdown", currentTarget: target, clientX, clientY, ...silent, ...held } as never;
}

/**
 * Begin a drag at a place: the hand that goes on with it. Tests must have a `window` that hears of events
 * (`withWindow`).
 */
export function handAt(begin: (press: PointerEvent) => void, from: Place, held: Held = {}) {
  const target = new Pressed();
  begin(pressAt(from, held, target));
  const tell = (name: string, [clientX, clientY]: Place, now: Held): void =>
    void target.dispatchEvent(Object.assign(new Event(name), { ...NOTHING_HELD, clientX, clientY, ...now }));
  let at = from;
  const hand = {
    move: (to: Place, now: Held = {}) => (tell("pointermove", (at = to), now), hand),
    /** Let it go where it is. */
    drop: (): void => tell("pointerup", at, {}),
    /** Call it off. */
    cancel: (): void => tell("pointercancel", at, {}),
  };
  return hand;
}

/** A window that hears of events, of its own for each test. */
export const withWindow = (): void => void vi.stubGlobal("window", new EventTarget());
