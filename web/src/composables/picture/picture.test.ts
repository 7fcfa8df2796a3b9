/** A hand in the picture: what it takes hold of, what that snaps to, and what a press does by the tool at hand. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { ref } from "vue";
import { still } from "@/api/channels";
import { colourSeen } from "@/composables/picture/colourSeen";
import { useGuides } from "@/composables/picture/useGuides";
import { usePanKey } from "@/composables/picture/usePanKey";
import { usePictureDrag } from "@/composables/picture/usePictureDrag";
import { usePictureHover } from "@/composables/picture/usePictureHover";
import { usePictureOpening } from "@/composables/picture/usePictureOpening";
import { usePicturePicking } from "@/composables/picture/usePicturePicking";
import { usePicturePress } from "@/composables/picture/usePicturePress";
import { useSnapping } from "@/composables/picture/useSnapping";
import { useLive } from "@/stores/live";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useVocabulary } from "@/stores/vocabulary";
import { said } from "@/testing/said";
import { handAt, pressAt, withWindow } from "@/testing/pointer";
import { laid, rows, staged, thing, VOCABULARY } from "@/testing/stage";

const at = ((event: MouseEvent) => ({ x: event.clientX, y: event.clientY })) as never;

/** A post at (100, 60) with an arm on it, and a leaf at (400, 200), each 40 by 20 px; nothing snaps. */
function gorge() {
  withWindow();
  const stage = staged([
    thing("post", { x: still(100), y: still(60) }, { type: "outline" }),
    thing("arm", {}, { parent: "post" }),
    thing("leaf", { x: still(400), y: still(200) }),
  ]);
  laid({ post: [100, 60, 40, 20], arm: [120, 60, 20, 10], leaf: [400, 200, 40, 20] }, { post: { "pivot.x": rows(5) } });
  stage.selection.snap = { on: false, across: 0, down: 0 };
  stage.selection.keyAsIMove = false;
  stage.selection.pick("post");
  const snapping = useSnapping(() => 1);
  return { ...stage, snapping, drag: usePictureDrag(at, snapping) };
}
let one: ReturnType<typeof gorge>;
beforeEach(() => (one = gorge()));
const values = (edits: readonly object[]) =>
  Object.fromEntries((edits as { channel: string; value: number }[]).map((edit) => [edit.channel, edit.value]));

describe("a drag in the picture", () => {
  it("moves what is picked, shown while it goes and kept where it ends", () => {
    const hand = handAt((press) => one.drag.begin(press, { kind: "move" }), [100, 60]).move([101, 61]);
    expect([one.drag.active.value, one.looks]).toEqual([null, []]);
    hand.move([130, 64]);
    expect(one.drag.values.value).toEqual({ x: 130, y: 64 });
    hand.drop();
    expect(values(one.edits[0]!)).toEqual({ x: 130, y: 64 });
    expect([one.drag.active.value, one.drag.values.value]).toEqual([null, null]);
  });

  it("leaves all as it was if it is called off, or was but a click", () => {
    handAt((press) => one.drag.begin(press, { kind: "move" }), [100, 60])
      .move([130, 64])
      .cancel();
    handAt((press) => one.drag.begin(press, { kind: "move" }), [100, 60]).drop();
    expect([one.edits, one.looks.at(-1)]).toEqual([[], []]);
  });

  it("turns about the pivot, sizes by a corner, and moves the pivot in one edit of its own", () => {
    handAt((press) => one.drag.begin(press, { kind: "turn" }), [205, 60])
      .move([105, 160])
      .drop();
    expect(values(one.edits[0]!)).toEqual({ rotation: 90 });
    expect(one.selection.row?.name, "what it changes is shown").toBe("Rotation");
    handAt((press) => one.drag.begin(press, { kind: "scale", corner: { x: 20, y: 10 } }), [120, 70])
      .move([135, 80])
      .drop();
    expect(Object.keys(values(one.edits[1]!))).toEqual(["scale.x", "scale.y"]);
    handAt((press) => one.drag.begin(press, { kind: "pivot" }), [105, 60])
      .move([110, 62])
      .drop();
    expect(one.edits[2]).toEqual([{ edit: "move-pivot", id: "post", frame: 0, x: 10, y: 2 }]);
  });

  it("moves all picked things together", () => {
    one.selection.pickAll(["post", "leaf"]);
    handAt(one.drag.beginTogether, [100, 60]).move([110, 60.04]).drop();
    expect(one.edits[0]).toMatchObject([{ edit: "move-objects", objects: ["post", "leaf"], dx: 10, dy: 0 }]);
  });

  it("stops what plays", () => {
    const pause = vi.spyOn(usePlayback(), "pause");
    handAt((press) => one.drag.begin(press, { kind: "move" }), [100, 60]);
    expect(pause).toHaveBeenCalledOnce();
  });
});

