/** Helping to write formulas: what could come where the caret is, and where a refusal says that something is wrong. */

export interface Offers {
  /** Where what has been typed of it begins. */
  readonly start: number;
  readonly list: readonly string[];
}

const MOST = 8;

/** The names and functions that go on from what stands before the caret. */
export function offered(text: string, caret: number, names: readonly string[], functions: readonly string[]): Offers {
  const before = text.slice(0, caret);
  const open = before.lastIndexOf("{");
  if (open > before.lastIndexOf("}")) {
    const typed = before.slice(open + 1).toLowerCase();
    const fitting = names.filter(
      (name) => name.toLowerCase().includes(typed) && name.slice(1, -1).toLowerCase() !== typed,
    );
    // What begins so comes before what only has it somewhere.
    fitting.sort(
      (a, b) => Number(!a.toLowerCase().startsWith(`{${typed}`)) - Number(!b.toLowerCase().startsWith(`{${typed}`)),
    );
    return { start: open, list: fitting.slice(0, MOST) };
  }
  const word = /[A-Za-z][A-Za-z0-9_]*$/.exec(before)?.[0] ?? "";
  if (word.length < 2) return { start: caret, list: [] };
  return {
    start: caret - word.length,
    list: functions
      .filter((one) => one.startsWith(word) && one !== word)
      .map((one) => `${one}(`)
      .slice(0, MOST),
  };
}

/** Where the service says that a formula is wrong; null where it does not say. */
export function placeOf(wrong: string): { at: number } | null {
  const found = /^at character (\d+): /.exec(wrong);
  return found ? { at: Number(found[1]) - 1 } : null;
}

/**
 * What a piece of a formula is: something read of the scene, a function, a number, a name of what is at hand, or the
 * rest.
 */
export type PieceKind = "read" | "function" | "number" | "own" | "rest";
export interface Piece {
  readonly kind: PieceKind;
  readonly text: string;
}

/** Groups by kind, in this order. */
const PIECES =
  /(\{[^{}]*\}?)|([A-Za-z][A-Za-z0-9_]*(?=\s*\())|((?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)|([A-Za-z][A-Za-z0-9_]*)/g;
const OWN = new Set(["t", "f", "n", "value", "if", "else"]);

/**
 * A formula in pieces, to be coloured; together they are the whole text again. Functions that there are not are left
 * plain.
 */
export function pieces(text: string, functions: readonly string[]): Piece[] {
  const found: Piece[] = [];
  let at = 0;
  for (const one of text.matchAll(PIECES)) {
    if (one.index > at) found.push({ kind: "rest", text: text.slice(at, one.index) });
    const [piece, read, called, number] = one;
    const known = called !== undefined ? functions.includes(called) : OWN.has(piece);
    found.push({
      kind: read ? "read" : number ? "number" : !known ? "rest" : called ? "function" : "own",
      text: piece,
    });
    at = one.index + piece.length;
  }
  if (at < text.length) found.push({ kind: "rest", text: text.slice(at) });
  return found;
}
