import { expect, it } from "vitest";
import { isOrAre } from "@/geometry/frames";

it.each([
  ["words", "are"],
  ["dashes", "are"],
  ["hips y", "is"],
  ["ring radius", "is"],
  ["corners roundness", "is"],
])("says of %s that it or they %s made", (what, verb) => {
  expect(isOrAre(what)).toBe(verb);
});
