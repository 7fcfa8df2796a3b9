import { encode } from "@msgpack/msgpack";
import { expect, it } from "vitest";
import { type Motion, numberAt, readMotion } from "@/api/motion";

const array = (...values: number[]) => ({ w: 1, d: new Uint8Array(new Float32Array(values).buffer) });

/** A message of the service about an object called leaf. */
function told(leaf: object, whole: boolean, before?: Motion): Motion {
  const head = { revision: 1, fps: 24, length: 3, size: [64, 36], background: "#FFFFFF", order: ["leaf"] };
  const none = { dials: [], copies: [], hidden: [], steps: [] };
  return readMotion(encode({ ...head, ...none, whole, objects: { leaf } }), before);
}

it("takes up what is new, keeps the rest, and lets go of what is gone", () => {
  const channels = { x: array(0, 5, 9), y: array(4), path: array(7, 8) };
  const first = told(
    { view: array(1), fade: array(0.5), channels, turns: { x: [24, 48] }, contacts: [3], missing: ["ж"] },
    true,
  );
  const news = { fade: null, channels: { x: array(2), path: null }, turns: { x: null }, contacts: null, missing: null };
  const leaf = told(news, false, first).objects.get("leaf")!;
  expect(Object.keys(leaf.channels)).toEqual(["x", "y"]);
  expect([numberAt(leaf.channels.x!, 1), numberAt(leaf.channels.y!, 1)]).toEqual([2, 4]);
  expect([leaf.turns, leaf.contacts, leaf.missing]).toEqual([{}, [], []]);
  expect(numberAt(leaf.fade, 0)).toBe(0);
  expect(leaf.view).toBe(first.objects.get("leaf")!.view);
  // What one message releases is still there for whoever holds the motion before.
  expect(first.objects.get("leaf")!.turns).toEqual({ x: [24, 48] });
});

it("knows nothing of before where all is sent", () => {
  const first = told({ channels: { x: array(1) } }, true);
  expect(told({ channels: { y: array(2) } }, true, first).objects.get("leaf")!.channels.x).toBeUndefined();
});

it("takes one that came since for another than the one that was called alike", () => {
  const first = told({ channels: { x: array(1) }, turns: { x: [24] } }, true);
  const leaf = told({ whole: true, channels: { y: array(2) } }, false, first).objects.get("leaf")!;
  expect([Object.keys(leaf.channels), leaf.turns]).toEqual([["y"], {}]);
});
