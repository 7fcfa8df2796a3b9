/** Figures as the page speaks of them: the channels of their joints, their bones, and the gait that walks them. */
import type { ChannelWords, Figure, FigureObject, Limb, Rule, Vocabulary } from "./types";

const PART = "PART";
type Joints = Vocabulary["joints"];

/** The channels of a figure's joints, from the words for one limb and one link. */
export function jointWords(joints: Joints, figure: Figure): ChannelWords[] {
  const named = (words: readonly ChannelWords[], id: string, name: string): ChannelWords[] =>
    words.map((one) => ({ ...one, name: one.name.replace(PART, id), row: one.row.replace(PART, name) }));
  const links = figure.chains.flatMap((chain) =>
    chain.joints.slice(1).flatMap((_, n) =>
      named(joints.link, chain.id, chain.name).map((one) => ({
        ...one,
        name: `${chain.id}.${n + 1}`,
        label: String(n + 1),
      })),
    ),
  );
  return [
    ...joints.body,
    ...(figure.head.length ? joints.head : []),
    ...figure.limbs.flatMap((limb) => named(limb.kind === "leg" ? joints.leg : joints.arm, limb.id, limb.name)),
    ...links,
    ...joints.facing,
  ];
}

/**
 * The part of a figure that a channel moves, by which its rows are folded: a limb, a chain, or the body; null for the
 * figure as a whole.
 */
export function partOf(figure: Figure, channel: string): string | null {
  const id = channel.split(".")[0] ?? "";
  if (!channel.includes(".")) return null;
  if (["hips", "spine", "head"].includes(id)) return "Body";
  return [...figure.limbs, ...figure.chains].find((one) => one.id === id)?.name ?? null;
}

/** True if a channel belongs to one of a figure's joints, which a gait moves in addition to its keys. */
export const isJoint = (figure: Figure, channel: string): boolean => {
  const part = channel.split(".")[0] ?? "";
  return (
    channel.includes(".") &&
    (["hips", "spine", "head"].includes(part) ||
      figure.limbs.some((limb) => limb.id === part) ||
      figure.chains.some((chain) => chain.id === part))
  );
};

export interface Bone {
  readonly name: string;
  readonly label: string;
  readonly start: readonly [number, number];
  readonly end: readonly [number, number];
}

type Joint = readonly [number, number];
const row = (word: string, label: string, joints: readonly Joint[]): Bone[] =>
  joints.slice(1).map((end, n) => ({
    name: `${word}.${n + 1}`,
    label: joints.length > 2 ? `${label} ${n + 1}` : label,
    start: joints[n]!,
    end,
  }));

/** The bones of a figure where they rest, as the service names them. */
export function bonesOf(figure: Figure): Bone[] {
  const words = (limb: Limb): readonly [string, string, string] =>
    limb.kind === "leg" ? ["thigh", "shin", "foot"] : ["upper arm", "forearm", "hand"];
  const chest = figure.spine[figure.spine.length - 1]!;
  return [
    { name: "hips", label: "Hips", start: figure.spine[0]!, end: figure.spine[0]! },
    ...row("spine", "Spine", figure.spine),
    ...row("head", figure.head.length < 2 ? "Head" : "Neck and head", [chest, ...figure.head]),
    ...figure.limbs.flatMap((limb) =>
      ["upper", "lower", "end"].map((word, n) => ({
        name: `${limb.id}.${word}`,
        label: `${limb.name}: ${words(limb)[n]}`,
        start: limb.joints[n]!,
        end: limb.joints[n + 1]!,
      })),
    ),
    ...figure.chains.flatMap((chain) => row(chain.id, chain.name, chain.joints)),
  ];
}

/** The gait that walks a figure, if there is one. */
export const gaitOf = (thing: FigureObject): Rule | undefined => thing.rules.find((rule) => rule.kind === "gait");

/** How many pairs of legs a figure has. */
export const pairsOf = (figure: Figure): number =>
  Math.max(
    ...(["near", "far"] as const).map(
      (side) => figure.limbs.filter((limb) => limb.kind === "leg" && limb.side === side).length,
    ),
  );
