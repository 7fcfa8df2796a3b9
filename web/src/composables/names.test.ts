/** What objects are called in sentences and lists. */
import { describe, expect, it } from "vitest";
import type { Drive, Rule } from "@/api/types";
import { useNames } from "@/composables/useNames";
import { usePartPlaces } from "@/composables/usePartPlaces";
import { useRecentColours } from "@/composables/useRecentColours";
import { useTroupeTree } from "@/composables/useTroupeTree";
import { dial, staged, thing } from "@/testing/stage";

const sway = { id: "r1", kind: "oscillator", on: true, channels: ["x"], mode: "add", settings: {} } as unknown as Rule;

describe("names", () => {
  it("of channels say their row, and their own where that says more", () => {
    staged([thing("leaf", {}, { rules: [sway] })], { dials: [dial("wind", 1)] });
    const { channelName, placeName, objectName } = useNames();
    const of = (channel: string) => channelName({ object: "leaf", channel });
    expect([of("x"), of("rotation"), of("opacity"), of("r1:amplitude"), of("gone")]).toEqual([
      "travel x",
      "rotation",
      "opacity",
      "oscillator amplitude",
      "gone",
    ]);
    expect(placeName({ object: "dial:wind", channel: "value" })).toBe("Wind");
    expect(objectName("nobody")).toBe("someone gone");
  });

  it("of what is driven say by which setting", () => {
    staged([thing("leaf", {}, { rules: [sway] }), thing("gear")]);
    const one = {
      driver: { object: "gear", channel: "rotation" },
      driven: { object: "leaf", channel: "x" },
      rule: "r1",
      setting: "amplitude",
      kind: "link",
    };
    const { driverWords, drivenWords } = useNames();
    expect(driverWords(one as unknown as Drive)).toBe("Gear rotation");
    expect(drivenWords(one as unknown as Drive)).toBe("Leaf travel x (oscillator amplitude)");
  });

  it("of what can differ in copies are words first, then what is asked for first, and nothing that a list cannot give", () => {
    staged([]);
    const parts = [thing("title", {}, { type: "text" })];
    const found = usePartPlaces(() => parts, ["fill"]).value;
    expect(found.slice(0, 2).map((one) => one.says)).toEqual(["Title: words", "Title: fill"]);
    expect(found.map((one) => one.channel).sort()).toEqual([
      "fill",
      "opacity",
      "rotation",
      "scale.x",
      "scale.y",
      "text",
      "x",
      "y",
    ]);
  });
});

describe("the troupe as a list", () => {
  it("has the foremost first, and what hangs on something once that is unfolded", () => {
    const { selection } = staged([
      thing("hill"),
      thing("post"),
      thing("arm", {}, { parent: "post" }),
      thing("hand", {}, { parent: "arm" }),
    ]);
    const { entries } = useTroupeTree();
    const listed = () => entries.value.map((one) => `${"-".repeat(one.depth)}${one.thing.id}`);
    expect(listed()).toEqual(["post", "hill"]);
    selection.fold("post");
    selection.fold("arm");
    expect(listed()).toEqual(["post", "-arm", "--hand", "hill"]);
    expect(entries.value[0]!.parts).toBe(1);
  });
});

describe("recent colours", () => {
  it("are the last twelve, each once, the newest first", () => {
    const { recent, remember } = useRecentColours();
    for (let n = 0; n < 14; n++) remember(`#00000${n.toString(16)}`);
    remember("#000005");
    expect(recent.value).toHaveLength(12);
    expect(recent.value.slice(0, 3)).toEqual(["#000005", "#00000d", "#00000c"]);
  });
});
