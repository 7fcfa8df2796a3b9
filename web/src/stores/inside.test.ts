import { beforeEach, describe, expect, it, vi } from "vitest";
import type { TroupeObject } from "@/api/types";
import { addressInside, useInside } from "@/stores/inside";
import { usePlayback } from "@/stores/playback";
import { baked, rows, staged, thing } from "@/testing/stage";

const router = vi.hoisted(() => ({ push: vi.fn() }));
vi.mock("vue-router", () => ({ useRouter: () => router }));
vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { motion: vi.fn().mockRejectedValue(new Error("not asked")) },
}));

const frog = () =>
  thing("frog", {}, { kind: "inset", inset: { scene: "blink", past: "hold" } } as Partial<TroupeObject>);
beforeEach(() => router.push.mockClear());

describe("going inside", () => {
  it("addresses the scenes inside one by its whole", () => {
    expect(addressInside("s1", "blink")).toBe("s1~blink");
    expect(addressInside("s1~blink", "eye")).toBe("s1~eye");
  });

  it("goes in at the frame that is shown, and back out to where it came from", () => {
    const { scene } = staged([frog()]);
    baked({ frog: { "inset.frame": rows(3, 4, 5, 6) } });
    usePlayback().goTo(2);
    const inside = useInside();
    inside.enter("frog", "eye");
    expect(router.push).toHaveBeenLastCalledWith({ name: "workspace", params: { id: "s1~blink" } });
    expect(inside.arrived("s1")).toBeNull();
    inside.enter("frog", "eye");
    expect(inside.arrived("s1~blink")).toEqual({ to: "s1~blink", frame: 5, pick: "eye" });
    // What was opened is that inner scene now.
    scene.id = "s1~blink";
    scene.whole = { id: "s1", name: "Gorge" } as never;
    expect(inside.trail.map((one) => [one.from, one.use, one.frame])).toEqual([["s1", "frog", 2]]);
    inside.leave();
    expect(router.push).toHaveBeenLastCalledWith({ name: "workspace", params: { id: "s1" } });
    expect(inside.arrived("s1")).toEqual({ to: "s1", frame: 2, pick: "frog" });
  });

  it("shows the whole where an inner scene was opened by its address", () => {
    const { scene } = staged([thing("eye")]);
    scene.id = "s1~other";
    scene.whole = { id: "s1", name: "Gorge" } as never;
    expect(useInside().trail).toEqual([{ from: "s1", name: "Gorge", use: null, frame: 0, to: "s1~other" }]);
  });

  it("goes into nothing but insets", () => {
    staged([thing("leaf")]);
    useInside().enter("leaf");
    expect(router.push).not.toHaveBeenCalled();
  });
});
