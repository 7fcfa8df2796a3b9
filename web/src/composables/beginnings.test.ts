/** What new cues, dials, insets and rules begin with. */
import { describe, expect, it, vi } from "vitest";
import type { Edit, RuleWords, TroupeObject } from "@/api/types";
import { useRuleBeginnings } from "@/composables/rules/useRuleBeginnings";
import { useCues } from "@/composables/useCues";
import { useDials } from "@/composables/useDials";
import { useInsets } from "@/composables/useInsets";
import { usePlayback } from "@/stores/playback";
import { said } from "@/testing/said";
import { baked, dial, keyed, rows, staged, thing } from "@/testing/stage";

vi.mock("vue-router", () => ({ useRouter: () => ({ push: vi.fn() }) }));

describe("a new cue", () => {
  it("moves what is picked, from its first key to its last, by a key that is free", () => {
    const { selection } = staged(
      [thing("frog", { x: keyed([6, 0], [20, 9]) }), thing("tongue", { x: keyed([30, 1]) }, { parent: "frog" })],
      { cues: [{ id: "c", key: "f", objects: ["frog"] }] } as never,
    );
    selection.pick("frog");
    expect(useCues().fresh()).toMatchObject({ name: "Frog 2", first: 6, last: 30, objects: ["frog"], key: "r" });
    usePlayback().setRange(8, 12);
    expect(useCues().fresh()).toMatchObject({ first: 8, last: 12 });
  });

  it("is of the whole scene where nothing is picked", () => {
    staged([thing("frog")]);
    expect(useCues().fresh()).toMatchObject({ name: "Cue 1", first: 0, last: 47, objects: [], key: "c" });
  });
});

describe("a new dial", () => {
  it("is picked and named; what goes with it is one step with it", async () => {
    const { selection, edits } = staged([]);
    const dials = useDials();
    await dials.add("colour");
    expect(edits[0]).toMatchObject([
      { edit: "add-dial", dial: { name: "Light", low: null, channel: { base: "#F6D58A" } } },
    ]);
    expect(selection.renaming).toBe(selection.objectId);
    const also = (id: string): Edit[] => [{ edit: "delete-object", id }];
    const id = await dials.make({ name: "x".repeat(99), channel: keyed() }, also);
    expect(edits[1]).toMatchObject([
      { dial: { id, name: "x".repeat(80), low: 0, high: 1 } },
      { edit: "delete-object", id },
    ]);
    expect(selection.objectId).toBe(`dial:${id}`);
  });

  it("can be changed and taken out", async () => {
    const { scene, edits } = staged([], { dials: [dial("wind", 1)] });
    await useDials().set(scene.dials[0]!, { low: -1 });
    useDials().remove(scene.dials[0]!);
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    expect(edits).toEqual([[{ edit: "set-dial", id: "wind", low: -1 }], [{ edit: "delete-dial", id: "wind" }]]);
  });
});

describe("a new inset", () => {
  it("is made of an object, or of a group in its own place", async () => {
    const { selection, edits } = staged([
      thing("frog"),
      { ...thing("pair"), kind: "group" } as unknown as TroupeObject,
    ]);
    usePlayback().goTo(5);
    await useInsets().makeOf("frog");
    expect(edits[0]).toMatchObject([{ edit: "make-inset", name: "Frog", parts: ["frog"], frame: 5 }]);
    expect(selection.objectId).toBe((edits[0]![0] as unknown as { id: string }).id);
    await useInsets().makeOf("pair");
    expect([selection.objectId, said.info.length]).toEqual(["pair", 2]);
  });

  it("shows any inner scene but those that this one is inside of", async () => {
    const { scene, edits } = staged([], { inner: [{ id: "blink" }, { id: "eye" }] } as never);
    expect(useInsets().offered.value.map((one) => one.id)).toEqual(["blink", "eye"]);
    await useInsets().add("Blink", "blink", 12, 24);
    await useInsets().add("New", null, 12, 24);
    expect(edits).toMatchObject([
      [{ edit: "add-inset", name: "Blink", scene: "blink", x: 320, y: 180, fps: null, length: null }],
      [{ fps: 24, length: 12 }],
    ]);
    scene.id = "s1~eye";
    scene.whole = { id: "s1", name: "Gorge" } as never;
    expect(useInsets().offered.value.map((one) => one.id)).toEqual(["blink"]);
  });
});

describe("a new rule", () => {
  const begun = (kind: string, which: TroupeObject) => useRuleBeginnings().begun({ kind } as RuleWords, which);

  it("has its floor below the object, its radius, and its mask right over it", () => {
    const [nut, leaf] = [thing("nut"), thing("leaf")];
    staged([nut, leaf]);
    baked({ nut: { y: rows(700), width: rows(90), "scale.x": rows(-2) } });
    usePlayback().goTo(3);
    expect(begun("bounce", nut)).toMatchObject({ floor: { base: 760 }, start: { base: 3 } });
    expect(begun("roll", nut)).toMatchObject({ radius: { base: 90 } });
    expect([begun("roll", leaf), begun("mask", nut), begun("mask", leaf), begun("noise", nut)]).toEqual([
      {},
      { by: "leaf" },
      {},
      {},
    ]);
  });

  it("of tint takes the first colour dial, as it is now", () => {
    const light = dial("dusk", 0, { channel: { ...keyed(), base: "#FF0000" } as never });
    const leaf = thing("leaf");
    staged([leaf], { dials: [dial("wind", 1), light] });
    expect(begun("tint", leaf)).toEqual({ dial: "dusk", neutral: "" });
  });
});
