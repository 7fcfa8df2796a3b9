/** A range onto a range, drawn: the driver across, what it drives upwards. */
export interface Ranges {
  readonly low: number;
  readonly high: number;
  readonly to_low: number;
  readonly to_high: number;
}

export interface Frame {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** What the drawing shows: both ranges with air around them, and all the driver does. */
export function frameOf(ranges: Ranges, least: number, most: number): Frame {
  const [left, right] = [Math.min(ranges.low, ranges.high, least), Math.max(ranges.low, ranges.high, most)];
  const [bottom, top] = [Math.min(ranges.to_low, ranges.to_high), Math.max(ranges.to_low, ranges.to_high)];
  const [wide, high] = [(right - left || 1) * 0.08, (top - bottom || 1) * 0.2];
  return { left: left - wide, right: right + wide, bottom: bottom - high, top: top + high };
}

export const across = (frame: Frame, value: number, width: number): number =>
  ((value - frame.left) / (frame.right - frame.left)) * width;
export const upwards = (frame: Frame, value: number, height: number): number =>
  height - ((value - frame.bottom) / (frame.top - frame.bottom)) * height;

/** The values under a point of the drawing, as round as one dot of it is wide. */
export function valuesUnder(
  frame: Frame,
  x: number,
  y: number,
  width: number,
  height: number,
): { driver: number; driven: number } {
  const round = (value: number, dot: number): number => {
    const step = 10 ** Math.floor(Math.log10(dot * 2 || 1));
    return Number((Math.round(value / step) * step).toPrecision(9));
  };
  const [wide, high] = [frame.right - frame.left, frame.top - frame.bottom];
  return {
    driver: round(frame.left + (x / width) * wide, wide / width),
    driven: round(frame.bottom + (1 - y / height) * high, high / height),
  };
}
