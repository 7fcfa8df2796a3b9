/** How the picture is on its stage: fitted, zoomed about a point, moved, pinched with two fingers. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { ref } from "vue";
import { usePictureView } from "@/composables/picture/usePictureView";
import { usePinch } from "@/composables/picture/usePinch";
import { handAt, withWindow } from "@/testing/pointer";
import { laid, staged } from "@/testing/stage";

/** A picture of 640 by 360 on a stage of 716 by 380, whose tools take 56: it is shown as large as it is. */
function shown() {
  withWindow();
  staged([]);
  laid({});
  const stage = ref({ getBoundingClientRect: () => ({ left: 30, top: 40 }) } as HTMLElement);
  return usePictureView(stage, ref(716), ref(380));
}
let view: ReturnType<typeof shown>;
beforeEach(() => (view = shown()));

describe("the picture on its stage", () => {
  it("fits, with room around it and for the tools", () => {
    expect([view.scale.value, view.left.value, view.top.value]).toEqual([1, 66, 10]);
    expect(view.toPicture(30 + 66, 40 + 10)).toEqual({ x: 0, y: 0 });
    expect(view.onStage([1, 0, 0, 1, 5, 7], { x: 1, y: 2 })).toEqual({ x: 72, y: 19 });
  });

  it("is zoomed about the pointer, which stays on its place", () => {
    const event = { deltaY: -208, ctrlKey: true, clientX: 130, clientY: 90, preventDefault: vi.fn() };
    const before = view.toPicture(130, 90);
    view.wheel(event as never);
    expect(view.scale.value).toBeCloseTo(2, 2);
    const after = view.toPicture(130, 90);
    expect(after.x).toBeCloseTo(before.x, 0);
    expect(after.y).toBeCloseTo(before.y, 0);
    view.zoomTo(1000);
    expect(view.scale.value).toBe(16);
    view.fit();
    expect([view.zoom.value, view.pan.value]).toEqual([null, { x: 0, y: 0 }]);
  });

  it("is moved by the wheel only once it is zoomed", () => {
    const wheel = () => view.wheel({ deltaX: 5, deltaY: 9, preventDefault: vi.fn() } as never);
    wheel();
    expect(view.pan.value).toEqual({ x: 0, y: 0 });
    view.zoomTo(2, { x: 0, y: 0 });
    const { x, y } = view.pan.value;
    wheel();
    expect(view.pan.value).toEqual({ x: x - 5, y: y - 9 });
  });

  it("is moved by a drag, and keeps its size by then", () => {
    handAt(view.beginPan, [100, 100]).move([120, 90]).drop();
    expect([view.pan.value, view.zoom.value]).toEqual([{ x: 20, y: -10 }, 1]);
  });

  it("shows a box of it as large as there is room for, in the middle", () => {
    view.showBox({ left: 0, top: 0, right: 100, bottom: 50 });
    expect(view.scale.value).toBe(5.8);
    const middle = { x: view.left.value + 50 * view.scale.value, y: view.top.value + 25 * view.scale.value };
    expect(middle.x).toBeCloseTo((716 + 56) / 2, 0);
    expect(middle.y).toBeCloseTo(190, 0);
  });
});

describe("two fingers", () => {
  const touch = (type: string, pointerId: number, clientX: number, more = {}) =>
    ({ type, pointerId, clientX, clientY: 0, pointerType: "touch", ...more }) as PointerEvent;

  it("tell where their middle goes, and by how much they go apart", () => {
    const pinched = vi.fn();
    const fingers = usePinch(pinched);
    fingers.touch(touch("pointerdown", 1, 0));
    fingers.touch(touch("pointermove", 1, 10));
    expect([fingers.isPinching(), pinched.mock.calls]).toEqual([false, []]);
    fingers.touch(touch("pointerdown", 2, 110));
    fingers.touch(touch("pointermove", 2, 210));
    expect(pinched).toHaveBeenCalledWith({ x: 60, y: 0 }, { x: 110, y: 0 }, 2);
    fingers.touch(touch("pointerup", 1, 10));
    expect(fingers.isPinching()).toBe(false);
  });

  it("are two fingers and not the mouse", () => {
    const fingers = usePinch(vi.fn());
    fingers.touch(touch("pointerdown", 1, 0));
    fingers.touch(touch("pointerdown", 2, 0, { pointerType: "mouse" }));
    expect(fingers.isPinching()).toBe(false);
  });

  it("zoom the picture about their middle", () => {
    for (const event of [touch("pointerdown", 1, 130), touch("pointerdown", 2, 230), touch("pointermove", 2, 330)])
      view.touch(event);
    expect(view.scale.value).toBe(2);
    expect(view.isPinching()).toBe(true);
  });
});
