/** Amounts as people say them: bytes and seconds. */

const UNITS = ["bytes", "kB", "MB", "GB"] as const;

/** Bytes in the unit that makes them a short number: 940 bytes, 12.4 kB, 3.1 MB. */
export function bytesText(bytes: number): string {
  let [value, unit] = [bytes, 0];
  while (value >= 1000 && unit < UNITS.length - 1) {
    value /= 1000;
    unit += 1;
  }
  return `${unit && value < 100 ? value.toFixed(1) : Math.round(value)} ${UNITS[unit]}`;
}

/** Seconds: 4 s, 2 min 5 s, 1 h 10 min. */
export function secondsText(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  if (whole < 60) return `${whole} s`;
  const minutes = Math.floor(whole / 60);
  if (minutes < 60) return whole % 60 ? `${minutes} min ${whole % 60} s` : `${minutes} min`;
  return minutes % 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${Math.floor(minutes / 60)} h`;
}
