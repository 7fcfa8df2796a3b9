/** Paths in the picture: their points and handles are dragged, and points put on them. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Channel } from "@/api/types";
import { usePathEdit } from "@/composables/path/usePathEdit";
import { useSetCorner } from "@/composables/path/usePathShape";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { handAt, pressAt, withWindow } from "@/testing/pointer";
import { keyed, laid, rows, staged, thing } from "@/testing/stage";

const at = (event: { clientX: number; clientY: number }) => ({ x: event.clientX, y: event.clientY });
/**
 * A path of three points, bent from the first to the second; and further on, if the second has a handle on that side.
 */
const bent = (out: [number, number] | null = null): Channel => {
  const path = keyed([0, [0, 0]], [10, [90, 0]], [20, [90, 60]]);
  const [first, middle, last] = path.keys;
  return { ...path, keys: [{ ...first!, out: [30, -20] }, { ...middle!, in: [-15, -20], out }, last!] };
};

/** A leaf on a path of three points: bent to the second, straight to the third. */
function onPath() {
  withWindow();
  const stage = staged([thing("leaf", { path: bent() }), thing("stone")]);
  stage.selection.pick("leaf");
  return { ...stage, path: usePathEdit(at as never), picks: usePicks() };
}
let leaf: ReturnType<typeof onPath>;
beforeEach(() => (leaf = onPath()));

describe("points of a path", () => {
  it("have handles where the piece is bent", () => {
    expect(leaf.path.handles.value.map((one) => [one.key.frame, one.side, one.at])).toEqual([
      [0, "out", [30, -20]],
      [10, "in", [-15, -20]],
    ]);
    expect([0, 1, 2].map(leaf.path.wayOf)).toEqual(["bezier", "straight", "straight"]);
  });

  it("go with the hand, and are kept where it lets go", () => {
    const hand = handAt((press) => leaf.path.begin(press, { kind: "point", key: leaf.path.keys.value[2]! }), [90, 60]);
    hand.move([91, 61]);
    expect(leaf.looks, "a shaky click is no drag").toEqual([]);
    hand.move([100, 64]);
    expect(leaf.path.moving.value).toEqual({ frame: 20, text: "100, 64" });
    hand.drop();
    expect(leaf.edits).toEqual([[{ edit: "set-key", object: "leaf", channel: "path", frame: 20, value: [100, 64] }]]);
    expect(leaf.path.isPicked(leaf.path.keys.value[2]!)).toBe(true);
  });

  it("go together if several are picked, and in one direction with Shift", () => {
    leaf.picks.set([{ object: "leaf", channel: "path", frames: [0, 20] }]);
    handAt((press) => leaf.path.begin(press, { kind: "point", key: leaf.path.keys.value[0]! }), [0, 0])
      .move([20, 3], { shiftKey: true })
      .drop();
    expect(leaf.edits[0]!.map((one) => (one as { value: unknown }).value)).toEqual([
      [20, 0],
      [110, 60],
    ]);
  });

  it("stay where they were if the drag is called off", () => {
    handAt((press) => leaf.path.begin(press, { kind: "point", key: leaf.path.keys.value[0]! }), [0, 0])
      .move([20, 3])
      .cancel();
    expect(leaf.edits).toEqual([]);
    expect(leaf.looks.at(-1), "what was shown is let go").toEqual([]);
    expect(leaf.path.moving.value).toBeNull();
  });

  it("become sharp or smooth, those that are meant", () => {
    useSetCorner()([10], "smooth");
    useSetCorner()([], "sharp");
    expect(leaf.edits).toEqual([[{ edit: "set-corner", object: "leaf", frames: [10], corner: "smooth" }]]);
  });
});

describe("handles of a path", () => {
  const pull = (n: number, held = {}) => {
    const handle = leaf.path.handles.value[n]!;
    handAt((press) => leaf.path.begin(press, { kind: "handle", handle }), [0, 0])
      .move([6, 0], held)
      .drop();
    return leaf.edits[0];
  };

  it("are pulled, and turn the one on the other side with them", () => {
    leaf.scene.objects = [thing("leaf", { path: bent([6, 8]) })];
    expect(pull(1), "the other one keeps its length and lies across").toEqual([
      { edit: "set-handles", object: "leaf", channel: "path", frame: 10, out: [12, 8], in: [-20.8, -13.9] },
    ]);
  });

  it("are pulled alone where there is no other", () => {
    expect(pull(0)).toEqual([{ edit: "set-handles", object: "leaf", channel: "path", frame: 0, out: [36, -20] }]);
  });
});

describe("a path that grows", () => {
  it("gets a point at the frame whose dot is nearest, unless there is one", async () => {
    const place = { data: Float32Array.from([0, 0, 10, 0, 20, 0, 30, 0]), rows: 4, width: 2 };
    laid({ leaf: [0, 0, 10, 10] });
    Object.assign(leaf.scene.motion!.objects.get("leaf")!, { place });
    await leaf.path.putOn(pressAt([21, 4]));
    expect(leaf.edits).toEqual([[{ edit: "set-key", object: "leaf", channel: "path", frame: 2 }]]);
    await leaf.path.putOn(pressAt([1, 0]));
    expect(leaf.edits, "frame 0 has its point").toHaveLength(1);
  });

  it("goes on from its end: at the playhead, or a good while after the last point", async () => {
    laid({ leaf: [0, 0, 10, 10] }, { leaf: { x: rows(0) } });
    await leaf.path.goOnTo(pressAt([120.04, 80]));
    usePlayback().goTo(40);
    await leaf.path.goOnTo(pressAt([140, 90]));
    leaf.selection.pick("stone");
    await leaf.path.goOnTo(pressAt([5, 5]));
    expect(leaf.edits.map(([one]) => one)).toMatchObject([
      { object: "leaf", frame: 32, value: [120, 80] },
      { object: "leaf", frame: 40, value: [140, 90] },
      { object: "stone", frame: 40, value: [5, 5] },
    ]);
    expect(leaf.picks.count, "what is chosen next is meant for all of it").toBe(0);
  });
});
