/** What is heard when: the stretches of sounds that sound in a round of playing. */

/** A sound of the scene. */
export interface Placed {
  readonly id: string;
  readonly file: string;
  readonly seconds: number;
  readonly first: number;
  readonly begin: number;
  readonly end?: number | null | undefined;
  readonly on: boolean;
  readonly gain: number;
  readonly dial?: string | null | undefined;
}

/** Whether anything of it is heard. */
export const isAudible = (sound: Pick<Placed, "on" | "gain">): boolean => sound.on && sound.gain > 0;
/** Where the file of a sound is stopped, in seconds. */
export const untilOf = (sound: Placed): number => Math.min(sound.end ?? sound.seconds, sound.seconds);
/** The frame at which a sound is over. */
export const overAt = (sound: Placed, fps: number): number => sound.first + (untilOf(sound) - sound.begin) * fps;

export interface Sounding<T extends Placed> {
  readonly sound: T;
  /** Seconds after the round begins. */
  readonly when: number;
  /** The start and the duration in the file, in seconds. */
  readonly offset: number;
  readonly duration: number;
  /** The frames of the scene between which it is heard. */
  readonly from: number;
  readonly to: number;
}

/** What sounds while the frames from `start` to the end of `to` are played. */
export function soundings<T extends Placed>(
  sounds: readonly T[],
  start: number,
  to: number,
  fps: number,
): Sounding<T>[] {
  return sounds.flatMap((sound) => {
    const from = Math.max(start, sound.first);
    const until = Math.min(to + 1, overAt(sound, fps));
    if (!isAudible(sound) || until - from < 1e-6) return [];
    const offset = sound.begin + (from - sound.first) / fps;
    return [{ sound, when: (from - start) / fps, offset, duration: (until - from) / fps, from, to: until }];
  });
}

/**
 * How long a round of playing is, seconds: the first goes from where it was begun, the others over all of the range.
 */
export const roundBegins = (round: number, first: number, from: number, to: number, fps: number): number =>
  round === 0 ? 0 : (to + 1 - first + (round - 1) * (to + 1 - from)) / fps;

/**
 * The loudness of a sound at whole frames from one to another, both counted, so that it can be followed in straight
 * lines.
 */
export function gainsOf(
  sound: Placed,
  dial: ArrayLike<number> | undefined,
  from: number,
  to: number,
): Float32Array<ArrayBuffer> {
  const [first, last] = [Math.floor(from), Math.ceil(to)];
  const gains = new Float32Array(Math.max(2, last - first + 1));
  for (let n = 0; n < gains.length; n++) {
    const at = Math.min(Math.max(first + n, 0), (dial?.length ?? 1) - 1);
    gains[n] = sound.gain * Math.max(0, dial ? dial[at]! : 1);
  }
  return gains;
}
