/** Onion skin: which frames show through, and how a ghost is painted. */
import { valuesAt } from "@/api/motion";
import { opacityAt, outlineAt } from "@/picture/frameView";
import type { Leaf } from "@/api/paintList";

export interface OnionHow {
  /** How many ghosts before and after. */
  readonly before: number;
  readonly after: number;
  /** Frames from one to the next. */
  readonly every: number;
  /** On keys only. */
  readonly keys: boolean;
}

export interface Ghost {
  readonly frame: number;
  readonly side: "before" | "after";
  /** 1 for the nearest, less for those farther away. */
  readonly strength: number;
}

/** The ghosts seen from a frame, the farthest first. */
export function onionFrames(how: OnionHow, at: number, last: number, keys: readonly number[]): Ghost[] {
  const stepped = (count: number, sign: 1 | -1): number[] =>
    Array.from({ length: count }, (_, i) => at + sign * (i + 1) * Math.max(1, how.every));
  const before = how.keys
    ? keys
        .filter((frame) => frame < at)
        .slice(-how.before || keys.length)
        .reverse()
    : stepped(how.before, -1);
  const after = how.keys ? keys.filter((frame) => frame > at).slice(0, how.after) : stepped(how.after, 1);
  const ghosts = (frames: readonly number[], side: Ghost["side"], count: number): Ghost[] =>
    frames
      .slice(0, count)
      .flatMap((frame, i) => (frame >= 0 && frame <= last ? [{ frame, side, strength: 1 - i / (count + 1) }] : []));
  return [...ghosts(before, "before", how.before), ...ghosts(after, "after", how.after)].sort(
    (a, b) => a.strength - b.strength,
  );
}

/** What was is tinted with the playhead's hibiscus, what comes with the sky of the look family. */
const TINTS = { before: "208 54 91", after: "47 115 159" } as const;

let sheet: CanvasRenderingContext2D | null = null;

/**
 * Paint some steps at a frame as one ghost: a pale silhouette with a line around the whole, whatever is within it.
 */
export function paintGhost(
  ctx: CanvasRenderingContext2D,
  leaves: readonly Leaf[],
  ghost: Ghost,
  scale: number,
  dx: number,
  dy: number,
): void {
  const { width, height } = ctx.canvas;
  sheet ??= document.createElement("canvas").getContext("2d");
  if (!sheet) return;
  if (sheet.canvas.width !== width || sheet.canvas.height !== height)
    [sheet.canvas.width, sheet.canvas.height] = [width, height];
  const tint = TINTS[ghost.side];
  const each = (work: (context: CanvasRenderingContext2D, path: Path2D, size: number) => void): void => {
    for (const leaf of leaves) if (sheet) placed(sheet, leaf, ghost.frame, scale, dx, dy, work);
  };
  sheet.setTransform(1, 0, 0, 1, 0, 0);
  sheet.globalCompositeOperation = "source-over";
  sheet.clearRect(0, 0, width, height);
  sheet.strokeStyle = `rgb(${tint})`;
  each((context, path, size) => {
    // The line is as thick on the screen whatever the object's size.
    context.lineWidth = 3 / size;
    context.stroke(path);
  });
  // What is within is taken away again, so that only the outermost line is left; then it is filled, thinly.
  sheet.globalCompositeOperation = "destination-out";
  sheet.fillStyle = "#000";
  each((context, path) => context.fill(path));
  sheet.setTransform(1, 0, 0, 1, 0, 0);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.globalAlpha = 0.3 + 0.5 * ghost.strength;
  ctx.drawImage(sheet.canvas, 0, 0);
  sheet.globalCompositeOperation = "source-over";
  sheet.clearRect(0, 0, width, height);
  sheet.fillStyle = `rgb(${tint})`;
  each((context, path) => context.fill(path));
  ctx.globalAlpha = 0.06 + 0.1 * ghost.strength;
  ctx.drawImage(sheet.canvas, 0, 0);
  ctx.globalAlpha = 1;
}

/** Do something with the outline of a step at a frame, in its place. */
function placed(
  ctx: CanvasRenderingContext2D,
  leaf: Leaf,
  frame: number,
  scale: number,
  dx: number,
  dy: number,
  work: (context: CanvasRenderingContext2D, path: Path2D, size: number) => void,
): void {
  const path = pathOf(leaf, frame);
  if (!path || opacityAt(leaf, frame) <= 0) return;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = valuesAt(leaf.matrix, frame);
  ctx.setTransform(a * scale, b * scale, c * scale, d * scale, e * scale + dx, f * scale + dy);
  work(ctx, path, Math.sqrt(Math.abs(a * d - b * c)) * scale || 1);
}

/** The outline of what a step paints; the box of a picture. */
function pathOf(leaf: Leaf, frame: number): Path2D | undefined {
  if (leaf.op !== "picture") return outlineAt(leaf.outline, frame)?.path;
  const [width = 0, height = 0] = valuesAt(leaf.size, frame);
  const path = new Path2D();
  path.rect(-width / 2, -height / 2, width, height);
  return path;
}
