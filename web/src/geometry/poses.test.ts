import { describe, expect, it } from "vitest";
import { nextPose, POSES } from "./poses";

describe("poses of a step", () => {
  it("goes to the next and to the one before, on whole frames", () => {
    const poses = [
      [4.4, "contact"],
      [4.5, "down"],
      [9.2, "up"],
    ] as const;
    expect(nextPose(poses, 0, 1)).toBe(4);
    expect(nextPose(poses, 4, 1)).toBe(5);
    expect(nextPose(poses, 9, 1)).toBeUndefined();
    expect(nextPose(poses, 9, -1)).toBe(5);
    expect(nextPose([], 3, -1)).toBeUndefined();
  });

  it("has words and a mark for each", () => {
    expect(Object.keys(POSES)).toEqual(["contact", "down", "passing", "up"]);
    for (const one of Object.values(POSES)) expect(one.mark).toMatch(/^M/);
  });
});
