/** Simple arithmetic in a field: `960/2`, `(3+4)*2`, and from the number that is there: `+20`, `*1.5`, `/2`. */

/**
 * The number a text means. Text that begins with +, * or / goes on from `current`; a minus begins a negative number.
 * Null if it means none.
 */
export function calculate(text: string, current: number): number | null {
  const plain = text
    .trim()
    .replaceAll("−", "-")
    .replaceAll("×", "*")
    .replaceAll("÷", "/")
    .replaceAll(",", ".")
    .replace(/\s*(px|°|%|frames|fps|f)$/i, "");
  if (!/^[\d+\-*/().\s]{1,100}$/.test(plain)) return null;
  const reader = new Reader(/^[+*/]/.test(plain) ? `(${current})${plain}` : plain);
  const value = reader.sum();
  return value !== null && reader.done && Number.isFinite(value) ? value : null;
}

/** Reads left to right: a sum of products of signed numbers and parentheses. */
class Reader {
  private at = 0;
  private readonly text: string;

  constructor(text: string) {
    this.text = text.replace(/\s+(?=[-+*/().])|(?<=[-+*/().])\s+/g, "");
  }

  get done(): boolean {
    return this.at === this.text.length;
  }

  sum(): number | null {
    return this.chain("+-", () => this.product());
  }

  private product(): number | null {
    return this.chain("*/", () => this.factor());
  }

  private chain(signs: string, part: () => number | null): number | null {
    let value = part();
    while (value !== null && !this.done && signs.includes(this.text[this.at]!)) {
      const sign = this.text[this.at++];
      const next = part();
      if (next === null) return null;
      value = sign === "+" ? value + next : sign === "-" ? value - next : sign === "*" ? value * next : value / next;
    }
    return value;
  }

  private factor(): number | null {
    if (this.text[this.at] === "-") {
      this.at += 1;
      const value = this.factor();
      return value === null ? null : -value;
    }
    if (this.text[this.at] === "(") {
      this.at += 1;
      const value = this.sum();
      return this.text[this.at++] === ")" ? value : null;
    }
    const found = /^(?:\d+(?:\.\d*)?|\.\d+)(?:e[-+]?\d+)?/.exec(this.text.slice(this.at));
    if (!found) return null;
    this.at += found[0].length;
    return Number(found[0]);
  }
}
