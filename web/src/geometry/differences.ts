/** Differences of two versions of a scene, in groups and in words. */
import type { BroughtPart, DifferenceWords } from "@/api/types";
import { spaced } from "@/geometry/frames";

export interface DifferenceGroup {
  /** An id, or `dial:` and an id; null for the scene itself. */
  readonly owner: string | null;
  readonly name: string;
  readonly all: readonly DifferenceWords[];
}

/** Differences by what they are of, in their order. */
export function grouped(differences: readonly DifferenceWords[]): DifferenceGroup[] {
  const groups = new Map<string | null, DifferenceWords[]>();
  for (const one of differences) groups.set(one.object, [...(groups.get(one.object) ?? []), one]);
  return [...groups].map(([owner, all]) => ({ owner, name: all[0]!.name, all }));
}

/** What tells a difference from the others. */
export const differenceKey = (one: DifferenceWords): string => `${one.object ?? ""} ${one.what} ${one.channel ?? ""}`;

/** How far two versions are apart, in words; `kept` is what the other version is called. */
export function apart(one: DifferenceWords, kept: string): string {
  if (one.only) return one.only === "now" ? "only now" : `only in ${kept}`;
  if (one.most === null) return "";
  if (one.most === 0) return "same values, different keys or rules";
  const number =
    one.most >= 100 ? one.most.toFixed(0) : one.most >= 0.1 ? one.most.toFixed(1) : one.most.toPrecision(1);
  return `up to ${number.replace(/\.0$/, "")}${spaced(one.unit)}`;
}

/** Where two versions differ, in words. */
export function where(one: DifferenceWords): string {
  if (!one.frames) return "";
  const [first, last] = one.frames;
  return first === last ? `frame ${first}` : `frames ${first}–${last}`;
}

/** What to bring back so that some differences are missing. */
export const partsOf = (differences: readonly DifferenceWords[]): BroughtPart[] =>
  differences.map(({ object, what, channel }) => ({ object, what, channel }));
