import { describe, expect, it } from "vitest";
import { fit, found } from "./finding";

const named = (...names: string[]) => names.map((name) => ({ name, kind: "object" }));
const names = (typed: string, ...all: string[]) => found(named(...all), typed, 9).map((one) => one.name);

describe("finding by typing", () => {
  it("puts what begins with it before what holds it", () => {
    expect(names("man", "Old mango", "Mango", "Human", "Moss")).toEqual(["Mango", "Old mango", "Human"]);
  });

  it("takes words in any order, without their accents", () => {
    expect(names("leaf ma", "Mango leaf", "Leaf", "Mango")).toEqual(["Mango leaf"]);
    expect(fit("Café sign", "cafe")).toBeGreaterThan(0);
  });

  it("finds letters in order where nothing better is there", () => {
    expect(names("mgl", "Mango leaf", "Moss")).toEqual(["Mango leaf"]);
    expect(names("xyz", "Mango leaf")).toEqual([]);
  });

  it("finds by what things are, after those that are called so", () => {
    const things = [
      { name: "Wind", kind: "dial" },
      { name: "Dial", kind: "object" },
    ];
    expect(found(things, "dial", 9).map((one) => one.name)).toEqual(["Dial", "Wind"]);
  });

  it("shows everything while nothing is typed", () => {
    expect(names("", "A", "B")).toEqual(["A", "B"]);
  });
});
