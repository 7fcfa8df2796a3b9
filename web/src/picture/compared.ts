/**
 * Two versions of a scene in one picture: beside each other, over each other in two tints, or on two sides of a line.
 */
import { type Motion, type Rows, valuesAt } from "@/api/motion";
import { acquireCanvas, releaseCanvas } from "@/picture/layers";
import { atFrame } from "@/picture/frameView";
import { paintSteps } from "@/picture/paint";

export type View = "side" | "over" | "wipe";
/** Where a version is painted on the canvas, and the part of that which is seen, device px. */
export interface Place {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly from: number;
  readonly to: number;
}

/** The tints of what is now and of what was kept, also of their paths. */
export const TINTS = { now: "#2f6b4f", kept: "#c1531b" } as const;
/** What objects are tinted with: paler, so that what is the same in both does not become black. */
const PALE = { now: "#78c7a1", kept: "#f2a077" } as const;
/** How much of an object's own colour its tint takes. */
const TINTED = 0.78;
const PAPER = "#fcf9f2";
/** Between two pictures beside each other, px. */
export const GAP = 12;

/** Where the picture of each version is in a room of some size, fitted into it. */
export function placesOf(
  view: View,
  room: { width: number; height: number },
  size: readonly [number, number],
  wipe: number,
): { now: Place; kept: Place } {
  const wide = view === "side" ? (room.width - GAP) / 2 : room.width;
  const scale = Math.max(0, Math.min(wide / size[0], room.height / size[1]));
  const [width, height] = [size[0] * scale, size[1] * scale];
  const top = (room.height - height) / 2;
  const place = (left: number, from: number, to: number): Place => ({ left, top, width, height, from, to });
  if (view === "side") {
    const left = (room.width - GAP) / 2 - width;
    const right = (room.width + GAP) / 2;
    return { now: place(left, left, left + width), kept: place(right, right, right + width) };
  }
  const left = (room.width - width) / 2;
  const line = left + width * wipe;
  return view === "over"
    ? { now: place(left, left, left + width), kept: place(left, left, left + width) }
    : { now: place(left, left, line), kept: place(left, line, left + width) };
}

/** Paint both versions at a frame; `ratio` is how many device px one of `places` is. */
export function paintCompared(
  ctx: CanvasRenderingContext2D,
  view: View,
  versions: { now: Motion; kept: Motion },
  places: { now: Place; kept: Place },
  frame: number,
  ratio: number,
): void {
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, ctx.canvas.width, ctx.canvas.height);
  for (const which of ["kept", "now"] as const) {
    const place = scaled(places[which], ratio);
    ctx.save();
    ctx.beginPath();
    ctx.rect(place.from, place.top, place.to - place.from, place.height);
    ctx.clip();
    if (view === "over") paintTint(ctx, versions[which], place, frame, which);
    else paintWhole(ctx, versions[which], place, frame);
    ctx.restore();
  }
}

const scaled = (place: Place, ratio: number): Place => ({
  left: place.left * ratio,
  top: place.top * ratio,
  width: place.width * ratio,
  height: place.height * ratio,
  from: place.from * ratio,
  to: place.to * ratio,
});

function paintWhole(ctx: CanvasRenderingContext2D, motion: Motion, place: Place, frame: number): void {
  const scale = place.width / motion.size[0];
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = motion.background;
  ctx.fillRect(place.left, place.top, place.width, place.height);
  paintSteps(ctx, motion.steps, atFrame(frame), [scale, 0, 0, scale, place.left, place.top]);
}

/** One version as a tinted transparency; what both have at one place is dark. */
function paintTint(
  ctx: CanvasRenderingContext2D,
  motion: Motion,
  place: Place,
  frame: number,
  which: "now" | "kept",
): void {
  const scale = place.width / motion.size[0];
  const [width, height] = [Math.max(1, Math.ceil(place.width)), Math.max(1, Math.ceil(place.height))];
  const layer = acquireCanvas(width, height);
  paintSteps(layer, motion.steps, atFrame(frame), [scale, 0, 0, scale, 0, 0]);
  layer.setTransform(1, 0, 0, 1, 0, 0);
  layer.globalCompositeOperation = "source-atop";
  layer.globalAlpha = TINTED;
  layer.fillStyle = PALE[which];
  layer.fillRect(0, 0, width, height);
  layer.globalAlpha = 1;
  layer.globalCompositeOperation = "source-over";
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  if (which === "kept") {
    ctx.fillStyle = PAPER;
    ctx.fillRect(place.left, place.top, place.width, place.height);
  }
  ctx.globalCompositeOperation = "multiply";
  ctx.globalAlpha = 0.85;
  ctx.drawImage(layer.canvas, 0, 0, width, height, place.left, place.top, width, height);
  ctx.globalAlpha = 1;
  ctx.globalCompositeOperation = "source-over";
  releaseCanvas(layer);
}

/** How far the paths of two versions are apart at most, px. */
export function pathsApart(now: Rows | undefined, kept: Rows | undefined): number {
  if (!now || !kept) return 0;
  let most = 0;
  for (let row = 0; row < Math.max(now.rows, kept.rows); row++) {
    const [a, b] = [valuesAt(now, row), valuesAt(kept, row)];
    most = Math.max(most, Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!));
  }
  return most;
}
