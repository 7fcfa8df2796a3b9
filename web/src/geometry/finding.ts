/** Finding objects by typing some of their letters. */

/** A search entry: its name and its kind. */
export interface Findable {
  readonly name: string;
  /** What it is, such as "dial"; it can be typed too. */
  readonly kind: string;
}

const plain = (text: string): string =>
  text
    .normalize("NFD")
    .replace(/\p{Diacritic}/gu, "")
    .toLowerCase();

/**
 * How well a text fits what is typed, word by word; higher is better, 0 not at all. Each word must begin a word of the
 * text or are in it; with `loosely`, three letters or more may also stand apart there, in order, from the beginning
 * of a word on.
 */
export function fit(text: string, typed: string, loosely = false): number {
  const [hay, words] = [plain(text), plain(typed).split(/\s+/).filter(Boolean)];
  let total = 1;
  for (const word of words) {
    const score = fitOf(hay, word) || (loosely ? apart(hay, word) : 0);
    if (!score) return 0;
    total *= score;
  }
  // Of two that fit alike, the shorter says less that was not asked for.
  return total / (1 + hay.length / 1000);
}

function fitOf(hay: string, word: string): number {
  if (hay.startsWith(word)) return 8;
  const at = hay.indexOf(word);
  if (at > 0) return /[\p{L}\p{N}]/u.test(hay[at - 1] ?? "") ? 2 : 5;
  return 0;
}

function apart(hay: string, word: string): number {
  if (word.length < 3) return 0;
  const inOrder = (begin: number): boolean => {
    let from = begin;
    return [...word].every((letter) => {
      from = hay.indexOf(letter, from) + 1;
      return from > 0;
    });
  };
  const begins = [...hay.matchAll(/(?<![\p{L}\p{N}])[\p{L}\p{N}]/gu)].map((one) => one.index);
  return begins.some((begin) => hay[begin] === word[0] && inOrder(begin)) ? 0.5 : 0;
}

/** What fits what is typed, the best first; everything, as it comes, where nothing is typed. */
export function found<T extends Findable>(things: readonly T[], typed: string, most: number): T[] {
  if (!typed.trim()) return things.slice(0, most);
  return things
    .map((one) => ({
      one,
      score: Math.max(fit(one.name, typed, one.name.length < 40), 0.6 * fit(`${one.name} ${one.kind}`, typed)),
    }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .map(({ one }) => one);
}

/**
 * What is left of a menu while something is typed: by the names of its entries and what they say of themselves; all of
 * it, as it comes, where nothing is.
 */
export const narrowed = <T extends { readonly label: string; readonly about: string }>(
  all: readonly T[],
  typed: string,
): readonly T[] =>
  typed.trim()
    ? found(
        all.map((one) => ({ name: one.label, kind: one.about, one })),
        typed,
        all.length,
      ).map(({ one }) => one)
    : all;
