/** Drawing outlines in the picture: point by point, and freely. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useDrawing } from "@/composables/picture/useDrawing";
import { useSnapping } from "@/composables/picture/useSnapping";
import { useOutline } from "@/stores/outline";
import { handAt, pressAt, withWindow } from "@/testing/pointer";
import { staged, thing } from "@/testing/stage";

const at = ((event: MouseEvent) => ({ x: event.clientX, y: event.clientY })) as never;

function begun() {
  withWindow();
  const stage = staged([thing("stone")]);
  stage.selection.snap = { on: false, across: 0, down: 0 };
  const outline = useOutline();
  outline.freely = false;
  return {
    ...stage,
    outline,
    drawing: useDrawing(
      at,
      () => 1,
      useSnapping(() => 1),
    ),
  };
}
let sheet: ReturnType<typeof begun>;
beforeEach(() => (sheet = begun()));
const put = (x: number, y: number, held = {}) => handAt(sheet.drawing.press, [x, y], held);

describe("point by point", () => {
  it("a press puts a corner, and a drag from it a smooth point", () => {
    put(10.04, 10).drop();
    put(60, 10).move([80, 20]).drop();
    expect(sheet.outline.drawn).toEqual([
      { at: { x: 10, y: 10 }, into: null, out: null },
      { at: { x: 60, y: 10 }, into: { x: 40, y: 0 }, out: { x: 80, y: 20 } },
    ]);
  });

  it("goes straight on with Shift, and back a point at a time", () => {
    put(10, 10).drop();
    put(60, 13, { shiftKey: true }).drop();
    expect(sheet.outline.drawn.at(-1)!.at).toEqual({ x: 60, y: 10 });
    sheet.drawing.back();
    expect(sheet.outline.drawn).toHaveLength(1);
  });

  it("leaves no point whose press is called off", () => {
    put(10, 10).drop();
    put(60, 10).move([80, 20]).cancel();
    expect(sheet.outline.drawn).toHaveLength(1);
  });

  it("shows where the next point would lie", () => {
    sheet.drawing.hover(pressAt([5, 5]));
    expect(sheet.outline.pointer).toBeNull();
    put(10, 10).drop();
    sheet.drawing.hover(pressAt([35, 12], { shiftKey: true }));
    expect(sheet.outline.pointer).toEqual({ x: 35, y: 10 });
  });

  it("is closed by a press on its first point, and is filled then", async () => {
    for (const [x, y] of [
      [10, 10],
      [60, 10],
      [60, 60],
    ] as const)
      put(x, y).drop();
    expect(sheet.drawing.closes({ x: 14, y: 12 })).toBe(true);
    put(14, 12).drop();
    await vi.waitFor(() => expect(sheet.edits).toHaveLength(1));
    expect(sheet.edits[0]).toMatchObject([
      {
        edit: "draw-outline",
        name: "Green outline",
        channels: { fill: { base: "#3F8F63" } },
        d: expect.stringMatching(/Z$/),
      },
    ]);
    expect(sheet.outline.drawn).toEqual([]);
    expect(sheet.selection.objectId).toBe((sheet.edits[0]![0] as { id: string }).id);
  });

  it("that ends open is a line; one point alone is nothing", async () => {
    put(10, 10).drop();
    await sheet.drawing.finish(false);
    expect(sheet.edits).toEqual([]);
    put(10, 10).drop();
    put(60, 10).drop();
    await sheet.drawing.finish(false);
    expect(sheet.edits[0]).toMatchObject([
      { name: "Green line", channels: { fill: { base: "#00000000" }, "stroke.width": { base: 6 } } },
    ]);
  });
});

describe("freely", () => {
  beforeEach(() => (sheet.outline.freely = true));

  it("a line follows the hand, and is closed where it comes back to its beginning", async () => {
    const hand = put(0, 0).move([40, 0]).move([40, 40]);
    expect(sheet.outline.hand).toHaveLength(3);
    hand.move([3, 3]).drop();
    await vi.waitFor(() => expect(sheet.edits).toHaveLength(1));
    expect(sheet.edits[0]).toMatchObject([
      {
        hand: {
          places: [
            [0, 0],
            [40, 0],
            [40, 40],
            [3, 3],
          ],
          tolerance: 2,
          closed: true,
        },
      },
    ]);
    expect(sheet.outline.hand).toEqual([]);
  });

  it("takes every place that the pointer reported between two frames", () => {
    const several = [
      { clientX: 10, clientY: 0 },
      { clientX: 20, clientY: 4 },
    ];
    put(0, 0).move([20, 4], { getCoalescedEvents: () => several } as object);
    expect(sheet.outline.hand).toEqual([
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 20, y: 4 },
    ]);
  });

  it("a speck is nothing, nor is what is called off; with Alt it goes point by point", async () => {
    put(0, 0).move([2, 0]).drop();
    put(0, 0).move([90, 0]).cancel();
    await Promise.resolve();
    expect(sheet.edits).toEqual([]);
    put(5, 5, { altKey: true }).drop();
    expect(sheet.outline.drawn).toHaveLength(1);
  });
});
