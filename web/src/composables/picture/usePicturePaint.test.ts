/** What the canvas of the picture covers, and which painter paints it. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick, ref } from "vue";
import { usePicturePaint } from "@/composables/picture/usePicturePaint";
import { usePictureView } from "@/composables/picture/usePictureView";
import { useInside } from "@/stores/inside";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { withWindow } from "@/testing/pointer";
import { laid, staged, thing } from "@/testing/stage";

const painted = vi.hoisted(() => ({
  paintFrame: vi.fn(),
  paintSteps: vi.fn(),
  paintLive: vi.fn(),
  paintAround: vi.fn(),
}));
vi.mock("vue-router", () => ({ useRouter: () => ({ push: vi.fn() }) }));
vi.mock("@/picture/paint", () => ({ paintFrame: painted.paintFrame, paintSteps: painted.paintSteps }));
vi.mock("@/picture/live", () => ({ paintLive: painted.paintLive }));
vi.mock("@/picture/around", () => ({ paintAround: painted.paintAround }));

/** A picture of 640 by 360 px on a stage of 716 by 380 px, on a screen with two pixels to one of the page. */
function shown() {
  withWindow();
  const { scene } = staged([thing("lens", {}, { kind: "camera" } as never), thing("leaf")]);
  laid({ leaf: [100, 60, 40, 20] });
  const ctx = { canvas: { width: 300, height: 150 }, setTransform: vi.fn(), fillRect: vi.fn(), fillStyle: "" };
  const canvas = ref<HTMLCanvasElement>();
  const [width, height] = [ref(716), ref(380)];
  const view = usePictureView(ref(), width, height);
  const paint = usePicturePaint(canvas, view, width, height);
  const mount = () => (canvas.value = { getContext: () => ctx } as never);
  return { scene, ctx, view, paint, mount };
}
let stage: ReturnType<typeof shown>;
beforeEach(() => {
  vi.clearAllMocks();
  stage = shown();
});

describe("painting the picture", () => {
  it("waits for its canvas, and gives it the size of the picture on the screen", async () => {
    expect(painted.paintFrame).not.toHaveBeenCalled();
    stage.mount();
    await nextTick();
    expect([stage.ctx.canvas.width, stage.ctx.canvas.height]).toEqual([640, 360]);
    expect(painted.paintFrame).toHaveBeenLastCalledWith(stage.ctx, stage.scene.motion, 0, 640, 360, undefined);
    expect(stage.paint.placed.value).toEqual({ left: "66px", top: "10px", width: "640px", height: "360px" });
    stage.view.zoomTo(2);
    await nextTick();
    expect([stage.ctx.canvas.width, stage.ctx.canvas.height]).toEqual([1280, 720]);
  });

  it("follows the playhead, and does not set a size that it has", async () => {
    stage.mount();
    await nextTick();
    const sized = vi.fn();
    Object.defineProperty(stage.ctx.canvas, "width", { get: () => 640, set: sized });
    usePlayback().goTo(7);
    await nextTick();
    expect(painted.paintFrame.mock.lastCall?.[2]).toBe(7);
    expect(sized).not.toHaveBeenCalled();
  });

  it("covers the whole stage where that is asked for, a little smaller, its ground first", async () => {
    stage.mount();
    stage.scene.wholeStage = true;
    await nextTick();
    expect(stage.paint.onStage.value).toBe(true);
    expect(stage.view.scale.value).toBeCloseTo(0.72);
    expect(stage.paint.placed.value).toEqual({ left: "0px", top: "0px", width: "716px", height: "380px" });
    expect(stage.ctx.fillRect).toHaveBeenLastCalledWith(0, 0, 716, 380);
    const base = painted.paintSteps.mock.lastCall?.[3] as number[];
    expect(base).toEqual([0.72, 0, 0, 0.72, stage.view.left.value, stage.view.top.value]);
    stage.scene.wholeStage = false;
    await nextTick();
    expect(stage.view.scale.value).toBe(1);
  });

  it("shows what is played live, each object at a frame of its own once one has begun", async () => {
    stage.mount();
    const live = useLive();
    live.on = true;
    stage.scene.wholeStage = true;
    await nextTick();
    expect(stage.paint.onStage.value).toBe(false);
    const [, motion, how, w, h] = painted.paintLive.mock.lastCall!;
    expect([motion, w, h]).toEqual([stage.scene.motion, 640, 360]);
    live.rest = 5;
    live.frames = new Map([["leaf", 9]]);
    expect([how.frameOf("leaf"), how.frameOf("other"), how.parentOf("leaf")]).toEqual([9, 5, null]);
  });

  it("lets what lies around an inset be painted first", async () => {
    const outside = { motion: stage.scene.motion, use: "leaf" };
    vi.spyOn(useInside(), "outside", "get").mockReturnValue(outside as never);
    stage.mount();
    await nextTick();
    (painted.paintFrame.mock.lastCall?.[5] as (scale: number) => void)(3);
    expect(painted.paintAround).toHaveBeenCalledWith(stage.ctx, outside, 0, 3);
  });
});
