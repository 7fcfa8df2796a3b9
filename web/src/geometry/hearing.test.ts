import { describe, expect, it } from "vitest";
import { gainsOf, overAt, roundBegins, soundings } from "./hearing";

const drum = { id: "a", file: "f", seconds: 2, first: 12, begin: 0.5, end: 1.5, on: true, gain: 1, dial: null };

describe("what is heard when", () => {
  it("begins a sound where it lies, or in its middle where playing begins there", () => {
    expect(overAt(drum, 24)).toBe(36);
    expect(soundings([drum], 0, 47, 24)[0]).toMatchObject({ when: 0.5, offset: 0.5, duration: 1, from: 12, to: 36 });
    expect(soundings([drum], 24, 29, 24)[0]).toMatchObject({ when: 0, offset: 1, duration: 0.25 });
  });
  it("leaves out what is over, silent, or not there yet", () => {
    expect(soundings([drum], 36, 47, 24)).toEqual([]);
    expect(soundings([drum], 0, 11, 24)).toEqual([]);
    expect(soundings([{ ...drum, on: false }], 0, 47, 24)).toEqual([]);
    expect(soundings([{ ...drum, gain: 0 }], 0, 47, 24)).toEqual([]);
  });
  it("plays rounds one after the other without a gap", () => {
    expect([0, 1, 2].map((round) => roundBegins(round, 10, 4, 27, 24))).toEqual([0, 18 / 24, 42 / 24]);
  });
  it("follows a dial frame by frame, held at the ends of the scene", () => {
    expect([...gainsOf({ ...drum, gain: 2 }, [0, 0.25, 0.5], -1, 3)]).toEqual([0, 0, 0.5, 1, 1]);
    expect([...gainsOf(drum, undefined, 3.5, 4.5)]).toEqual([1, 1, 1]);
  });
});
