/** Small tables of text: cells pasted from a spreadsheet or CSV, columns that go on in steps, rows moved. */

/**
 * The cells of pasted text, row by row. Tabs divide cells, or else commas and semicolons; quotes hold a cell together
 * (RFC 4180).
 */
export function cellsOf(text: string): string[][] {
  const divider = text.includes("\t") ? "\t" : text.includes(";") ? ";" : ",";
  const rows: string[][] = [[]];
  let cell = "";
  let quoted = false;
  const done = (): void => {
    rows.at(-1)!.push(cell.trim());
    cell = "";
  };
  for (let at = 0; at < text.length; at++) {
    const letter = text[at]!;
    if (quoted) {
      if (letter !== '"') cell += letter;
      else if (text[at + 1] === '"') {
        cell += '"';
        at += 1;
      } else quoted = false;
    } else if (letter === '"' && cell.trim() === "") {
      cell = "";
      quoted = true;
    } else if (letter === divider) done();
    else if (letter === "\n") {
      done();
      rows.push([]);
    } else if (letter !== "\r") cell += letter;
  }
  done();
  return rows.filter((row) => row.some((one) => one !== ""));
}

const NUMBER = /^(.*?)(-?\d+(?:\.\d+)?)(\D*)$/s;

/** A column that goes on as its last two cells do, down to `count` rows; after a single number, by one. */
export function stepped(cells: readonly string[], count: number): string[] {
  const last = NUMBER.exec(cells.at(-1) ?? "1") ?? NUMBER.exec("1")!;
  const before = cells.length > 1 ? NUMBER.exec(cells.at(-2)!) : null;
  const by = before ? Number(last[2]) - Number(before[2]) : 1;
  const digits = Math.max(...[last[2]!, before?.[2] ?? ""].map((text) => text.split(".")[1]?.length ?? 0));
  const given = cells.length ? [...cells] : ["1"];
  const from = Number(last[2]);
  while (given.length < count)
    given.push(`${last[1]}${(from + by * (given.length - Math.max(cells.length, 1) + 1)).toFixed(digits)}${last[3]}`);
  return given;
}

/** A column with one row moved to another place, of `count` rows. */
export function moved(cells: readonly string[], from: number, to: number, count: number): string[] {
  const all = Array.from({ length: Math.max(count, cells.length) }, (_, row) => cells[row] ?? "");
  const [one] = all.splice(from, 1);
  all.splice(Math.min(Math.max(to, 0), all.length), 0, one ?? "");
  while (all.length && all.at(-1) === "") all.pop();
  return all;
}
