import { describe, expect, it } from "vitest";
import type { DifferenceWords } from "@/api/types";
import { apart, grouped, partsOf, where } from "@/geometry/differences";

const one = (changes: Partial<DifferenceWords>): DifferenceWords => ({
  what: "channel",
  object: "frog",
  name: "Frog",
  channel: "y",
  label: "Travel y",
  most: 42,
  at: 10,
  frames: [1, 19],
  unit: "px",
  only: null,
  ...changes,
});

describe("differences", () => {
  it("are grouped by what they are of, in their order", () => {
    const found = grouped([one({}), one({ object: null, name: "the scene" }), one({ channel: "x" })]);
    expect(found.map((group) => [group.name, group.all.length])).toEqual([
      ["Frog", 2],
      ["the scene", 1],
    ]);
  });

  it("say how far apart the versions are, and where", () => {
    expect(apart(one({}), "Take 1")).toBe("up to 42 px");
    expect(apart(one({ most: 3.14159, unit: "°" }), "Take 1")).toBe("up to 3.1°");
    expect(apart(one({ most: 0.0421, unit: "" }), "Take 1")).toBe("up to 0.04");
    expect(apart(one({ most: 1234.6 }), "Take 1")).toBe("up to 1235 px");
    expect(apart(one({ most: 0 }), "Take 1")).toBe("same values, different keys or rules");
    expect(apart(one({ most: null, only: "kept" }), "Take 1")).toBe("only in Take 1");
    expect(where(one({}))).toBe("frames 1–19");
    expect(where(one({ frames: [4, 4] }))).toBe("frame 4");
    expect(where(one({ frames: null }))).toBe("");
  });

  it("are brought back by what they are of", () => {
    expect(partsOf([one({})])).toEqual([{ object: "frog", what: "channel", channel: "y" }]);
  });
});