describe("from the keyboard", () => {
  it("it goes on from where the step before has left it, and steps that wait are made as one", async () => {
    let release = (): void => {};
    one.scene.edit = ((made: never) => (
      one.edits.push(made),
      new Promise<boolean>((done) => (release = () => done(true)))
    )) as never;
    const first = one.drag.nudge("move", { x: 1 });
    void one.drag.nudge("move", { x: 1 });
    void one.drag.nudge("move", { x: 1, y: -10 });
    expect(one.edits).toHaveLength(1);
    release();
    await vi.waitFor(() => expect(one.edits).toHaveLength(2));
    release();
    await first;
    expect(one.edits.map(values)).toEqual([{ x: 101 }, { x: 102, y: 50 }]);
  });

  it("sizes by factors, and pivots in an edit of their own", async () => {
    await one.drag.nudge("scale", { "scale.x": 1.1, "scale.y": 1.1 });
    await one.drag.nudge("pivot", { "pivot.y": 3 });
    expect(values(one.edits[0]!)).toEqual({ "scale.x": 1.1, "scale.y": 1.1 });
    expect(one.edits[1]).toEqual([{ edit: "move-pivot", id: "post", frame: 0, x: 5, y: 3 }]);
  });

  it("what is locked is told to be", async () => {
    one.scene.objects = one.scene.objects.map((each) => ({ ...each, locked: true }));
    await one.drag.nudge("move", { x: 1 });
    expect([one.edits, said.info]).toEqual([
      [],
      ["Post is locked: unlock it in the troupe to change it in the picture."],
    ]);
  });
});

describe("snapping", () => {
  it("brings edges, middles and pivots in line with the picture and with others, but not with its own parts", () => {
    const { guidesFor } = useGuides();
    const names = (id: string | null) => new Set(guidesFor(id).upright.map((guide) => guide.says));
    expect(names("post")).toEqual(new Set(["edge", "centre", "third", "quarter", "Leaf"]));
    expect(names("arm"), "what it hangs on moves with it").toEqual(
      new Set(["edge", "centre", "third", "quarter", "Leaf"]),
    );
    expect(names(null).has("Post")).toBe(true);
  });

  it("happens near a line only, along one direction with Shift, and not while it is off", () => {
    expect(one.snapping.begin("post"), "off").toBeNull();
    one.selection.snap = { on: true, across: 0, down: 0 };
    const snap = one.snapping.begin("post")!;
    // Its left edge, 20 px left of its middle, comes to be on the leaf's, at 380.
    expect(snap({ x: 100, y: 60 }, { x: 403, y: 61 }, false)).toEqual({ x: 400, y: 61 });
    expect(one.snapping.shown.value.upright).toMatchObject({ at: 380, says: "Leaf" });
    expect(snap({ x: 100, y: 60 }, { x: 403, y: 60 }, true), "sideways").toEqual({ x: 400, y: 60 });
    expect(snap({ x: 100, y: 60 }, { x: 460, y: 61 }, true)).toEqual({ x: 460, y: 61 });
    one.snapping.end();
    expect(one.snapping.shown.value).toEqual({ upright: null, level: null });
    expect(one.snapping.point({ x: 318, y: 300 }, null)).toEqual({ x: 320, y: 300 });
  });
});

/** What a press meets: objects under it are told, so that no picture need be painted. */
function pressing(under: string | null) {
  const picking = { ...usePicturePicking(at, () => 1), foremost: () => under, underPointer: () => under };
  const heard: string[] = [];
  const hear = (name: string) => () => void heard.push(name);
  const view = { isPinching: () => false, beginPan: hear("pan"), toStage: (x: number, y: number) => ({ x, y }) };
  const drag = { begin: hear("drag"), beginTogether: hear("drag together"), active: ref<string | null>(null) };
  const drawing = { press: hear("draw"), hover: hear("hover of drawing"), finish: hear("finish") };
  const parts = {
    stage: ref(undefined),
    canvas: ref(undefined),
    at,
    view,
    picking,
    drag,
    boxing: { begin: hear("box") },
    drawing,
    points: { thing: ref(null), beginBox: hear("points box") },
    path: { goOnTo: hear("path") },
  };
  const { press } = usePicturePress(parts as never);
  const { open } = usePictureOpening(at, picking as never, drawing as never);
  const { hover, hovered } = usePictureHover(view as never, picking as never, drag as never, drawing as never);
  return {
    press: (held = {}) => (press(pressAt([0, 0], held)), heard),
    open: () => (open(pressAt([0, 0])), heard),
    hover,
    hovered,
    dragged: drag.active,
  };
}

