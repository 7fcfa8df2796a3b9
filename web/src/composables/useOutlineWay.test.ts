/** The way along an outline that a rule draws a part of. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick, ref } from "vue";
import { api } from "@/api/client";
import type { Rule } from "@/api/types";
import { useOutlineWay } from "@/composables/useOutlineWay";
import { usePlayback } from "@/stores/playback";
import { staged, thing } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { vine: vi.fn() },
}));
const asked = vi.mocked(api.vine);

/** What the browser knows of a path: here each is level, `M 0 0 H` and its length. */
const level = {
  setAttribute(_: string, d: string) {
    Object.assign(this, { length: Number(d.split("H")[1]) });
  },
  getTotalLength(this: { length: number }) {
    return this.length;
  },
  getPointAtLength: (x: number) => ({ x, y: 0 }),
};
const steps = (...of: [rule: string | null, outline: string][]) =>
  ({ steps: of.map(([rule, outline]) => ({ rule, outline })) }) as never;
const rule = (id: string, kind: string) => ({ id, kind }) as Rule;
const settled = async () => {
  for (let i = 0; i < 4; i++) await nextTick();
};

beforeEach(() => {
  vi.stubGlobal("document", { createElementNS: () => Object.create(level) });
  asked.mockReset();
  staged([thing("vine", {}, { type: "outline" })]).selection.pick("vine");
});

describe("the way along an outline", () => {
  it("is that which comes to the rule, from one end to the other", async () => {
    asked.mockResolvedValue(steps([null, "M 0 0 H 100"], ["bent", "M 0 0 H 240"], ["drawn", "M 0 0 H 60"]));
    const ways = useOutlineWay(ref([rule("bent", "bend"), rule("drawn", "draw-on")]));
    await settled();
    expect([...ways.value.keys()]).toEqual(["drawn"]);
    const way = ways.value.get("drawn")!;
    expect(way.at(0.5)).toEqual({ x: 120, y: 0 });
    expect(way.nearest({ x: 60, y: 30 })).toBeCloseTo(0.25);
    expect(way.nearest({ x: 999, y: 0 })).toBe(1);
  });

  it("is not asked for where no rule draws a part, and forgotten when the last goes", async () => {
    asked.mockResolvedValue(steps([null, "M 0 0 H 100"], ["drawn", "M 0 0 H 60"]));
    const rules = ref([rule("bent", "bend")]);
    const ways = useOutlineWay(rules);
    await settled();
    expect(asked).not.toHaveBeenCalled();
    rules.value = [rule("drawn", "draw-on")];
    await settled();
    expect(ways.value.size).toBe(1);
    rules.value = [];
    await settled();
    expect(ways.value.size).toBe(0);
  });

  it("is that of the newest frame, whichever answer comes last, and stays where none can be had", async () => {
    let answer: (late: never) => void = () => undefined;
    asked.mockImplementationOnce(() => new Promise((done) => (answer = done)));
    asked.mockResolvedValueOnce(steps([null, "M 0 0 H 200"], ["drawn", "M 0 0 H 60"]));
    const ways = useOutlineWay(ref([rule("drawn", "draw-on")]));
    usePlayback().goTo(5);
    await settled();
    expect(asked.mock.calls.map((one) => one[3])).toEqual([0, 5]);
    const newest = ways.value;
    answer(steps([null, "M 0 0 H 100"], ["drawn", "M 0 0 H 60"]));
    await settled();
    expect(ways.value).toBe(newest);
    expect(newest.get("drawn")!.at(1).x).toBe(200);
    asked.mockRejectedValueOnce(new Error("no service"));
    usePlayback().goTo(6);
    await settled();
    expect(ways.value).toBe(newest);
  });
});
