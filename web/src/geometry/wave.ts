/** Where the grips of an oscillator are on its curve, and what dragging them means for its numbers. */

export interface WaveNumbers {
  readonly wave: string;
  readonly amplitude: number;
  /** Hz; never 0. */
  readonly frequency: number;
  /** Degrees. */
  readonly phase: number;
  /** Frames. */
  readonly start: number;
}

/** The share of a swing at which each wave is at its highest. */
const PEAK: Readonly<Record<string, number>> = { sine: 0.25, cosine: 0, triangle: 0.25, square: 0.25, sawtooth: 0.999 };

const modulo = (a: number, b: number): number => ((a % b) + b) % b;

/** The frames of its first peak that can be seen, and of the one after that. */
export function peaks(of: WaveNumbers, fps: number): { first: number; second: number } {
  const period = 1 / Math.abs(of.frequency);
  const seconds = modulo(((PEAK[of.wave] ?? 0.25) - of.phase / 360) / of.frequency, period);
  const visible = of.start < 0 ? Math.ceil(-of.start / fps / period - seconds / period) * period : 0;
  const first = of.start + (seconds + Math.max(0, visible)) * fps;
  return { first, second: first + period * fps };
}

/** The phase that has the wave come `frames` later, within 0…360. */
export const phaseMoved = (of: WaveNumbers, frames: number, fps: number): number =>
  Math.round(modulo(of.phase - (frames / fps) * of.frequency * 360, 360) * 10) / 10;

/**
 * The frequency and phase for which the first peak stays and the second comes `frames` later; at least a frame lies
 * between them.
 */
export function frequencyMoved(of: WaveNumbers, frames: number, fps: number): { frequency: number; phase: number } {
  const { first, second } = peaks(of, fps);
  const period = Math.max(1, second - first + frames) / fps;
  const frequency = Number((Math.sign(of.frequency) / period).toPrecision(3));
  const phase = modulo(360 * ((PEAK[of.wave] ?? 0.25) - (frequency * (first - of.start)) / fps), 360);
  return { frequency, phase: Math.round(phase * 10) / 10 };
}
