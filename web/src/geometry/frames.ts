/** Frames as people write and read them. */

/**
 * The frame a text means: "24" is a frame, "1.5s" are seconds, "+6" and "-6" step from `current`.
 * Null if it means none.
 */
export function parseFrame(text: string, fps: number, current: number): number | null {
  const match = /^\s*([+-])?\s*(\d+(?:[.,]\d+)?|[.,]\d+)\s*(f|s)?\s*$/i.exec(text);
  if (!match) return null;
  const amount = Number(match[2]?.replace(",", ".")) * (match[3]?.toLowerCase() === "s" ? fps : 1);
  if (match[1] === "+") return current + amount;
  if (match[1] === "-") return current - amount;
  return amount;
}

/** Seconds for reading, such as "2.17 s". */
export const inSeconds = (frame: number, fps: number): string => `${(frame / fps).toFixed(2)} s`;

/** A number for reading: at most `digits` decimals, with a real minus sign. */
export function readable(value: number, digits = 1): string {
  const text = value.toFixed(digits);
  return (Number(text) === 0 ? text.replace("-", "") : text).replace("-", "−");
}

/** A unit as it stands behind its number: apart from it, but for degrees. */
export const spaced = (unit: string): string => (unit && unit !== "°" ? ` ${unit}` : unit);

/** Whose something is: "Mango’s", "Near leaves’". */
export const whose = (name: string): string => (/s$/i.test(name) ? `${name}’` : `${name}’s`);
/** The verb after what is one object or several: hips are, a radius is, and so is roundness. */
export const isOrAre = (what: string): string => (/[^su]s$/.test(what) ? "are" : "is");

/** The frames at which a ruler is labelled, so that labels stay at least `room` pixels apart. */
export function rulerStep(pixelsPerFrame: number, fps: number, room = 64): number {
  const second = Math.max(1, Math.round(fps));
  const steps = [
    1,
    2,
    5,
    10,
    second / 2,
    second,
    second * 2,
    second * 5,
    second * 10,
    second * 30,
    second * 60,
    second * 300,
    second * 600,
  ];
  const fitting = steps.filter((step) => Number.isInteger(step) && step * pixelsPerFrame >= room).sort((a, b) => a - b);
  return fitting[0] ?? second * 600;
}
