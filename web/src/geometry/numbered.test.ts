import { describe, expect, it } from "vitest";
import { numberIn, runsOf, rangesText } from "./numbered";

const files = (...names: string[]) => names.map((name) => ({ name }));
const names = (list: readonly { name: string }[]) => list.map((one) => one.name);

describe("numbered files", () => {
  it("become one run in the order of their numbers, whatever their digits", () => {
    const { runs, single } = runsOf(files("run_10.png", "run_2.png", "run_001.png", "leaf.png"));
    expect(runs).toHaveLength(1);
    expect(names(runs[0]!.files)).toEqual(["run_001.png", "run_2.png", "run_10.png"]);
    expect(runs[0]!.name).toBe("run");
    expect(runs[0]!.gaps).toEqual([3, 4, 5, 6, 7, 8, 9]);
    expect(names(single)).toEqual(["leaf.png"]);
  });

  it("belong together in spite of odd dividers and case", () => {
    const { runs, single } = runsOf(files("Wing 01.png", "wing-02.png", "wing_03.PNG", "wing_03b.png"));
    expect(names(runs[0]!.files)).toEqual(["Wing 01.png", "wing-02.png", "wing_03.PNG"]);
    expect(names(single)).toEqual(["wing_03b.png"]);
  });

  it("are told apart by words and kinds", () => {
    const { runs } = runsOf(files("a1.png", "a2.png", "b1.png", "b2.png", "a1.jpg"));
    expect(runs.map((one) => one.name).sort()).toEqual(["a", "b"]);
  });

  it("say their gaps in few words", () => {
    expect(rangesText([4, 7, 8, 9, 11])).toBe("4, 7–9, 11");
    expect(rangesText([])).toBe("");
    expect(numberIn("leaf.png")).toBeNull();
    expect(numberIn("a1b22c.png")).toEqual({ before: "a1b", number: 22, after: "c" });
  });
});
