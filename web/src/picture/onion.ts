/** Onion skin: which frames show through, and how a ghost is painted. */
import { type BakedObject, numberAt, valuesAt } from "@/api/motion";
import { outlineAt } from "@/picture/paint";

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
  const stepped = (count: number, sign: 1 | -1): number[] => Array.from({ length: count }, (_, i) => at + sign * (i + 1) * Math.max(1, how.every));
  const before = how.keys ? keys.filter((frame) => frame < at).slice(-how.before || keys.length).reverse() : stepped(how.before, -1);
  const after = how.keys ? keys.filter((frame) => frame > at).slice(0, how.after) : stepped(how.after, 1);
  const ghosts = (frames: readonly number[], side: Ghost["side"], count: number): Ghost[] =>
    frames.slice(0, count).flatMap((frame, i) => (frame >= 0 && frame <= last ? [{ frame, side, strength: 1 - i / (count + 1) }] : []));
  return [...ghosts(before, "before", how.before), ...ghosts(after, "after", how.after)].sort((a, b) => a.strength - b.strength);
}

/** What was is tinted with the playhead's hibiscus, what comes with the sky of the look family. */
const TINTS = { before: "208 54 91", after: "47 115 159" } as const;

let sheet: CanvasRenderingContext2D | null = null;

/** Paint some objects at a frame as one ghost: a pale silhouette with a line around the whole, whatever lies within it. */
export function paintGhost(ctx: CanvasRenderingContext2D, things: readonly (BakedObject | undefined)[], ghost: Ghost, scale: number, dx: number, dy: number): void {
  const { width, height } = ctx.canvas;
  sheet ??= document.createElement("canvas").getContext("2d");
  if (!sheet) return;
  if (sheet.canvas.width !== width || sheet.canvas.height !== height) [sheet.canvas.width, sheet.canvas.height] = [width, height];
  const tint = TINTS[ghost.side];
  const each = (work: (context: CanvasRenderingContext2D, path: Path2D, size: number) => void): void => {
    for (const thing of things) if (thing && sheet) placed(sheet, thing, ghost.frame, scale, dx, dy, work);
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
  // What lies within is taken away again, so that only the outermost line is left; then it is filled, thinly.
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

/** Do something with an object's outline at a frame, in its place. */
function placed(ctx: CanvasRenderingContext2D, thing: BakedObject, frame: number, scale: number, dx: number, dy: number, work: (context: CanvasRenderingContext2D, path: Path2D, size: number) => void): void {
  const outline = outlineAt(thing, frame);
  if (!outline || numberAt(thing.opacity, frame) <= 0) return;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = valuesAt(thing.world, frame);
  ctx.setTransform(a * scale, b * scale, c * scale, d * scale, e * scale + dx, f * scale + dy);
  work(ctx, outline.path, Math.sqrt(Math.abs(a * d - b * c)) * scale || 1);
}
