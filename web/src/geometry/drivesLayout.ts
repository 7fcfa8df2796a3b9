/** Laying out who drives whom: what drives on the left, what is driven to the right of all that drives it. */

export interface Edge {
  readonly from: string;
  readonly to: string;
}

export interface Node {
  /** A driver or several with equal links: they share a position. */
  readonly ids: readonly string[];
  readonly column: number;
  readonly row: number;
}

export interface Layout {
  readonly nodes: readonly Node[];
  readonly columns: number;
  readonly rows: number;
}

/** Groups of objects with equal links, in the given order; objects in `apart` are never grouped. */
function bundles(ids: readonly string[], edges: readonly Edge[], apart: (id: string) => boolean): string[][] {
  const found = new Map<string, string[]>();
  for (const id of ids) {
    const into = edges.filter((edge) => edge.to === id).map((edge) => edge.from);
    const out = edges.filter((edge) => edge.from === id).map((edge) => edge.to);
    const key =
      apart(id) || (!into.length && !out.length)
        ? id
        : `${[...new Set(into)].sort().join()}>${[...new Set(out)].sort().join()}`;
    found.set(key, [...(found.get(key) ?? []), id]);
  }
  // Two of a kind are still easily told apart.
  return [...found.values()].flatMap((some) => (some.length > 2 ? [some] : some.map((id) => [id])));
}

/**
 * Columns by the longest way from what nobody drives; within a column, objects near what drives them. Edges that close
 * a ring are passed over: rings are refused anyway, but two objects may drive each other in different channels.
 */
export function layoutOf(
  edges: readonly Edge[],
  order: readonly string[],
  apart: (id: string) => boolean = () => false,
): Layout {
  const named = new Set(edges.flatMap((edge) => [edge.from, edge.to]));
  const groups = bundles(
    order.filter((id) => named.has(id)),
    edges,
    apart,
  );
  const groupOf = new Map(groups.flatMap((ids, i) => ids.map((id) => [id, i] as const)));
  const into = groups.map(() => new Set<number>());
  for (const { from, to } of edges) {
    const [a, b] = [groupOf.get(from), groupOf.get(to)];
    if (a !== undefined && b !== undefined && a !== b) into[b]!.add(a);
  }
  const column: number[] = [];
  const onWay = new Set<number>();
  const depth = (i: number): number => {
    if (column[i] !== undefined) return column[i];
    if (onWay.has(i)) return 0;
    onWay.add(i);
    const found = Math.max(-1, ...[...into[i]!].map(depth)) + 1;
    onWay.delete(i);
    return (column[i] = found);
  };
  groups.forEach((_, i) => depth(i));
  const columns = Math.max(0, ...column.map((one) => one + 1));
  const row: number[] = [];
  let rows = 0;
  for (let c = 0; c < columns; c++) {
    const here = groups.map((_, i) => i).filter((i) => column[i] === c);
    const middle = (i: number): number => {
      const before = [...into[i]!].filter((one) => row[one] !== undefined);
      return before.length ? before.reduce((sum, one) => sum + row[one]!, 0) / before.length : here.indexOf(i);
    };
    const places = new Map(here.map((i) => [i, middle(i)]));
    [...here].sort((a, b) => places.get(a)! - places.get(b)! || a - b).forEach((i, at) => (row[i] = at));
    rows = Math.max(rows, here.length);
  }
  return { nodes: groups.map((ids, i) => ({ ids, column: column[i]!, row: row[i]! })), columns, rows };
}
