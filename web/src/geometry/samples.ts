/** Columns of a table on their way to becoming keys. */
import type { LaySamples, TableWords } from "@/api/types";

export type Unit = "frames" | "seconds" | "rows";

/**
 * Where one column goes: to a channel of an object or dial, as value × scale + offset; nowhere with an empty object.
 */
export interface Target {
  readonly object: string;
  readonly channel: string;
  readonly scale: number;
  readonly offset: number;
}

/** How the rows are in time. column: which one says so, or null for one after the other. */
export interface Timing {
  readonly column: number | null;
  readonly unit: Unit;
  /** Frames from one row to the next, where no column says. */
  readonly every: number;
  readonly first: number;
}

/** The edit that lays columns down; null where none goes anywhere, or none has two samples. */
export function layEdit(
  table: TableWords,
  targets: readonly (Target | null)[],
  timing: Timing,
  fps: number,
  tolerance: number,
): LaySamples | null {
  const pace = timing.column === null ? timing.every : timing.unit === "seconds" ? fps : 1;
  const tracks = targets.flatMap((target, at) => {
    const column = table.columns[at];
    if (!target?.object || !target.channel || !column || at === timing.column) return [];
    const [times, values] = samplesOf(table, at, timing.column);
    return times.length ? [{ ...target, times, values }] : [];
  });
  return tracks.length ? { edit: "lay-samples", tracks, first: timing.first, pace, tolerance } : null;
}

/** The samples of a column: those rows that have both a time and a value. */
export function samplesOf(table: TableWords, at: number, time: number | null): [number[], (number | string)[]] {
  const [times, values]: [number[], (number | string)[]] = [[], []];
  for (let row = 0; row < table.rows; row++) {
    const [when, value] = [time === null ? row : table.columns[time]?.cells[row], table.columns[at]?.cells[row]];
    if (typeof when !== "number" || value === null || value === undefined) continue;
    times.push(when);
    values.push(value);
  }
  return [times, values];
}

/** Numbers as points of a line in a box, for a small picture of them: the whole range fills it. */
export function sparkline(times: readonly number[], values: readonly number[], wide: number, high: number): string {
  const [t0, t1] = [Math.min(...times), Math.max(...times)];
  const [v0, v1] = [Math.min(...values), Math.max(...values)];
  const points = times.map((time, i) => {
    const x = t1 > t0 ? ((time - t0) / (t1 - t0)) * wide : wide / 2;
    const y = v1 > v0 ? high - ((values[i]! - v0) / (v1 - v0)) * high : high / 2;
    return `${x.toFixed(1)},${y.toFixed(1)}`;
  });
  return points.join(" ");
}
