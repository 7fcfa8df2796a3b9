import { describe, expect, it } from "vitest";
import type { Figure } from "@/api/types";
import { bonesOf, isJoint, pairsOf } from "@/api/figures";
import { jointsOf, pulled, pullsOf, withJoint } from "./joints";

const FIGURE: Figure = {
  spine: [
    [0, -90],
    [0, -150],
  ],
  head: [[4, -185]],
  limbs: [
    {
      id: "near-leg",
      name: "Near leg",
      kind: "leg",
      at: "hips",
      side: "near",
      bend: 1,
      joints: [
        [0, -90],
        [8, -50],
        [0, -10],
        [20, -2],
      ],
    },
    {
      id: "near-arm",
      name: "Near arm",
      kind: "arm",
      at: "chest",
      side: "near",
      bend: -1,
      joints: [
        [0, -148],
        [-4, -110],
        [6, -80],
        [12, -70],
      ],
    },
  ],
  chains: [
    {
      id: "tail",
      name: "Tail",
      at: "hips",
      joints: [
        [-4, -90],
        [-30, -84],
        [-50, -90],
      ],
    },
  ],
};

describe("joints of a figure", () => {
  it("finds them all, and puts one elsewhere alone", () => {
    const joints = jointsOf(FIGURE);
    expect(joints).toHaveLength(2 + 1 + 4 + 4 + 3);
    const knee = joints.find((one) => one.label === "Near leg: knee")!;
    const changed = withJoint(FIGURE, knee, { x: 12.34, y: -48 });
    expect(changed.limbs[0]!.joints[1]).toEqual([12.3, -48]);
    expect(changed.limbs[1]).toEqual(FIGURE.limbs[1]);
    expect(withJoint(FIGURE, joints[0]!, { x: 1, y: -91 }).spine[0]).toEqual([1, -91]);
    expect(withJoint(FIGURE, joints.at(-1)!, { x: -60, y: -100 }).chains[0]!.joints[2]).toEqual([-60, -100]);
  });

  it("pulls feet to places and forearms round elbows", () => {
    const pulls = pullsOf(FIGURE, (limb) => limb === "near-leg");
    const foot = pulls.find((one) => one.bone === "near-leg.lower")!;
    expect(pulled(foot, { x: 8, y: -50 }, { x: 0, y: -10 }, { x: 5, y: -12 })).toEqual({
      "near-leg.x": 5,
      "near-leg.y": -2,
    });
    const forearm = pulls.find((one) => one.bone === "near-arm.lower")!;
    expect(pulled(forearm, { x: 0, y: 0 }, { x: 0, y: 10 }, { x: 10, y: 0 })).toEqual({ "near-arm.lower": -90 });
    expect(pulls.map((one) => one.bone)).not.toContain("near-leg.upper");
  });

  it("names bones as the service does, and tells joints from an object's own channels", () => {
    expect(bonesOf(FIGURE).map((one) => one.name)).toEqual([
      "hips",
      "spine.1",
      "head.1",
      "near-leg.upper",
      "near-leg.lower",
      "near-leg.end",
      "near-arm.upper",
      "near-arm.lower",
      "near-arm.end",
      "tail.1",
      "tail.2",
    ]);
    expect(["hips.y", "near-arm.upper", "tail.2"].every((name) => isJoint(FIGURE, name))).toBe(true);
    expect(["scale.x", "x", "pivot.y", "far-leg.x"].some((name) => isJoint(FIGURE, name))).toBe(false);
    expect(pairsOf(FIGURE)).toBe(1);
  });
});
