/** What the time sheet shows of the copies of a parade. */

export interface CopyLane {
  /** Which copy, from 0. */
  readonly copy: number;
  /** How many frames it is behind. */
  readonly lag: number;
  /** By how many delays that is; 0 for those that lead. */
  readonly rank: number;
  /** Frames of its keys, in order, and the first and last of them. */
  readonly frames: readonly number[];
  readonly from: number;
  readonly to: number;
}

/** This many copies have a lane of their own; of more, the first and the last. */
export const MOST_LANES = 8;

export function copyLanes(lags: readonly number[], delay: number, keys: readonly number[]): CopyLane[] {
  const distinct = [...new Set(keys)].sort((a, b) => a - b);
  const shown = lags.map((_, copy) => copy).filter((copy) => copy < MOST_LANES - 1 || copy === lags.length - 1);
  return shown.map((copy) => {
    const lag = lags[copy] ?? 0;
    const frames = distinct.map((frame) => frame + lag);
    // Without a delay yet, copies are counted as they stand.
    const rank = delay ? Math.round(lag / delay) : copy;
    return { copy, lag, rank, frames, from: frames[0] ?? lag, to: frames.at(-1) ?? lag };
  });
}
