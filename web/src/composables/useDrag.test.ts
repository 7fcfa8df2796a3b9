import { beforeEach, expect, it, vi } from "vitest";
import { beginDrag, beginOwnDrag } from "@/composables/useDrag";
import { type Held, pressAt, Pressed, withWindow } from "@/testing/pointer";

const pointer = (name: string, more: object = {}): Event => Object.assign(new Event(name), { pointerId: 1, ...more });
let target: Pressed;
let seen: unknown[];
const drag = {
  move: (event: PointerEvent): void => void seen.push(event.clientX),
  end: (kept: boolean): void => void seen.push(kept),
};

beforeEach(() => {
  target = new Pressed();
  seen = [];
  withWindow();
});

const press = (held: Held = {}): PointerEvent => pressAt([0, 0], held, target);

it("is called off by a second finger, and by no other pointer", () => {
  beginDrag(press({ pointerType: "touch" }), drag);
  window.dispatchEvent(pointer("pointerdown", { pointerId: 2, pointerType: "mouse" }));
  expect(seen).toEqual([]);
  window.dispatchEvent(pointer("pointerdown", { pointerId: 2, pointerType: "touch" }));
  target.dispatchEvent(pointer("pointermove", { clientX: 5 }));
  expect(seen).toEqual([false]);
});

it("hears moves until the pointer is let go, and nothing after", () => {
  beginDrag(press(), drag);
  expect(target.captured).toBe(1);
  target.dispatchEvent(pointer("pointermove", { clientX: 5 }));
  target.dispatchEvent(pointer("pointerup"));
  target.dispatchEvent(pointer("pointermove", { clientX: 9 }));
  target.dispatchEvent(pointer("pointercancel"));
  expect(seen).toEqual([5, true]);
});

it("is called off by the browser", () => {
  beginDrag(press(), drag);
  target.dispatchEvent(pointer("pointercancel"));
  target.dispatchEvent(pointer("pointerup"));
  expect(seen).toEqual([false]);
});

it("is called off by Escape, which nothing else hears of", () => {
  beginDrag(press(), drag);
  const other = Object.assign(new Event("keydown"), { key: "a", stopPropagation: vi.fn() });
  const escape = Object.assign(new Event("keydown"), { key: "Escape", stopPropagation: vi.fn() });
  window.dispatchEvent(other);
  window.dispatchEvent(escape);
  expect(seen).toEqual([false]);
  expect(escape.stopPropagation).toHaveBeenCalled();
  expect(other.stopPropagation).not.toHaveBeenCalled();
});

it("hears its own pointer only", () => {
  beginDrag(press(), drag);
  target.dispatchEvent(pointer("pointermove", { pointerId: 2, clientX: 7 }));
  target.dispatchEvent(pointer("pointerup", { pointerId: 2 }));
  expect(seen).toEqual([]);
});

it("keeps a press to itself, if it is of the first button", () => {
  const second = press({ button: 2 });
  expect(beginOwnDrag(second, drag)).toBe(false);
  expect(second.preventDefault).not.toHaveBeenCalled();
  const first = press();
  expect(beginOwnDrag(first, drag)).toBe(true);
  expect(first.preventDefault).toHaveBeenCalled();
  expect(first.stopPropagation).toHaveBeenCalled();
});
