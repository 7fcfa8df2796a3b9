/** Points of an outline in the picture: picked, dragged, boxed, joined to those of the next key. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { OutlinePoints } from "@/api/types";
import { useOutlineEdit } from "@/composables/outline/useOutlineEdit";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import { useSnapping } from "@/composables/picture/useSnapping";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { handAt, pressAt, withWindow } from "@/testing/pointer";
import { keyed, laid, staged, thing } from "@/testing/stage";
import { still } from "@/api/channels";

vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: {} }));
const service = api as unknown as { outline: (...all: unknown[]) => Promise<OutlinePoints> };
const at = (event: { clientX: number; clientY: number }) => ({ x: event.clientX, y: event.clientY });

const corner = (x: number, y: number, more: object = {}) => ({ x, y, into: null, out: null, smooth: false, ...more });
const LINE = [corner(0, 0), corner(40, 0, { into: [30, 0], out: [50, 0], smooth: true }), corner(40, 40)];
const found = (more: Partial<OutlinePoints> = {}): OutlinePoints =>
  ({
    revision: 0,
    parts: [{ closed: false, points: LINE }],
    tolerance: null,
    meetings: null,
    following: [],
    ...more,
  }) as never;

/** The tool for points on an open outline of three points, whose origin is at (100, 50) of the picture. */
async function editing(channel = still("M0 0"), told = found()) {
  withWindow();
  service.outline = vi.fn(async () => told);
  const stage = staged([thing("vine", { outline: channel }, { type: "outline" }), thing("stone")]);
  laid({ vine: [100, 50, 40, 40] });
  stage.selection.snap = { on: false, across: 0, down: 0 };
  stage.selection.keyAsIMove = false;
  stage.selection.pick("vine");
  stage.selection.tool = "points";
  const edit = useOutlineEdit(
    at as never,
    useSnapping(() => 1),
  );
  await vi.waitFor(() => expect(edit.points.value.length).toBe(3));
  return { ...stage, edit, outline: useOutline() };
}
let vine: Awaited<ReturnType<typeof editing>>;
beforeEach(async () => void (vine = await editing()));

describe("points of an outline", () => {
  it("are those of a drawn outline, with the tool for them", () => {
    expect(hasPoints(vine.selection.object)).toBe(true);
    expect(hasPoints(thing("stone"))).toBe(false);
    expect(service.outline).toHaveBeenCalledWith("s1", "vine", 0);
    vine.selection.tool = "pick";
    expect(vine.edit.thing.value).toBeNull();
  });

  it("go with the hand, those that are picked, and are kept where it lets go", async () => {
    vine.outline.pick([0, 1]);
    const hand = handAt((press) => vine.edit.beginPoint(press, vine.edit.points.value[0]!), [100, 50]);
    hand.move([101, 50]);
    expect(vine.looks).toEqual([]);
    hand.move([110, 56]);
    expect(vine.edit.points.value.map((one) => one.at)).toEqual([
      { x: 10, y: 6 },
      { x: 50, y: 6 },
      { x: 40, y: 40 },
    ]);
    hand.drop();
    await vi.waitFor(() =>
      expect(vine.edits).toEqual([
        [{ edit: "move-points", object: "vine", frame: null, points: [0, 1], dx: 10, dy: 6 }],
      ]),
    );
  });

  it("go back if the drag is called off", async () => {
    const hand = handAt((press) => vine.edit.beginPoint(press, vine.edit.points.value[2]!), [140, 90]);
    hand.move([150, 90]).cancel();
    await vi.waitFor(() => expect(vine.edit.points.value[2]!.at).toEqual({ x: 40, y: 40 }));
    expect([vine.edits, vine.looks.at(-1)]).toEqual([[], []]);
    expect([...vine.outline.picked]).toEqual([2]);
  });

  it("are picked one besides the other with Shift, and let go by it too", () => {
    const press = (n: number) => vine.edit.beginPoint(pressAt([0, 0], { shiftKey: true }), vine.edit.points.value[n]!);
    press(0);
    press(2);
    press(0);
    expect([...vine.outline.picked]).toEqual([2]);
  });

  it("are picked in a box, which picks none where it is empty", () => {
    handAt(vine.edit.beginBox, [90, 40]).move([145, 60]).drop();
    expect([...vine.outline.picked]).toEqual([0, 1]);
    handAt(vine.edit.beginBox, [130, 80], { shiftKey: true }).move([150, 100]).drop();
    expect([...vine.outline.picked]).toEqual([0, 1, 2]);
    handAt(vine.edit.beginBox, [300, 300]).drop();
    expect([vine.outline.picked.size, vine.edit.box.value]).toEqual([0, null]);
  });

  it("are put on a piece where the pointer is", async () => {
    await vine.edit.putOn(pressAt([140, 60]), vine.edit.points.value[1]!);
    expect(vine.edits[0]).toMatchObject([{ edit: "add-point", object: "vine", frame: null, after: 1 }]);
    const [{ share }] = vine.edits[0] as unknown as [{ share: number }];
    expect(share).toBeGreaterThan(0.1);
    expect(share).toBeLessThan(0.6);
    expect([...vine.outline.picked]).toEqual([2]);
    await vine.edit.putOn(pressAt([140, 60]), vine.edit.points.value[2]!);
    expect(vine.edits, "nothing leaves the end of an open outline").toHaveLength(1);
  });
});

