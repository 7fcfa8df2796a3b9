import { describe, expect, it } from "vitest";
import { still } from "@/api/channels";
import type { KeptFeel, Rule, SceneObject } from "@/api/types";
import { useVocabulary } from "@/stores/vocabulary";
import { dial, keyed, staged, thing } from "@/testing/stage";

const sway = { id: "r1", kind: "oscillator", on: true, channels: ["x"], mode: "add", settings: {} } as unknown as Rule;

describe("the vocabulary", () => {
  it("puts channels that share a line together", () => {
    staged([]);
    const rows = useVocabulary().rowsOf(thing("leaf"));
    expect(rows.map((row) => row.name)).toEqual(["Travel", "Rotation", "Size", "Opacity", "Outline", "Fill"]);
    expect(rows[0]!.channels.map((one) => one.name)).toEqual(["path", "x", "y"]);
    expect(useVocabulary().rowsOf(thing("other"))).toBe(rows);
  });

  it("knows what a text says besides", () => {
    staged([]);
    expect(
      useVocabulary()
        .rowsOf(thing("title", {}, { type: "text" }))
        .map((row) => row.name),
    ).toContain("Words");
  });

  it("gives a dial one row", () => {
    const { scene } = staged([], { dials: [dial("wind", 3)] });
    const wind = scene.dials[0] as SceneObject;
    expect(
      useVocabulary()
        .rowsOf(wind)
        .map((row) => row.name),
    ).toEqual(["Value"]);
  });

  it("gives keyed settings rows, numbered where rules are alike, in the colour of what they act on", () => {
    staged([]);
    const settings = { amplitude: keyed([0, 1], [9, 4]), frequency: still(2) };
    const two = [sway, { ...sway, id: "r2", channels: ["rotation"] }].map(
      (one) => ({ ...one, settings }) as unknown as Rule,
    );
    const rows = useVocabulary().settingRowsOf(thing("leaf", {}, { rules: two }));
    expect(rows.map((row) => [row.name, row.family, row.channels[0]!.name, row.channels[0]!.unit])).toEqual([
      ["Oscillator amplitude", "travel", "r1:amplitude", "px"],
      ["Oscillator amplitude 2", "turn", "r2:amplitude", "°"],
    ]);
  });

  it("calls eases by their feel", () => {
    staged([]);
    const vocabulary = useVocabulary();
    const points = { points: [[0, 0], [1, 1]] } as never; // prettier-ignore
    vocabulary.ownFeels = [{ name: "Late settle", ease: points } as unknown as KeptFeel];
    expect(["hold", "linear", "slow-in", "spring", points, { bezier: [0, 0, 1, 1] }].map(vocabulary.easeLabel)).toEqual(
      ["hold", "even", "slow in", "spring", "Late settle", "own feel"],
    );
  });
});
