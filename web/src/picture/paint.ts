/** Painting one frame of baked motion on a canvas. The server's painter follows the same steps in the same order. */
import { type BakedObject, type Motion, numberAt, type Rows, rowAt, valuesAt } from "@/api/motion";

/** Paint a frame so that the scene fills `width` × `height` device pixels, on its background. */
export function paintFrame(ctx: CanvasRenderingContext2D, motion: Motion, frame: number, width: number, height: number): void {
  const scale = Math.min(width / motion.size[0], height / motion.size[1]);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = motion.background;
  ctx.clearRect(0, 0, width, height);
  ctx.fillRect(0, 0, width, height);
  for (const id of motion.order) {
    const thing = motion.objects.get(id);
    if (thing?.outline && !motion.hidden.has(id)) paintObject(ctx, thing, frame, scale, 0, 0);
  }
}

/** Paint one object at a frame, with its world matrix scaled by `scale` and moved by (dx, dy) device pixels. */
export function paintObject(ctx: CanvasRenderingContext2D, thing: BakedObject, frame: number, scale: number, dx: number, dy: number): void {
  const opacity = numberAt(thing.opacity, frame);
  const outline = outlineAt(thing, frame);
  if (opacity <= 0 || !outline) return;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = valuesAt(thing.world, frame);
  ctx.setTransform(a * scale, b * scale, c * scale, d * scale, e * scale + dx, f * scale + dy);
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