describe("handles of points", () => {
  it("go with the hand, on a smooth point with the other one, and alone with Alt", async () => {
    const pull = (held = {}) =>
      handAt((press) => vine.edit.beginHandle(press, vine.edit.points.value[1]!, "out"), [150, 50]).move(
        [150, 60],
        held,
      );
    pull().drop();
    expect(vine.edit.points.value[1]!.into!.y, "it swings along").toBeLessThan(0);
    pull({ altKey: true }).drop();
    await vi.waitFor(() => expect(vine.edits).toHaveLength(2));
    expect(vine.edits.map(([one]) => one)).toMatchObject([
      { edit: "set-point-handle", point: 1, side: "out", to: [50, 10], broken: false },
      { edit: "set-point-handle", broken: true },
    ]);
  });

  it("are not there where a point has none", () => {
    vine.edit.beginHandle(pressAt([0, 0]), vine.edit.points.value[0]!, "out");
    expect(vine.outline.picked.size).toBe(0);
  });
});

describe("what is done to picked points", () => {
  it("is done to the shape itself while nothing is keyed, and other numbers let the picked ones go", async () => {
    vine.outline.pick([1]);
    await vine.edit.actions.corner();
    await vine.edit.actions.remove();
    expect(vine.edits.flat()).toMatchObject([
      { edit: "set-points", frame: null, points: [1], kind: "corner" },
      { edit: "remove-points", frame: null, points: [1] },
    ]);
    expect(vine.outline.picked.size).toBe(0);
    await vine.edit.actions.nudge({ x: 1, y: 0 });
    expect(vine.edits[2]).toMatchObject([{ edit: "move-points", dx: 1, dy: 0, points: [] }]);
  });

  it("joins the two ends of an open outline", async () => {
    vine.edit.actions.pickAll();
    expect(vine.edit.ends.value.map((one) => one.number)).toEqual([0, 2]);
    await vine.edit.actions.join();
    expect(vine.edits[0]).toEqual([{ edit: "join-ends", object: "vine", frame: null, one: 0, other: 2 }]);
  });

  it("is only looked at where the outline is keyed and moves make no keys", async () => {
    const one = await editing(keyed([0, "M0 0"], [12, "M1 1"]));
    usePlayback().goTo(5);
    expect(one.edit.onlyLooks.value).toBe(true);
    await one.edit.actions.reverse();
    expect([one.edits, one.looks.at(-1)]).toEqual([[], [{ edit: "reverse-outline", object: "vine", frame: 5 }]]);
    one.selection.keyAsIMove = true;
    await one.edit.actions.reverse();
    expect(one.edits).toEqual([[{ edit: "reverse-outline", object: "vine", frame: 5 }]]);
  });
});

describe("a line to the points of the next key", () => {
  it("says which goes to which, if it ends near one", async () => {
    const one = await editing(
      keyed([0, "M0 0"], [12, "M1 1"]),
      found({
        following: [{ closed: false, points: [corner(0, 80), corner(60, 80)] }],
        meetings: { frame: 0 } as never,
      } as never),
    );
    const hand = handAt((press) => one.edit.beginMeeting(press, 0), [100, 50]).move([158, 128]);
    expect(one.edit.meeting.value).toMatchObject({ from: { x: 0, y: 0 }, over: 1 });
    hand.drop();
    expect(one.edits).toEqual([[{ edit: "meet-points", object: "vine", frame: 0, meets: [0, 1] }]]);
    handAt((press) => one.edit.beginMeeting(press, 0), [100, 50])
      .move([400, 400])
      .drop();
    expect(one.edits, "a line into nowhere says nothing").toHaveLength(1);
    await one.edit.actions.forgetMeeting();
    expect(one.edits[1]).toMatchObject([{ meets: null }]);
  });
});
