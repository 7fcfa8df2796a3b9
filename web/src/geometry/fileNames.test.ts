import { describe, expect, it } from "vitest";
import { isScene, plainName, withoutSuffix } from "@/geometry/fileNames";

describe("names of files", () => {
  it("say what is a drawing or a scene", () => {
    expect(["leaf.SVG", "round.vine", "keys.json"].every(isScene)).toBe(true);
    expect(["leaf.png", "svg", "json.txt"].some(isScene)).toBe(false);
  });

  it("lose their last suffix alone, and what formulas would read", () => {
    expect(withoutSuffix("run.001.png")).toBe("run.001");
    expect(withoutSuffix("run")).toBe("run");
    expect(plainName("{Leaf}@2x")).toBe("Leaf2x");
    expect(plainName("a".repeat(99))).toHaveLength(70);
  });
});
