import { expect, it } from "vitest";
import { toggled } from "@/geometry/sets";

it("puts one in or takes it out, and leaves the set itself as it was", () => {
  const leaves = new Set(["fern"]);
  expect([...toggled(leaves, "moss")]).toEqual(["fern", "moss"]);
  expect([...toggled(leaves, "fern")]).toEqual([]);
  expect([...leaves]).toEqual(["fern"]);
});
