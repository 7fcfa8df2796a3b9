/** Files numbered alike, such as run_001.png, run_002.png …: put together, and what is odd about them told. */

import { withoutSuffix } from "@/geometry/fileNames";

export interface Run<T> {
  /** What they are called without their numbers. */
  readonly name: string;
  readonly files: readonly T[];
  readonly numbers: readonly number[];
  /** Numbers between the first and the last that no file has. */
  readonly gaps: readonly number[];
}

interface Named {
  readonly name: string;
}

/** The last digits in a file's name, and what stands before and after them. */
export function numberIn(name: string): { before: string; number: number; after: string } | null {
  const found = /^(.*?)(\d+)(\D*)$/.exec(withoutSuffix(name));
  return found ? { before: found[1]!, number: Number(found[2]), after: found[3]! } : null;
}

/**
 * Put files together that are numbered alike, in the order of their numbers; single files stay single.
 * Names may differ in case and in what divides the number from the word: such files are numbered alike all the same.
 */
export function runsOf<T extends Named>(files: readonly T[]): { runs: readonly Run<T>[]; single: readonly T[] } {
  const groups = new Map<string, { file: T; number: number; word: string }[]>();
  const single: T[] = [];
  for (const file of files) {
    const found = numberIn(file.name);
    if (!found) {
      single.push(file);
      continue;
    }
    const word = found.before.replace(/[\s._-]+$/, "");
    const key = `${word.toLowerCase()} ${found.after.toLowerCase()} ${suffixOf(file.name)}`;
    groups.set(key, [...(groups.get(key) ?? []), { file, number: found.number, word }]);
  }
  const runs: Run<T>[] = [];
  for (const group of groups.values()) {
    if (group.length < 2) {
      single.push(...group.map((one) => one.file));
      continue;
    }
    const sorted = group.toSorted((a, b) => a.number - b.number || a.file.name.localeCompare(b.file.name));
    const numbers = sorted.map((one) => one.number);
    const there = new Set(numbers);
    const [first, last] = [numbers[0]!, numbers.at(-1)!];
    const gaps: number[] = [];
    for (let n = first + 1; n < last && gaps.length < 1000; n++) if (!there.has(n)) gaps.push(n);
    runs.push({ name: sorted[0]!.word || "Flipbook", files: sorted.map((one) => one.file), numbers, gaps });
  }
  return { runs, single };
}

const suffixOf = (name: string): string => /\.([^.]*)$/.exec(name)?.[1]?.toLowerCase() ?? "";

/** Numbers as people say them: 4, 7–9. */
export function rangesText(numbers: readonly number[]): string {
  const parts: string[] = [];
  for (let i = 0; i < numbers.length; i++) {
    const from = numbers[i]!;
    while (numbers[i + 1] === numbers[i]! + 1) i++;
    parts.push(numbers[i] === from ? `${from}` : `${from}–${numbers[i]}`);
  }
  return parts.join(", ");
}
