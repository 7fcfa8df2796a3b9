import { describe, expect, it } from "vitest";
import { ending, later, playedAt } from "./retime";

const plain = { delay: 0, speed: 1 };

describe("a bar of time", () => {
  it("plays keys where they are, later, and slower", () => {
    expect(playedAt(plain, 24)).toBe(24);
    expect(playedAt({ delay: 20, speed: 1 }, 24)).toBe(44);
    expect(playedAt({ delay: 0, speed: 0.5 }, 24)).toBe(48);
    expect(playedAt({ delay: 0, speed: 0 }, 24)).toBeNull();
  });

  it("is dragged later by whole frames", () => {
    expect(later(plain, 20.4)).toEqual({ delay: 20, speed: 1 });
  });

  it("is dragged at its end, and begins where it began", () => {
    const slow = ending({ delay: 20, speed: 1 }, 10, 50, 110);
    expect(slow.speed).toBe(0.5);
    expect(playedAt(slow, 10)).toBeCloseTo(30, 6);
    expect(playedAt(slow, 50)).toBeCloseTo(110, 6);
    expect(ending(plain, 0, 24, -5).speed).toBe(24);
  });
});
