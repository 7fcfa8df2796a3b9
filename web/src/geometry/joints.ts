/** Joints of a figure as one drags them: where they rest, and how a pose is changed by pulling at one. */
import type { Figure } from "@/api/types";
import { angleBetween, difference, type Point } from "@/geometry/matrix";

type Pair = readonly [number, number];
const point = ([x, y]: Pair): Point => ({ x, y });

/** A joint of a figure: the list it is in, and its place there. `of` is the id of a limb or chain. */
export interface Joint {
  readonly of: string;
  readonly n: number;
  readonly label: string;
  readonly at: Point;
}

/** All joints where they rest. */
export function jointsOf(figure: Figure): Joint[] {
  const row = (of: string, label: string, joints: readonly Pair[]): Joint[] =>
    joints.map((one, n) => ({ of, n, label: `${label} ${n + 1}`, at: point(one) }));
  const words = { leg: ["hip", "knee", "ankle", "toes"], arm: ["shoulder", "elbow", "wrist", "fingers"] } as const;
  return [
    ...row("spine", "Spine", figure.spine),
    ...row("head", "Head", figure.head),
    ...figure.limbs.flatMap((limb) =>
      limb.joints.map((one, n): Joint => ({
        of: limb.id,
        n,
        label: `${limb.name}: ${words[limb.kind][n]}`,
        at: point(one),
      })),
    ),
    ...figure.chains.flatMap((chain) => row(chain.id, chain.name, chain.joints)),
  ];
}

/** The figure with one joint elsewhere, on tenths of a pixel. */
export function withJoint(figure: Figure, joint: Joint, to: Point): Figure {
  const place: [number, number] = [Math.round(to.x * 10) / 10, Math.round(to.y * 10) / 10];
  const put = <T extends Pair[]>(joints: T): T => joints.map((one, n) => (n === joint.n ? place : one)) as T;
  if (joint.of === "spine") return { ...figure, spine: put(figure.spine) };
  if (joint.of === "head") return { ...figure, head: put(figure.head) };
  return {
    ...figure,
    limbs: figure.limbs.map((limb) => (limb.id === joint.of ? { ...limb, joints: put(limb.joints) } : limb)),
    chains: figure.chains.map((chain) => (chain.id === joint.of ? { ...chain, joints: put(chain.joints) } : chain)),
  };
}

/** A place in the picture that one pulls at to pose: `bone` ends there and turns about its start. */
export interface Pull {
  readonly bone: string;
  readonly label: string;
  /** The channel that turns the bone; or the two that move what is there. */
  readonly channels: readonly [string] | readonly [string, string];
}

/** What one can pull at. `reaches` says of a limb whether it goes to its place, rather than turning joint by joint. */
export function pullsOf(figure: Figure, reaches: (limb: string) => boolean): Pull[] {
  const last = figure.head.length;
  return [
    { bone: "hips", label: "hips", channels: ["hips.x", "hips.y"] },
    { bone: `spine.${figure.spine.length - 1}`, label: "back", channels: ["spine.turn"] },
    ...(last ? [{ bone: `head.${last}`, label: "head", channels: ["head.turn"] } as const] : []),
    ...figure.limbs.flatMap((limb): Pull[] => {
      const [joint, tip] = limb.kind === "leg" ? ["knee", "foot"] : ["elbow", "hand"];
      const end: Pull = { bone: `${limb.id}.end`, label: `${limb.name}: ${tip}`, channels: [`${limb.id}.end`] };
      if (reaches(limb.id))
        return [
          { bone: `${limb.id}.lower`, label: `${limb.name}: ${tip}`, channels: [`${limb.id}.x`, `${limb.id}.y`] },
          end,
        ];
      return [
        { bone: `${limb.id}.upper`, label: `${limb.name}: ${joint}`, channels: [`${limb.id}.upper`] },
        { bone: `${limb.id}.lower`, label: `${limb.name}: ${tip}`, channels: [`${limb.id}.lower`] },
        end,
      ];
    }),
    ...figure.chains.flatMap((chain) =>
      chain.joints.slice(1).map((_, n): Pull => ({
        bone: `${chain.id}.${n + 1}`,
        label: `${chain.name} ${n + 1}`,
        channels: [`${chain.id}.${n + 1}`],
      })),
    ),
  ];
}

/**
 * By how much the channels of a pull change when it is pulled from one place to another, all in the figure's own
 * space; `start` is where its bone begins.
 */
export function pulled(pull: Pull, start: Point, from: Point, to: Point): Record<string, number> {
  const rounded = (value: number): number => Math.round(value * 100) / 100;
  if (pull.channels.length === 2)
    return { [pull.channels[0]]: rounded(to.x - from.x), [pull.channels[1]]: rounded(to.y - from.y) };
  return { [pull.channels[0]]: rounded(angleBetween(difference(from, start), difference(to, start))) };
}
