/** The time sheet: which lanes there are, and leaves that are slid or picked in a box. */
import { beforeEach, describe, expect, it } from "vitest";
import { ref } from "vue";
import { useLanes } from "@/composables/sheet/useLanes";
import { useLeafDrag } from "@/composables/sheet/useLeafDrag";
import { useBoxPick } from "@/composables/useBoxPick";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";
import { handAt, withWindow } from "@/testing/pointer";
import { baked, dial, keyed, rows, staged, thing } from "@/testing/stage";

const LOG = { id: "log", name: "Log", parent: null, kind: "shape" };
const inset = () => thing("raft", { x: keyed([0, 0], [9, 1]) }, { kind: "inset", inset: { scene: "deck" } } as never);

/** A leaf with keys of two rows, a stone without, and a dial with one of its own. */
function sheet() {
  withWindow();
  const leaf = thing("leaf", { x: keyed([0, 0], [10, 5]), rotation: keyed([10, 1], [20, 2]) });
  const stage = staged([thing("stone"), leaf], { dials: [dial("wind", 1, { channel: keyed([4, 0], [30, 1]) })] });
  baked({ stone: {}, leaf: { x: rows(0) }, "dial:wind": { value: rows(0) } });
  const { lanes, open, opened } = useLanes();
  return { ...stage, lanes, open, opened, picks: usePicks() };
}
let one: ReturnType<typeof sheet>;
beforeEach(() => (one = sheet()));
const names = () => one.lanes.value.map((lane) => [lane.thing.name, lane.row?.name].filter(Boolean).join(" "));

describe("lanes", () => {
  it("are one an object, the foremost first, and one a row with keys of what is opened or picked; then dials", () => {
    expect(names()).toEqual(["Leaf", "Stone", "Wind Value"]);
    one.open("leaf");
    expect(names()).toEqual(["Leaf", "Leaf Travel", "Leaf Rotation", "Stone", "Wind Value"]);
    one.open("leaf");
    one.selection.pick("leaf");
    expect(names()).toHaveLength(5);
  });

  it("are those of what moves alone, if it is so chosen", () => {
    one.selection.onlyMoving = true;
    expect(names()).toEqual(["Leaf", "Wind Value"]);
    one.selection.pick("stone");
    expect(names()).toEqual(["Leaf", "Stone", "Wind Value"]);
    one.selection.onlyMoving = false;
  });

  it("stay the very same while nothing of theirs changes", () => {
    const before = [...one.lanes.value];
    one.scene.objects = [thing("stone", {}, { locked: true }), one.scene.objects[1]!];
    const now = one.lanes.value;
    expect([now[0] === before[0], now[1] === before[1]]).toEqual([true, false]);
  });

  it("do not come again for what is inside an inset, whose parts have lines in the troupe", () => {
    one.scene.head = { ...one.scene.head!, inner: [{ id: "deck", parts: [LOG, { ...LOG, id: "oar" }] }] } as never;
    one.scene.objects = [inset()];
    baked({ raft: { x: rows(0) } });
    one.selection.fold("raft");
    expect(one.selection.unfolded.has("raft")).toBe(true);
    expect(names()).toEqual(["Raft"]);
  });
});

describe("leaves that are slid", () => {
  const slide = (to: number, held = {}, from = 10) => {
    const lane = one.lanes.value.find((each) => each.row?.name === "Travel")!;
    const drag = useLeafDrag(
      () => 10,
      () => one.lanes.value,
    );
    const hand = handAt((press) => drag.begin(press, lane, from), [100, 0], held).move([100 + to, 0], held);
    return { drag, hand };
  };
  beforeEach(() => one.selection.pick("leaf"));

  it("go by whole frames, and the picked ones with them", () => {
    usePlayback().goTo(40);
    const { drag, hand } = slide(74);
    expect(drag.sliding.value).toEqual({ by: 7, snapped: null });
    hand.drop();
    expect(one.edits).toEqual([[{ edit: "move-keys", object: "leaf", channel: "x", frames: [10], by: 7 }]]);
    expect(drag.sliding.value).toBeNull();
  });

  it("snap to keys of other rows and to the playhead, and with Alt to nothing", () => {
    expect(slide(95).drag.sliding.value).toEqual({ by: 10, snapped: { frame: 20, to: "a key" } });
    usePlayback().goTo(13);
    expect(slide(26).drag.sliding.value).toMatchObject({ by: 3, snapped: { to: "the playhead" } });
    expect(slide(26, { altKey: true }).drag.sliding.value).toEqual({ by: 2.6, snapped: null });
  });

  it("stay where they are if it is called off, or brought back", () => {
    slide(74).hand.cancel();
    expect([one.edits, one.looks.at(-1)]).toEqual([[], []]);
    slide(74).hand.move([100, 0]).drop();
    expect(one.edits).toEqual([]);
  });

  it("are picked besides others with Shift, and go by the keyboard too", () => {
    one.picks.set([{ object: "leaf", channel: "rotation", frames: [20] }]);
    const { hand } = slide(50, { shiftKey: true });
    hand.drop();
    expect(one.edits[0]!.map((edit) => (edit as { channel: string }).channel)).toEqual(["rotation", "x"]);
    const lane = one.lanes.value.find((each) => each.row?.name === "Rotation")!;
    useLeafDrag(
      () => 10,
      () => one.lanes.value,
    ).nudge(lane, 10, -1);
    expect(one.edits[1]).toEqual([{ edit: "move-keys", object: "leaf", channel: "rotation", frames: [10], by: -1 }]);
  });
});

describe("leaves in a box", () => {
  it("are picked where it lies over their lanes, and let go by a click beside them", () => {
    one.selection.pick("leaf");
    const time = useTimeView();
    const list = { getBoundingClientRect: () => ({ left: 0, top: 0 }), scrollTop: 0 } as HTMLElement;
    const box = useBoxPick(
      ref(list),
      () => one.lanes.value,
      () => one.lanes.value.map(() => 24),
    );
    const begin = (press: PointerEvent): void => box.begin({ ...press, target: { closest: () => null } } as never);
    const at = (frame: number, lane: number) => [NAMES + AIR + frame * time.perFrame, lane * 24 + 12] as const;
    // Over the lanes of Travel and Rotation, from before frame 10 to after it.
    handAt(begin, at(8, 1)).move(at(12, 2)).drop();
    expect(one.picks.keys.map((key) => [key.channel, key.frames])).toEqual([
      ["x", [10]],
      ["rotation", [10]],
    ]);
    handAt(begin, at(18, 2), { shiftKey: true }).move(at(21, 2)).drop();
    expect(one.picks.count).toBe(3);
    handAt(begin, at(15, 3)).drop();
    expect(one.picks.count).toBe(0);
    expect(box.shown.value).toBeNull();
    handAt(begin, [NAMES - 50, 30])
      .move(at(40, 3))
      .drop();
    expect(one.picks.count, "names are no place for a box").toBe(0);
  });
});
