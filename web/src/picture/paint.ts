/** Painting one frame of baked motion on a canvas. The server's painter follows the same steps in the same order. */
import { type BakedObject, type Motion, numberAt, type Rows, rowAt, valuesAt } from "@/api/motion";

/** Paint a frame so that the scene fills `width` × `height` device pixels, on its background. */
export function paintFrame(ctx: CanvasRenderingContext2D, motion: Motion, frame: number, width: number, height: number): void {
  const scale = background(ctx, motion, width, height);
  for (const id of motion.order) {
    const thing = motion.objects.get(id);
    if (thing?.outline && !motion.hidden.has(id)) paintObject(ctx, thing, frame, scale, 0, 0);
  }
}

/** Paint the background of a scene, and hand back how many device pixels one of its own is. */
export function background(ctx: CanvasRenderingContext2D, motion: Motion, width: number, height: number): number {
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = motion.background;
  ctx.clearRect(0, 0, width, height);
  ctx.fillRect(0, 0, width, height);
  return Math.min(width / motion.size[0], height / motion.size[1]);
}

/** Paint one object at a frame, with its world matrix (or another one) scaled by `scale` and moved by (dx, dy) device pixels. */
export function paintObject(ctx: CanvasRenderingContext2D, thing: BakedObject, frame: number, scale: number, dx: number, dy: number, world: ArrayLike<number> = valuesAt(thing.world, frame)): void {
  const opacity = numberAt(thing.opacity, frame);
  const outline = outlineAt(thing, frame);
  if (opacity <= 0 || !outline) return;
  const part = (i: number): number => (world[i] ?? 0) * scale;
  ctx.setTransform(part(0), part(1), part(2), part(3), part(4) + dx, part(5) + dy);
  const fill = colourAt(thing.channels.fill, frame, opacity);
  if (fill) {
    ctx.fillStyle = fill;
    ctx.fill(outline.path);
  }
  const width = thing.channels["stroke.width"] ? numberAt(thing.channels["stroke.width"], frame) : 0;
  const stroke = width > 0 ? colourAt(thing.channels.stroke, frame, opacity) : null;
  if (stroke) {
    ctx.strokeStyle = stroke;
    ctx.lineWidth = width;
    ctx.lineJoin = "round";
    ctx.lineCap = "round";
    ctx.stroke(outline.path);
  }
}

/** The outline an object shows at a frame. */
export function outlineAt(thing: BakedObject, frame: number) {
  const track = thing.outline;
  if (!track) return undefined;
  const which = track.which.length > 1 ? track.which[Math.min(Math.max(Math.round(frame), 0), track.which.length - 1)] : track.which[0];
  return track.outlines[which ?? 0];
}

/** A CSS colour for a baked colour (components 0…1) with an opacity on top; null if nothing would be seen. */
export function colourAt(colour: Rows | undefined, frame: number, opacity: number): string | null {
  if (!colour) return null;
  const at = rowAt(colour, frame);
  const [r = 0, g = 0, b = 0, alpha = 1] = colour.data.subarray(at, at + 4);
  if (alpha * opacity <= 0) return null;
  return `rgba(${r * 255} ${g * 255} ${b * 255} / ${alpha * opacity})`;
}
