import { beforeEach, describe, expect, it, vi } from "vitest";
import { useCurveDrag } from "@/composables/curves/useCurveDrag";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { handAt, withWindow } from "@/testing/pointer";
import { keyed, staged, thing } from "@/testing/stage";

/** Ten px a frame, two px for each px of value. */
const SCALE = { perFrame: 10, perValue: () => 2, step: () => 0.1, isNumber: () => true };

function curves() {
  withWindow();
  const stage = staged([thing("leaf", { x: keyed([4, 10], [8, 20], [16, 0]) })]);
  stage.selection.pick("leaf");
  usePlayback().goTo(30);
  return { ...stage, picks: usePicks(), curve: useCurveDrag(() => SCALE) };
}
let one: ReturnType<typeof curves>;
beforeEach(() => (one = curves()));
const keyAt = (n: number) => one.scene.objects[0]!.channels!["x"]!.keys[n]!;
const drag = (n: number, held = {}) =>
  handAt((press) => one.curve.begin(press, { kind: "key", channel: "x", key: keyAt(n) }), [0, 0], held);

describe("keys dragged in the curve view", () => {
  it("go in time by whole frames and in value, and stay picked where they are then", async () => {
    const accept = one.scene.edit;
    one.scene.edit = (made) => {
      one.scene.objects = [thing("leaf", { x: keyed([4, 10], [11, 24], [16, 0]) })];
      return accept(made);
    };
    const hand = drag(1).move([1, 1]);
    expect(one.looks, "a shaky click is no drag").toEqual([]);
    hand.move([31, -8]);
    expect(one.curve.held.value).toEqual({ kind: "key", frames: 3, pixels: -8 });
    hand.drop();
    await vi.waitFor(() => expect(one.curve.held.value).toBeNull());
    expect(one.edits).toEqual([
      [
        { edit: "move-keys", object: "leaf", channel: "x", frames: [8], by: 3 },
        { edit: "set-key", object: "leaf", channel: "x", frame: 11, value: 24 },
      ],
    ]);
    expect(one.picks.frames).toEqual([11]);
  });

  it("go one way with Shift, between frames with Alt, and snap to the playhead", () => {
    drag(1).move([31, -8], { shiftKey: true }).drop();
    expect(one.edits[0]).toMatchObject([{ edit: "move-keys", by: 3 }]);
    expect(drag(1).move([26, 0], { altKey: true })).toBeDefined();
    expect(one.curve.held.value).toMatchObject({ frames: 2.6 });
    usePlayback().goTo(10.4);
    drag(1).move([21, 0]);
    expect(one.curve.held.value).toMatchObject({ frames: usePlayback().frame - 8 });
  });

  it("go together if several are picked, and back if it is called off", () => {
    one.picks.set([{ object: "leaf", channel: "x", frames: [4, 8] }]);
    const hand = drag(0).move([10, 0]);
    expect(one.looks.at(-1)).toMatchObject([{ edit: "move-keys", frames: [4, 8], by: 1 }]);
    hand.cancel();
    expect([one.edits, one.looks.at(-1), one.curve.held.value]).toEqual([[], [], null]);
  });

  it("are picked alone by a click on one of several", () => {
    one.picks.set([{ object: "leaf", channel: "x", frames: [4, 8] }]);
    drag(1).drop();
    expect(one.picks.frames).toEqual([8]);
    drag(2, { shiftKey: true }).drop();
    expect(one.picks.frames).toEqual([8, 16]);
  });
});

describe("handles dragged in the curve view", () => {
  it("are where the hand is, in frames and value", () => {
    const grip = { kind: "out", channel: "x", key: keyAt(0), at: [2, 0], other: null } as const;
    handAt((press) => one.curve.begin(press, grip), [0, 0])
      .move([10, -6])
      .drop();
    expect(one.edits).toEqual([[{ edit: "set-handles", object: "leaf", channel: "x", frame: 4, out: [3, 3] }]]);
  });
});
