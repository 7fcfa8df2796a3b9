import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useLinking } from "@/stores/linking";

/** An element, as far as drags need one. */
class Dot extends EventTarget {
  setPointerCapture(): void {}
}
/** What lies under the pointer: a value, the picture, or nothing. */
const under = { value: null as Record<string, string> | null, inPicture: false };
const hit = {
  closest: (which: string) =>
    which === "[data-link-object]" ? under.value && { dataset: under.value } : under.inPicture ? {} : null,
};
const wheel = { object: "wheel", channel: "rotation" };
let dot: Dot;
const pointer = (name: string, x: number): Event =>
  Object.assign(new Event(name), { pointerId: 1, clientX: x, clientY: 0 });
const go = (...steps: [string, number][]): void =>
  steps.forEach(([name, x]) => void dot.dispatchEvent(pointer(name, x)));

beforeEach(() => {
  setActivePinia(createPinia());
  vi.stubGlobal("window", new EventTarget());
  vi.stubGlobal("document", { elementFromPoint: () => hit });
  dot = new Dot();
  Object.assign(under, { value: null, inPicture: false });
});

function begun() {
  const linking = useLinking();
  const press = { currentTarget: dot, pointerId: 1, button: 0, clientX: 0, clientY: 0, preventDefault: vi.fn() };
  linking.begin(press as never, wheel);
  return linking;
}

describe("a thread pulled from a value", () => {
  it("asks for a link to the value it is let go over", () => {
    const linking = begun();
    under.value = { linkObject: "leaf", linkChannel: "x" };
    go(["pointermove", 40]);
    expect(linking.drag).toMatchObject({ from: wheel, at: { x: 40, y: 0 }, over: { object: "leaf", channel: "x" } });
    go(["pointerup", 40]);
    expect([linking.drag, linking.asked]).toEqual([null, { from: wheel, to: { object: "leaf", channel: "x" } }]);
  });

  it("finds what lies under it in the picture", () => {
    const linking = begun();
    under.inPicture = true;
    linking.finder = () => "moth";
    go(["pointermove", 40], ["pointerup", 40]);
    expect(linking.asked?.to).toEqual({ object: "moth", channel: null });
  });

  it("asks for nothing over itself, over nothing, called off, or hardly moved", () => {
    for (const [value, steps] of [
      [
        { linkObject: "wheel", linkChannel: "rotation" },
        [
          ["pointermove", 40],
          ["pointerup", 40],
        ],
      ],
      [
        null,
        [
          ["pointermove", 40],
          ["pointerup", 40],
        ],
      ],
      [
        { linkObject: "leaf" },
        [
          ["pointermove", 40],
          ["pointercancel", 40],
        ],
      ],
      [
        { linkObject: "leaf" },
        [
          ["pointermove", 2],
          ["pointerup", 2],
        ],
      ],
    ] as [Record<string, string> | null, [string, number][]][]) {
      const linking = begun();
      under.value = value;
      go(...steps);
      expect([linking.drag, linking.asked]).toEqual([null, null]);
    }
  });
});
