/** Picked keys: which are meant, when they come, copying and deleting them. */
import { describe, expect, it } from "vitest";
import { useKeyCopies } from "@/composables/keys/useKeyCopies";
import { useKeyRemoving } from "@/composables/keys/useKeyRemoving";
import { useKeyScopes } from "@/composables/keys/useKeyScopes";
import { useKeyTiming } from "@/composables/keys/useKeyTiming";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { baked, keyed, rows, staged, thing } from "@/testing/stage";

function scene() {
  const all = staged([
    thing("leaf", { x: keyed([0, 10], [4, 20], [12, 30]), rotation: keyed([4, 90]) }),
    thing("moth", { x: keyed([4, 1], [8, 2]) }),
  ]);
  all.selection.pick("leaf");
  return { ...all, picks: usePicks() };
}
const X = (...frames: number[]) => ({ object: "leaf", channel: "x", frames });
const TURN = { object: "leaf", channel: "rotation", frames: [4] };

describe("which keys are meant", () => {
  it("are those of the row, the object, the frame or the scene", () => {
    scene();
    const scopes = useKeyScopes();
    expect([scopes.keyedChannels.value, scopes.rowFrames.value]).toEqual([["x"], [0, 4, 12]]);
    expect(scopes.within("row")).toEqual([X(0, 4, 12)]);
    expect(scopes.within("object")).toEqual([X(0, 4, 12), TURN]);
    usePlayback().goTo(4);
    const moth = { object: "moth", channel: "x" };
    expect(scopes.within("frame")).toEqual([X(4), TURN, { ...moth, frames: [4] }]);
    expect(scopes.within("scene")).toEqual([X(0, 4, 12), TURN, { ...moth, frames: [4, 8] }]);
    scopes.pickAll("object");
    expect(scopes.frames.value).toEqual([0, 4, 12]);
  });

  it("are those of all that are picked together", () => {
    const { selection } = scene();
    selection.pickAll(["leaf", "moth"]);
    expect(
      useKeyScopes()
        .within("row")
        .map((one) => one.object),
    ).toEqual(["leaf", "moth"]);
  });
});

describe("timing", () => {
  it("spreads and stretches them, and goes on holding them", async () => {
    const { picks, edits } = scene();
    const scopes = useKeyScopes();
    const timing = useKeyTiming(scopes);
    picks.set([X(0, 4, 12)]);
    await timing.spread();
    expect(edits[0]).toEqual([{ edit: "spread-keys", keys: [X(0, 4, 12)] }]);
    expect([0, 6, 12].map((frame) => picks.has("leaf", "x", frame))).toEqual([true, true, true]);
    picks.set([X(4, 12)]);
    await timing.stretch(4, 2);
    expect(edits[1]).toEqual([{ edit: "stretch-keys", keys: [X(4, 12)], about: 4, factor: 2 }]);
    expect(picks.has("leaf", "x", 20)).toBe(true);
  });

  it("holds, turns, closes and evens out the picked row", async () => {
    const { picks, edits } = scene();
    const timing = useKeyTiming(useKeyScopes());
    picks.set([X(4, 12)]);
    await timing.hold(4, 6, true);
    await timing.turn(2, false);
    await timing.closeLoop();
    await timing.reverse();
    await timing.evenSpeed();
    const of = { object: "leaf", channels: ["x"] };
    expect(edits).toEqual([
      [{ edit: "hold-here", ...of, frame: 4, frames: 6, push: true }],
      [{ edit: "turn-times", object: "leaf", frame: 4, times: 2, clockwise: false }],
      [{ edit: "close-loop", ...of }],
      [{ edit: "reverse-keys", keys: [X(4, 12)] }],
      [{ edit: "even-speed", ...of }],
    ]);
    expect(picks.count).toBe(0);
  });
});

describe("copies", () => {
  it("come to lie from the playhead on, each object's later, from its own start if that is wanted", () => {
    const { picks } = scene();
    baked({ leaf: { x: rows(500) }, moth: { x: rows(70) } });
    const copies = useKeyCopies();
    picks.set([X(4, 12)]);
    expect(copies.copy()).toBe(2);
    usePlayback().goTo(20);
    const how = { replace: true, delay: 3, onto: ["leaf", "moth", "gone"] };
    const exact = copies.pasteEdits({ ...how, place: "exact" });
    expect(exact).toMatchObject([
      { edit: "paste-keys", object: "leaf", channel: "x", at: 20, replace: true, keys: [{ value: 20 }, { value: 30 }] },
      { object: "moth", at: 23 },
    ]);
    const own = copies.pasteEdits({ ...how, place: "own start" });
    expect(own).toMatchObject([{ keys: [{ value: 500 }, { value: 510 }] }, { keys: [{ value: 70 }, { value: 80 }] }]);
  });

  it("are of the whole object where nothing is picked, and can be pasted at once", async () => {
    const { edits } = scene();
    const copies = useKeyCopies();
    expect(copies.copy()).toBe(4);
    await copies.paste();
    // Both channels keep their distance: the earliest key of all lies at the playhead.
    expect(edits[0]).toMatchObject([
      { channel: "x", at: 0 },
      { channel: "rotation", at: 4 },
    ]);
  });
});

describe("deleting", () => {
  it("is done at once, but for what would lose its last key", async () => {
    const { picks, edits } = scene();
    const { clearing, remove, drop } = useKeyRemoving();
    picks.set([X(4)]);
    await remove();
    expect(edits[0]).toMatchObject([{ edit: "delete-keys", object: "leaf", channel: "x", frames: [4] }]);
    expect(picks.count).toBe(0);
    await remove([X(0, 4, 12)]);
    expect([edits.length, clearing.value?.name]).toEqual([1, "Leaf"]);
    usePlayback().goTo(7);
    await drop(clearing.value!.picked, "frame");
    expect(edits[1]).toMatchObject([{ frames: [0, 4, 12], keep: "frame", at: 7 }]);
    clearing.value = null;
  });
});
