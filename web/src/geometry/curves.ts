/** Drawing baked numbers as curves and stems. */

/** SVG path data of a curve through evenly spaced values, within a box; low values are drawn low. */
export function curvePath(values: readonly number[], width: number, height: number, low: number, high: number): string {
  if (values.length === 0) return "";
  const span = high - low || 1;
  const x = (i: number) => (values.length > 1 ? (i / (values.length - 1)) * width : 0);
  const y = (value: number) => height - ((value - low) / span) * height;
  const step = Math.max(1, Math.floor(values.length / (width * 3)));
  const points: string[] = [];
  const put = (i: number): void => void points.push(`${x(i).toFixed(1)} ${y(values[i] ?? 0).toFixed(1)}`);
  for (let i = 0; i < values.length - 1; i += step) put(i);
  // However many are left out between, the last is drawn.
  put(values.length - 1);
  if (values.length === 1) points.push(`${width} ${y(values[0] ?? 0).toFixed(1)}`);
  return `M${points.join("L")}`;
}

/** The lowest and highest of several curves, with a little air, never of no height. */
export function extent(curves: readonly (readonly number[])[]): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const curve of curves) {
    for (const value of curve) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
  }
  if (!Number.isFinite(low)) return { low: -1, high: 1 };
  const air = (high - low) * 0.08 || Math.abs(high) * 0.1 || 1;
  return { low: low - air, high: high + air };
}

/** How much some baked channels change from each frame to the next; one number fewer than there are frames. */
export function speeds(channels: readonly ArrayLike<number>[], length: number): Float32Array {
  const speed = new Float32Array(Math.max(0, length - 1));
  for (const channel of channels) {
    if (channel.length < 2) continue;
    for (let i = 0; i < speed.length; i++)
      speed[i] = Math.hypot(speed[i] ?? 0, (channel[i + 1] ?? 0) - (channel[i] ?? 0));
  }
  return speed;
}

/**
 * SVG path data of a stem from frame `from` to `to`: as thick as the speed is high, between `thin` and `thick` pixels.
 */
export function stemPath(
  speed: ArrayLike<number>,
  from: number,
  to: number,
  most: number,
  perFrame: number,
  thin = 1.5,
  thick = 10,
): string {
  if (to <= from) return "";
  const half = (i: number) => (thin + (thick - thin) * (most > 0 ? Math.sqrt((speed[i] ?? 0) / most) : 0)) / 2;
  const stride = Math.max(1, Math.floor(1 / perFrame));
  const above: string[] = [];
  const below: string[] = [];
  for (let frame = Math.ceil(from); frame <= to; frame += stride) {
    const i = Math.min(Math.max(Math.floor(frame), 0), speed.length - 1);
    // Between two frames' speeds lies the frame itself: take the mean, so that the stem swells evenly.
    const h = (half(Math.max(i - 1, 0)) + half(i)) / 2;
    const x = (frame * perFrame).toFixed(1);
    above.push(`${x} ${(-h).toFixed(2)}`);
    below.push(`${x} ${h.toFixed(2)}`);
  }
  return above.length ? `M${above.join("L")}L${below.reverse().join("L")}Z` : "";
}
