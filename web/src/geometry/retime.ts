/** A bar of time: where keys from one frame to another are played, under a delay and a speed. */

export interface Retime {
  readonly delay: number;
  readonly speed: number;
}

/** Where the frame of a key is seen: the rule reads at speed·(t − delay). Null where time is still. */
export const playedAt = ({ delay, speed }: Retime, frame: number): number | null =>
  speed === 0 ? null : frame / speed + delay;

/** The same speed, some frames later. */
export const later = (now: Retime, frames: number): Retime => ({ ...now, delay: now.delay + Math.round(frames) });

/** The speed at which keys from `first` to `last` end at the frame `to`, with their beginning where it is. */
export function ending(now: Retime, first: number, last: number, to: number): Retime {
  const begin = playedAt(now, first);
  if (begin === null) return now;
  const speed = Number(((last - first) / Math.max(1, to - begin)).toPrecision(4));
  return { speed, delay: Number((begin - first / speed).toFixed(4)) };
}
