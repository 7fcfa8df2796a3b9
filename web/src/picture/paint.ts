/** Painting frames on a canvas: an interpreter of the paint list, which decides nothing that the list does not say. */
import { type Motion, numberAt, type Rows, rowAt, valuesAt } from "@/api/motion";
import { inverse, type Matrix, moved, times } from "@/geometry/matrix";
import { applied, castNone, castShadow, emptyLayer, lay, type Layer } from "@/picture/effects";
import { withLayer } from "@/picture/layerCache";
import { acquireCanvas, type Extent, extentOf, releaseCanvas, withReach } from "@/picture/layers";
import { atFrame, effectsOf, inside, type FrameView, opacityAt, outlineAt, placeOf } from "@/picture/frameView";
import { measured, scaleOf } from "@/picture/measure";
import { endless, type Gradient, type Group, inOrder, type Picture, type Shadow, type Step } from "@/api/paintList";

const isShown = (step: Step): boolean => step.shown;

/**
 * Paint a frame so that the scene fills `width` × `height` device pixels, on its background; `beneath` paints what lies
 * between the two, and receives the device pixels per pixel of the picture.
 */
export function paintFrame(
  ctx: CanvasRenderingContext2D,
  motion: Motion,
  frame: number,
  width: number,
  height: number,
  beneath?: (scale: number) => void,
): void {
  const scale = background(ctx, motion, width, height);
  beneath?.(scale);
  paintSteps(ctx, motion.steps, atFrame(frame), [scale, 0, 0, scale, 0, 0]);
}

/** Paint the background of a scene, and hand back how many device pixels one of its own is. */
export function background(
  ctx: CanvasRenderingContext2D,
  motion: Pick<Motion, "background" | "size">,
  width: number,
  height: number,
): number {
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = motion.background;
  ctx.clearRect(0, 0, width, height);
  ctx.fillRect(0, 0, width, height);
  return Math.min(width / motion.size[0], height / motion.size[1]);
}

/**
 * Paint steps, the first at the back. `base` maps the picture to device pixels; steps are as they are `earlier` frames
 * before.
 */
export function paintSteps(
  ctx: CanvasRenderingContext2D,
  steps: readonly Step[],
  view: FrameView,
  base: Matrix,
  earlier = 0,
): void {
  for (const step of steps) {
    const frame = view.frameOf(step.id) - earlier;
    const opacity = opacityAt(step, frame);
    if (!(view.only ?? isShown)(step) || opacity <= 0) continue;
    if (step.op === "group" && effectsOf(step, view).length) paintWithEffects(ctx, step, view, base, earlier, opacity);
    else if (step.op === "group") paintGroup(ctx, step.steps, view, base, earlier, opacity, step.blend);
    else if (step.op === "copies") paintGroup(ctx, inOrder(step, frame), view, base, earlier, opacity, "normal");
    else if (step.op === "instance") {
      const place = times(base, placeOf(step, frame, view));
      if (step.frames) paintGroup(ctx, step.steps, inside(step.frames, frame), place, 0, opacity, "normal");
      else paintGroup(ctx, step.steps, view, place, earlier + step.delay, opacity, "normal");
    } else {
      ctx.setTransform(...times(base, placeOf(step, frame, view)));
      if (step.op === "picture") paintPicture(ctx, step, frame, opacity);
      else paintOutline(ctx, step, frame, opacity);
    }
  }
}

/** Paint steps as one picture; on a layer of their own only where that shows. */
function paintGroup(
  ctx: CanvasRenderingContext2D,
  steps: readonly Step[],
  view: FrameView,
  base: Matrix,
  earlier: number,
  opacity: number,
  blend: string,
): void {
  if (opacity >= 1 && blend === "normal") {
    paintSteps(ctx, steps, view, base, earlier);
    return;
  }
  const extent = within(extentOf(steps, view, base, earlier, true), ctx.canvas);
  if (!extent) return;
  const layer = acquireCanvas(extent.width, extent.height);
  paintSteps(layer, steps, view, times([1, 0, 0, 1, -extent.left, -extent.top], base), earlier);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.globalAlpha = opacity;
  ctx.globalCompositeOperation = composite(blend);
  ctx.drawImage(layer.canvas, 0, 0, extent.width, extent.height, extent.left, extent.top, extent.width, extent.height);
  ctx.globalAlpha = 1;
  ctx.globalCompositeOperation = "source-over";
  releaseCanvas(layer);
}

/** Layers go on this many px beyond what is needed of them: edges that are cut are not smoothed as others. */
const ROOM = 8;

