/** Links made by hand: the numbers they begin with, and the edits they become. */
import { describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { How, Rule } from "@/api/types";
import { useLinkEdits } from "@/composables/useLinkEdits";
import { useLinkNumbers } from "@/composables/useLinkNumbers";
import { baked, dial, rows, staged, thing } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { draftLink: vi.fn() },
}));
const place = (object: string, channel: string) => ({ object, channel });

describe("the numbers of a link", () => {
  it("begin with how far the driver goes, and where the driven is now", () => {
    staged([thing("wheel"), thing("leaf")]);
    baked({ wheel: { rotation: rows(-90, 0, 270) }, leaf: { x: rows(40) } });
    const { reach, begun } = useLinkNumbers();
    expect(reach(place("wheel", "rotation"))).toEqual({ least: -90, most: 270, now: -90 });
    expect(reach(place("nobody", "x"))).toEqual({ least: 0, most: 1, now: 0 });
    const numbers = begun(place("wheel", "rotation"), place("leaf", "x"), 1);
    expect(numbers).toMatchObject({ low: -90, high: 270, to_low: 40, to_high: 140, factor: 1, own_size: 1 });
    // What is still has some range all the same.
    expect(begun(place("leaf", "x"), null, 0.01)).toMatchObject({ low: 40, high: 41, to_low: 0, to_high: 1 });
  });

  it("are those of a dial where that has a range", () => {
    staged([thing("leaf")], { dials: [dial("wind", 0, { low: 2, high: 5 })] });
    expect(useLinkNumbers().begun(place("dial:wind", "value"), null, 1)).toMatchObject({ low: 2, high: 5 });
  });

  it("are sent as each way takes them", () => {
    staged([]);
    const { begun, howOf } = useLinkNumbers();
    const n = { ...begun(place("a", "x"), null, 1), factor: 3, frames: 4, about: 9, low: 1, high: 2 };
    const ways: How["how"][] = ["times", "mirrored", "later", "envelope", "same"];
    expect(ways.map((way) => howOf(way, n))).toEqual([
      { how: "times", factor: 3 },
      { how: "mirrored", about: 9 },
      { how: "later", frames: 4 },
      { how: "envelope", low: 1, high: 2 },
      { how: "same" },
    ]);
  });
});

describe("the edits of a link", () => {
  it("put a rule on a channel, and a formula on a setting; looked at and kept they are the same", () => {
    staged([thing("leaf")]);
    const { linkEdits } = useLinkEdits();
    const driven = [place("leaf", "rotation"), place("leaf", "r1:amplitude")];
    const edits = linkEdits(driven, ["{Wheel.rotation} * 2"]);
    expect(edits).toMatchObject([
      {
        edit: "add-rule",
        object: "leaf",
        rule: { kind: "link", channels: ["rotation"], mode: "replace", settings: { formula: "{Wheel.rotation} * 2" } },
      },
      { edit: "link-setting", object: "leaf", rule: "r1", setting: "amplitude", formula: "{Wheel.rotation} * 2" },
    ]);
    const idOf = (all: typeof edits) => (all[0] as unknown as { rule: Rule }).rule.id;
    expect(idOf(linkEdits(driven, ["1"]))).toBe(idOf(edits));
  });

  it("come from the service, or what is against them", async () => {
    staged([thing("leaf")]);
    const { drafted } = useLinkEdits();
    vi.mocked(api.draftLink).mockResolvedValueOnce({ formulas: ["{Wheel.rotation}"] });
    const how = { how: "same" } as How;
    expect(await drafted(place("wheel", "rotation"), [place("leaf", "x")], how, null)).toEqual(["{Wheel.rotation}"]);
    vi.mocked(api.draftLink).mockRejectedValueOnce(new Error("that would be a ring"));
    expect(await drafted(place("leaf", "x"), [place("leaf", "x")], how, 3)).toBe("that would be a ring");
  });
});