describe("a press in the picture", () => {
  it("picks what is there and takes hold of it, or draws a box around several", () => {
    expect(pressing("leaf").press()).toEqual(["drag"]);
    expect(one.selection.objectId).toBe("leaf");
    expect(pressing(null).press()).toEqual(["box"]);
    expect(one.selection.objectId).toBeNull();
  });

  it("takes hold of what is picked by a part of it", () => {
    expect(pressing("arm").press()).toEqual(["drag"]);
    expect(one.selection.objectId, "the arm hangs on the post").toBe("post");
  });

  it("adds to what is picked with Shift, and lets it go again", () => {
    expect(pressing("leaf").press({ shiftKey: true })).toEqual(["drag together"]);
    expect(one.selection.picked).toEqual(["post", "leaf"]);
    expect(pressing("leaf").press()).toEqual(["drag together"]);
    expect(pressing("leaf").press({ ctrlKey: true })).toEqual([]);
    expect(one.selection.picked).toEqual(["post"]);
  });

  it("goes to the tool at hand", () => {
    one.selection.tool = "draw";
    expect(pressing("leaf").press()).toEqual(["draw"]);
    one.selection.tool = "path";
    expect(pressing("leaf").press()).toEqual(["path"]);
    one.selection.tool = "points";
    pressing("leaf").press();
    expect(one.selection.objectId).toBe("leaf");
  });

  it("moves the picture with the middle button, or while Z is held", () => {
    expect(pressing("leaf").press({ button: 1 })).toEqual(["pan"]);
    expect(pressing("leaf").press({ button: 2 })).toEqual([]);
    const panning = usePanKey();
    const key = (name: string, more = {}) =>
      window.dispatchEvent(Object.assign(new Event(name), { key: "z", ...more }));
    key("keydown", { ctrlKey: true });
    expect(panning.value, "Ctrl+Z is undo").toBe(false);
    key("keydown");
    expect(panning.value).toBe(true);
    key("keyup");
    expect(panning.value).toBe(false);
  });

  it("tells the colour that is seen to who waits for it, once", () => {
    const [take, outline] = [vi.fn(), useOutline()];
    outline.taking = take;
    expect(pressing("leaf").press()).toEqual([]);
    expect([outline.taking, take.mock.calls], "no canvas, no colour").toEqual([null, []]);
    const pixel = (...data: number[]) =>
      ({
        width: 1280,
        height: 720,
        getContext: () => ({ getImageData: (x: number, y: number) => ({ data: x === 20 && y === 10 ? data : [] }) }),
      }) as never;
    expect(colourSeen(pixel(255, 0, 128, 255), { x: 10, y: 5 }, [640, 360])).toBe("#FF0080");
    expect(colourSeen(pixel(255, 0, 128, 0), { x: 10, y: 5 }, [640, 360])).toBeNull();
  });
});

describe("a double click", () => {
  it("goes to the points of an outline, to the words of a text, and picks a part", () => {
    pressing("post").open();
    expect([one.selection.objectId, one.selection.tool]).toEqual(["post", "points"]);
    one.selection.tool = "pick";
    pressing("arm").open();
    expect([one.selection.objectId, one.selection.tool]).toEqual(["arm", "pick"]);
    one.scene.objects = [...one.scene.objects, thing("sign", {}, { type: "text" })];
    pressing("sign").open();
    expect(one.selection.writing).toBe("sign");
  });

  it("ends an outline that is being drawn", () => {
    one.selection.tool = "draw";
    const point = { at: { x: 0, y: 0 }, into: null, out: null };
    useOutline().drawn = [point, point];
    expect(pressing("post").open()).toEqual(["finish"]);
  });
});

describe("under the pointer", () => {
  it("the name of what is there is told, but not while a hand moves something or it is played live", () => {
    const { hover, hovered, dragged } = pressing("leaf");
    hover(pressAt([7, 8]));
    expect(hovered.value).toEqual({ name: "Leaf", at: { x: 7, y: 8 } });
    dragged.value = "move";
    hover(pressAt([7, 8]));
    expect(hovered.value).toBeNull();
    dragged.value = null;
    useLive().on = true;
    hover(pressAt([7, 8]));
    expect(hovered.value).toBeNull();
  });

  it("a part counts as its whole, until one of its parts is picked", () => {
    const group = { name: "group", icon: "group", is_whole: true, is_drawn: false };
    useVocabulary().words = { ...VOCABULARY, kinds: [...VOCABULARY.kinds, group] } as never;
    one.scene.objects = [
      thing("cart", {}, { kind: "group" } as never),
      thing("wheel", {}, { parent: "cart" }),
      thing("axle", {}, { parent: "cart" }),
    ];
    const picking = usePicturePicking(at, () => 2);
    expect(picking.pickable("wheel")).toBe("cart");
    one.selection.pick("axle");
    expect(picking.pickable("wheel")).toBe("wheel");
    expect([picking.onPicked("axle"), picking.onPicked("wheel"), picking.isOn("wheel", "cart")]).toEqual([
      true,
      false,
      true,
    ]);
    expect(picking.reach(), "5 px of the screen").toBe(2.5);
  });
});
