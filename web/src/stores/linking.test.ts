import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useLinking } from "@/stores/linking";
import { handAt, withWindow } from "@/testing/pointer";

/** What is under the pointer: a value, the picture, or nothing. */
const under = { value: null as Record<string, string> | null, inPicture: false };
const hit = {
  closest: (which: string) =>
    which === "[data-link-object]" ? under.value && { dataset: under.value } : under.inPicture ? {} : null,
};
const wheel = { object: "wheel", channel: "rotation" };
beforeEach(() => {
  setActivePinia(createPinia());
  withWindow();
  vi.stubGlobal("document", { elementFromPoint: () => hit });
  Object.assign(under, { value: null, inPicture: false });
});

function begun() {
  const linking = useLinking();
  return { linking, hand: handAt((press) => linking.begin(press, wheel), [0, 0]) };
}

describe("a thread pulled from a value", () => {
  it("asks for a link to the value it is let go over", () => {
    const { linking, hand } = begun();
    under.value = { linkObject: "leaf", linkChannel: "x" };
    hand.move([40, 0]);
    expect(linking.drag).toMatchObject({ from: wheel, at: { x: 40, y: 0 }, over: { object: "leaf", channel: "x" } });
    hand.drop();
    expect([linking.drag, linking.asked]).toEqual([null, { from: wheel, to: { object: "leaf", channel: "x" } }]);
  });

  it("finds what lies under it in the picture", () => {
    const { linking, hand } = begun();
    under.inPicture = true;
    linking.finder = () => "moth";
    hand.move([40, 0]).drop();
    expect(linking.asked?.to).toEqual({ object: "moth", channel: null });
  });

  it("asks for nothing over itself, over nothing, called off, or hardly moved", () => {
    const leaf = { linkObject: "leaf" };
    for (const [value, far, how] of [
      [{ linkObject: "wheel", linkChannel: "rotation" }, 40, "drop"],
      [null, 40, "drop"],
      [leaf, 40, "cancel"],
      [leaf, 2, "drop"],
    ] as const) {
      const { linking, hand } = begun();
      under.value = value;
      hand.move([far, 0])[how]();
      expect([linking.drag, linking.asked]).toEqual([null, null]);
    }
  });
});
