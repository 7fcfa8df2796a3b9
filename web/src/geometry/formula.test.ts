import { describe, expect, it } from "vitest";
import { offered, placeOf } from "./formula";

const NAMES = ["{Mill wheel.rotation}", "{Mill wheel.x}", "{Old mill.x}", "{Wind}"];
const FUNCTIONS = ["sin", "sign", "sqrt", "smoothstep"];

describe("writing formulas", () => {
  it("offers names within braces, those that begin so first", () => {
    expect(offered("2 * {mill", 9, NAMES, FUNCTIONS)).toEqual({ start: 4, list: ["{Mill wheel.rotation}", "{Mill wheel.x}", "{Old mill.x}"] });
    expect(offered("{", 1, NAMES, FUNCTIONS).list).toHaveLength(4);
    expect(offered("{Wind} + 1", 10, NAMES, FUNCTIONS).list).toEqual([]);
  });

  it("offers functions from the second letter on", () => {
    expect(offered("1 + si", 6, NAMES, FUNCTIONS)).toEqual({ start: 4, list: ["sin(", "sign("] });
    expect(offered("s", 1, NAMES, FUNCTIONS).list).toEqual([]);
  });

  it("finds the place a refusal names", () => {
    expect(placeOf("at character 5: there is no 'Mil.x' in this scene")).toEqual({ at: 4 });
    expect(placeOf("something else")).toBeNull();
  });
});