/** Paint a group on a layer of its own, apply its effects there, and lay it on. */
function paintWithEffects(
  ctx: CanvasRenderingContext2D,
  step: Group,
  view: FrameView,
  base: Matrix,
  earlier: number,
  opacity: number,
): void {
  const [effects, frame] = [effectsOf(step, view), view.frameOf(step.id) - earlier];
  const [only, whole] = [step.steps.length === 1 ? step.steps[0] : undefined, opacity >= 1 && step.blend === "normal"];
  const last = effects.at(-1);
  if (whole && effects.length === 1 && last?.effect === "shadow" && only && isLeaf(only) && isSoft(last, frame, base)) {
    // What is painted at once casts its shadow by itself.
    castShadow(ctx, last, frame, measured(last, frame, base));
    paintSteps(ctx, step.steps, view, base, earlier);
    castNone(ctx);
    return;
  }
  const painted = extentOf(step.steps, view, base, earlier, true);
  const reach = painted ? withReach(painted, step, view, frame, base) : null;
  // What lies farther off the canvas than effects reach is never seen.
  const box = painted && reach && within(painted, ctx.canvas, Math.ceil(painted.left - reach.left) + ROOM);
  if (!box) return;
  const paintLayer = (steps: readonly Step[], where: Extent, seen: FrameView): Layer => {
    const layer = emptyLayer(where);
    paintSteps(layer.ctx, steps, seen, times([1, 0, 0, 1, -layer.left, -layer.top], base), earlier);
    return layer;
  };
  // A shadow that comes last is cast when the layer is composited.
  const casts = whole && last?.effect === "shadow" ? last : undefined;
  const applies = casts ? effects.slice(0, -1) : effects;
  const paintAll = (): Layer => {
    const mask = (steps: readonly Step[], where: Extent): Layer =>
      paintLayer(steps, where, { ...view, only: undefined, effectsOf: undefined });
    return applies.reduce((now, effect) => applied(effect, now, frame, base, mask), paintLayer(step.steps, box, view));
  };
  withLayer(step, [step.steps, applies], { view, earlier, base, box }, paintAll, (layer) => {
    if (casts) castShadow(ctx, casts, frame, measured(casts, frame, base));
    ctx.globalAlpha = opacity;
    ctx.globalCompositeOperation = composite(step.blend);
    lay(ctx, layer, { left: 0, top: 0 });
    ctx.globalAlpha = 1;
    ctx.globalCompositeOperation = "source-over";
    if (casts) castNone(ctx);
  });
}

/** Whether the edge of a shadow is too soft to show what it is cast by, an outline or a layer of pixels. */
const isSoft = (effect: Shadow, frame: number, base: Matrix): boolean =>
  scaleOf(measured(effect, frame, base)) * numberAt(effect.blur, frame) >= 0.5;

const isLeaf = (step: Step): boolean => step.op === "fill" || step.op === "stroke" || step.op === "picture";

const composite = (blend: string): GlobalCompositeOperation =>
  blend === "normal" ? "source-over" : (blend as GlobalCompositeOperation);

/** The part of an extent that is on a canvas, or not farther off than this many px, in whole pixels. */
function within(extent: Extent | null, canvas: { width: number; height: number }, off = 0): Extent | null {
  if (!extent) return null;
  const [left, top] = [Math.max(-off, Math.floor(extent.left) - 1), Math.max(-off, Math.floor(extent.top) - 1)];
  const right = Math.min(canvas.width + off, Math.ceil(extent.left + extent.width) + 1);
  const bottom = Math.min(canvas.height + off, Math.ceil(extent.top + extent.height) + 1);
  return right > left && bottom > top ? { left, top, width: right - left, height: bottom - top } : null;
}

function paintOutline(
  ctx: CanvasRenderingContext2D,
  step: Extract<Step, { op: "fill" | "stroke" }>,
  frame: number,
  opacity: number,
): void {
  const outline = outlineAt(step.outline, frame);
  const colour = step.gradient ? gradientAt(ctx, step.gradient, frame, opacity) : colourAt(step.colour, frame, opacity);
  if (!outline || !colour) return;
  if (step.op === "fill") {
    ctx.fillStyle = colour;
    ctx.fill(outline.path, step.rule);
    return;
  }
  const width = numberAt(step.width, frame);
  if (width <= 0) return;
  ctx.strokeStyle = colour;
  ctx.lineWidth = width;
  ctx.lineJoin = step.join;
  ctx.lineCap = step.cap;
  ctx.miterLimit = 10;
  if (step.dash.length) {
    ctx.setLineDash([...step.dash]);
    ctx.lineDashOffset = step.offset ? numberAt(step.offset, frame) : 0;
  }
  ctx.stroke(outline.path);
  if (step.dash.length) ctx.setLineDash([]);
}

