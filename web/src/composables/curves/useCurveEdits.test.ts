import { describe, expect, it } from "vitest";
import type { Key } from "@/api/types";
import { handleEdit, type HandleGrip, useCurveEdits } from "@/composables/curves/useCurveEdits";
import { usePicks } from "@/stores/picks";
import { keyed, staged, thing } from "@/testing/stage";

const SCALE = { perFrame: 10, perValue: () => 2, step: () => 0.1, isNumber: (name: string) => name !== "fill" };
const key = (frame: number, more: Partial<Key> = {}): Key => ({ frame, value: 10, ease: "handles", ...more }) as Key;
const grip = (more: Partial<HandleGrip> = {}): HandleGrip =>
  ({ kind: "out", channel: "x", key: key(4), at: [2, 6], other: [-3, -9], ...more }) as HandleGrip;

describe("keys in the curve view", () => {
  it("go in time and in value, by the scale of their channel", () => {
    staged([thing("leaf", { x: keyed([4, 10], [8, 20]), fill: keyed([4, "#FF0000"]) })]);
    const { keyEdits } = useCurveEdits(() => SCALE);
    expect(keyEdits({ object: "leaf", channel: "x", frames: [4, 8] }, 3, -5)).toEqual([
      { edit: "move-keys", object: "leaf", channel: "x", frames: [4, 8], by: 3 },
      { edit: "set-key", object: "leaf", channel: "x", frame: 7, value: 12.5 },
      { edit: "set-key", object: "leaf", channel: "x", frame: 11, value: 22.5 },
    ]);
    expect(keyEdits({ object: "leaf", channel: "x", frames: [4] }, 0, 1.03)).toEqual([
      { edit: "set-key", object: "leaf", channel: "x", frame: 4, value: 9.5 },
    ]);
    // Colours have no height.
    expect(keyEdits({ object: "leaf", channel: "fill", frames: [4] }, 0, 40)).toEqual([]);
  });
});

describe("handles", () => {
  it("take their partner along in one line, unless it is broken off", () => {
    expect(handleEdit("leaf", grip(), 1, 3, false)).toEqual({
      edit: "set-handles",
      object: "leaf",
      channel: "x",
      frame: 4,
      out: [3, 9],
      in: [-3, -9],
    });
    expect(handleEdit("leaf", grip(), 1, 3, true)).not.toHaveProperty("in");
    expect(handleEdit("leaf", grip({ kind: "in", at: [-2, 4], other: null }), 0, 0, false)).toMatchObject({
      in: [-2, 4],
    });
  });

  it("stay on their own side of the key", () => {
    expect(handleEdit("leaf", grip({ other: null }), -9, 0, false)).toMatchObject({ out: [0.01, 6] });
    expect(handleEdit("leaf", grip({ kind: "in", at: [-2, 4], other: null }), 9, 0, false)).toMatchObject({
      in: [-0.01, 4],
    });
  });

  it("move with those of the other picked keys", () => {
    const keys = [key(0), key(4, { out: [2, 6], in: [-2, -6] }), key(8, { out: [1, 0] })];
    const { selection } = staged([thing("leaf", { x: { ...keyed(), keys } })]);
    selection.pick("leaf");
    usePicks().set([{ object: "leaf", channel: "x", frames: [0, 4, 8] }]);
    const { others } = useCurveEdits(() => SCALE);
    // A key without that handle stays as it is.
    expect(others(grip({ key: keys[1]! }), 1, 2, true)).toEqual([
      { edit: "set-handles", object: "leaf", channel: "x", frame: 8, out: [2, 2] },
    ]);
  });
});
