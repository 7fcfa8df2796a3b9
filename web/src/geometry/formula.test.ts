import { describe, expect, it } from "vitest";
import { offered, pieces, placeOf } from "./formula";

const NAMES = ["{Mill wheel.rotation}", "{Mill wheel.x}", "{Old mill.x}", "{Wind}"];
const FUNCTIONS = ["sin", "sign", "sqrt", "smoothstep"];

describe("writing formulas", () => {
  it("offers names within braces, those that begin so first", () => {
    expect(offered("2 * {mill", 9, NAMES, FUNCTIONS)).toEqual({
      start: 4,
      list: ["{Mill wheel.rotation}", "{Mill wheel.x}", "{Old mill.x}"],
    });
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

  it("tells apart what is read, functions, numbers and the names at hand", () => {
    const kinds = (text: string) => pieces(text, FUNCTIONS).map((one) => `${one.kind}:${one.text}`);
    expect(kinds("2.5 * sin({Wind @ -6f})")).toEqual([
      "number:2.5",
      "rest: * ",
      "function:sin",
      "rest:(",
      "read:{Wind @ -6f}",
      "rest:)",
    ]);
    expect(kinds("value if f < 1e-3 else sni(t)")).toEqual([
      ...[
        "own:value",
        "rest: ",
        "own:if",
        "rest: ",
        "own:f",
        "rest: < ",
        "number:1e-3",
        "rest: ",
        "own:else",
        "rest: ",
        "rest:sni",
        "rest:(",
        "own:t",
        "rest:)",
      ],
    ]);
    expect(kinds("{Mill whe")).toEqual(["read:{Mill whe"]);
  });

  it("loses nothing of what was typed", () => {
    for (const text of ["", "  ", "{a}{b", "1..2", "x1y(", "é + {Öl.x} ^ 2\n"])
      expect(
        pieces(text, FUNCTIONS)
          .map((one) => one.text)
          .join(""),
      ).toBe(text);
  });
});