/** Gradients whose ends lie nearer, px, have no length. */
const NOWHERE = 1e-6;

/** A gradient at a frame with an opacity on top. One of no length is its last colour, as SVG has it. */
function gradientAt(
  ctx: CanvasRenderingContext2D,
  { kind, ends, stops }: Gradient,
  frame: number,
  opacity: number,
): CanvasGradient | string | null {
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = ends.map((end) => numberAt(end, frame));
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length < NOWHERE) return colourAt(stops.at(-1)?.[1], frame, opacity);
  const found =
    kind === "linear" ? ctx.createLinearGradient(x0, y0, x1, y1) : ctx.createRadialGradient(x0, y0, 0, x0, y0, length);
  let before = 0;
  for (const [place, colour] of stops) {
    before = Math.max(before, Math.min(Math.max(numberAt(place, frame), 0), 1));
    const [r = 0, g = 0, b = 0, alpha = 1] = valuesAt(colour, frame);
    found.addColorStop(before, `rgba(${r * 255} ${g * 255} ${b * 255} / ${alpha * opacity})`);
  }
  return found;
}

function paintPicture(ctx: CanvasRenderingContext2D, step: Picture, frame: number, opacity: number): void {
  const [width = 0, height = 0] = valuesAt(step.size, frame);
  const count = step.pictures.length;
  const { a, b } = ctx.getTransform();
  const page = ((Math.floor(numberAt(step.page, frame)) % count) + count) % count;
  const picture = step.pictures.at(page, Math.hypot(a, b) * width);
  if (!picture || !(width > 0 && height > 0)) return;
  ctx.globalAlpha = opacity;
  ctx.imageSmoothingEnabled = step.smooth;
  // As the export samples pictures.
  ctx.imageSmoothingQuality = "medium";
  if (step.tile !== "none") tile(ctx, picture, width, height, endless(step));
  else if (step.fit === "cover") cover(ctx, picture, width, height);
  else ctx.drawImage(picture, -width / 2, -height / 2, width, height);
  ctx.globalAlpha = 1;
}

/** Paint a picture in its own proportions over a box about the origin, cropped equally at both sides. */
function cover(ctx: CanvasRenderingContext2D, picture: ImageBitmap, width: number, height: number): void {
  const share = Math.max(width / picture.width, height / picture.height);
  const [across, down] = [picture.width * share, picture.height * share];
  ctx.save();
  ctx.beginPath();
  ctx.rect(-width / 2, -height / 2, width, height);
  ctx.clip();
  ctx.drawImage(picture, -across / 2, -down / 2, across, down);
  ctx.restore();
}

/** Repeat a picture as far as the canvas goes, from a box of a size about the origin on. */
function tile(
  ctx: CanvasRenderingContext2D,
  picture: ImageBitmap,
  width: number,
  height: number,
  [across, down]: readonly [boolean, boolean],
): void {
  const pattern = ctx.createPattern(picture, "repeat");
  const home = inverse(matrixOf(ctx.getTransform()));
  if (!pattern || !home) return;
  pattern.setTransform(new DOMMatrix([width / picture.width, 0, 0, height / picture.height, -width / 2, -height / 2]));
  ctx.fillStyle = pattern;
  const seen = [0, ctx.canvas.width].flatMap((x) => [0, ctx.canvas.height].map((y) => moved(home, { x, y })));
  const range = (side: "x" | "y", size: number, isEndless: boolean): [number, number] =>
    isEndless ? [Math.min(...seen.map((p) => p[side])), Math.max(...seen.map((p) => p[side]))] : [-size / 2, size / 2];
  const [x, right] = range("x", width, across);
  const [y, bottom] = range("y", height, down);
  ctx.fillRect(x, y, right - x, bottom - y);
}

const matrixOf = ({ a, b, c, d, e, f }: DOMMatrix): Matrix => [a, b, c, d, e, f];

/** A CSS colour for a baked colour (components 0…1) with an opacity on top; null if nothing would be seen. */
export function colourAt(colour: Rows | undefined, frame: number, opacity: number): string | null {
  if (!colour) return null;
  const at = rowAt(colour, frame);
  const [r = 0, g = 0, b = 0, alpha = 1] = colour.data.subarray(at, at + 4);
  if (alpha * opacity <= 0) return null;
  return `rgba(${r * 255} ${g * 255} ${b * 255} / ${alpha * opacity})`;
}
