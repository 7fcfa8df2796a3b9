/** Painting effects: what each does to one picture, on a layer that grows with it. docs/paint-list.md defines them. */
import { numberAt, valuesAt } from "@/api/motion";
import type { Blur, Effect, Fringe, Glow, Mask, Recolour, Shadow, Step } from "@/api/paintList";
import { luma } from "@/geometry/colour";
import { type Matrix, turned } from "@/geometry/matrix";
import { acquireCanvas, type Extent, releaseCanvas, grown } from "@/picture/layers";
import { directionOf, FAR, measured, middleOf, reachOf, scaleOf } from "@/picture/measure";

/** A picture on whole device pixels, with its left top corner at (left, top). */
export interface Layer extends Extent {
  readonly ctx: CanvasRenderingContext2D;
}
/** Paints steps on a layer of their own. */
export type PaintMask = (steps: readonly Step[], box: Extent) => Layer;

/** Blurs with smaller standard deviations, px of the picture painted, are left out. */
const SHARP = 0.05;

/** An empty layer. */
export function emptyLayer(box: Extent): Layer {
  const [left, top] = [Math.floor(box.left), Math.floor(box.top)];
  const [width, height] = [Math.ceil(box.left + box.width) - left, Math.ceil(box.top + box.height) - top];
  return { ctx: acquireCanvas(width, height), left, top, width, height };
}

/** Paint a layer on a canvas whose left top corner is at (left, top), moved by this many px. */
export function lay(
  ctx: CanvasRenderingContext2D,
  layer: Layer,
  on: { readonly left: number; readonly top: number },
  by: { readonly x: number; readonly y: number } = { x: 0, y: 0 },
): void {
  const { left, top, width, height } = layer;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.imageSmoothingEnabled = true;
  ctx.imageSmoothingQuality = "low";
  ctx.drawImage(layer.ctx.canvas, 0, 0, width, height, left - on.left + by.x, top - on.top + by.y, width, height);
}

/** A layer after an effect. The canvas of the one before is released unless it is the same. */
export function applied(effect: Effect, layer: Layer, frame: number, base: Matrix, paintMask: PaintMask): Layer {
  const matrix = measured(effect, frame, base);
  switch (effect.effect) {
    case "shadow":
      return replaced(layer, shadowed(effect, layer, frame, matrix));
    case "glow":
      return replaced(layer, glowing(effect, layer, frame, matrix));
    case "blur":
      return replaced(layer, blurred(effect, layer, frame, matrix));
    case "fringe":
      return replaced(layer, fringed(effect, layer, frame, matrix));
    case "mask":
      mask(effect, layer, frame, matrix, paintMask);
      return layer;
    case "recolour":
      recolour(effect, layer, frame);
      return layer;
  }
}

function replaced(before: Layer, after: Layer): Layer {
  if (after !== before) releaseCanvas(before.ctx);
  return after;
}

const roomFor = (layer: Layer, reach: number): Layer => emptyLayer(grown(layer, Math.ceil(reach) + 1));

/** How opaque a shadow is. */
const darknessOf = (effect: Shadow, frame: number): number =>
  (valuesAt(effect.colour, frame)[3] ?? 1) * numberAt(effect.opacity, frame);

/** Have what is painted next cast a shadow, if there is one to see. */
export function castShadow(ctx: CanvasRenderingContext2D, effect: Shadow, frame: number, matrix: Matrix): void {
  const [r = 0, g = 0, b = 0] = valuesAt(effect.colour, frame);
  const alpha = darknessOf(effect, frame);
  if (alpha <= 0) return;
  const { x, y } = turned(matrix, { x: numberAt(effect.dx, frame), y: numberAt(effect.dy, frame) });
  ctx.shadowColor = `rgba(${r * 255} ${g * 255} ${b * 255} / ${alpha})`;
  ctx.shadowOffsetX = x;
  ctx.shadowOffsetY = y;
  // A canvas takes twice the standard deviation.
  ctx.shadowBlur = 2 * scaleOf(matrix) * numberAt(effect.blur, frame);
}

/** Have what is painted next cast no shadow. */
export function castNone(ctx: CanvasRenderingContext2D): void {
  ctx.shadowColor = "transparent";
  ctx.shadowOffsetX = ctx.shadowOffsetY = ctx.shadowBlur = 0;
}

function shadowed(effect: Shadow, layer: Layer, frame: number, matrix: Matrix): Layer {
  if (darknessOf(effect, frame) <= 0) return layer;
  const out = roomFor(layer, reachOf(effect, frame, matrix, layer));
  castShadow(out.ctx, effect, frame, matrix);
  lay(out.ctx, layer, out);
  castNone(out.ctx);
  return out;
}

function glowing(effect: Glow, layer: Layer, frame: number, matrix: Matrix): Layer {
  const [r = 0, g = 0, b = 0, alpha = 1] = valuesAt(effect.colour, frame);
  const [strength, sigma] = [numberAt(effect.strength, frame), scaleOf(matrix) * numberAt(effect.size, frame)];
  if (strength <= 0 || alpha <= 0) return layer;
  const [out, light] = [roomFor(layer, FAR * sigma), roomFor(layer, FAR * sigma)];
  silhouette(light, layer, `rgba(${r * 255} ${g * 255} ${b * 255} / ${alpha})`, sigma);
  if (effect.lies === "over") lay(out.ctx, layer, out);
  out.ctx.globalCompositeOperation = "lighter";
  for (let left = strength; left > 0; left -= 1) {
    out.ctx.globalAlpha = Math.min(1, left);
    lay(out.ctx, light, out);
  }
  out.ctx.globalAlpha = 1;
  out.ctx.globalCompositeOperation = "source-over";
  releaseCanvas(light.ctx);
  if (effect.lies === "behind") lay(out.ctx, layer, out);
  return out;
}

function blurred(effect: Blur, layer: Layer, frame: number, matrix: Matrix): Layer {
  const sigma = scaleOf(matrix) * numberAt(effect.size, frame);
  if (sigma < SHARP) return layer;
  const out = roomFor(layer, FAR * sigma);
  const direction = effect.angle ? directionOf(matrix, numberAt(effect.angle, frame)) : null;
  if (direction === null || Math.abs(Math.sin(direction)) < 1e-6) {
    gaussian(out.ctx, sigma, direction === null ? sigma : 0, () => lay(out.ctx, layer, out));
    return out;
  }
  if (Math.abs(Math.cos(direction)) < 1e-6) {
    gaussian(out.ctx, 0, sigma, () => lay(out.ctx, layer, out));
    return out;
  }
  // Turned so that the direction goes to the right, blurred along it, and turned back.
  const room = Math.ceil(Math.hypot(layer.width, layer.height) / 2) + 1;
  const wide = room + Math.ceil(FAR * sigma) + 1;
  const now = emptyLayer({ left: -room, top: -room, width: 2 * room, height: 2 * room });
  const smeared = emptyLayer({ left: -wide, top: -room, width: 2 * wide, height: 2 * room });
  const [x, y] = [layer.left + layer.width / 2, layer.top + layer.height / 2];
  const [cos, sin] = [Math.cos(direction), Math.sin(direction)];
  through(now, layer, [cos, -sin, sin, cos, -(cos * x + sin * y), sin * x - cos * y]);
  gaussian(smeared.ctx, sigma, 0, () => lay(smeared.ctx, now, smeared));
  through(out, smeared, [cos, sin, -sin, cos, x, y]);
  releaseCanvas(now.ctx);
  releaseCanvas(smeared.ctx);
  return out;
}

function fringed(effect: Fringe, layer: Layer, frame: number, matrix: Matrix): Layer {
  const distance = numberAt(effect.distance, frame);
  if (distance === 0) return layer;
  const reach = reachOf(effect, frame, matrix, layer);
  const [red, green, blue] = [roomFor(layer, reach), roomFor(layer, reach), roomFor(layer, reach)];
  lay(green.ctx, layer, green);
  const middle = middleOf(effect, frame, matrix);
  if (middle) {
    for (const [side, share] of [
      [red, 1 + distance / 100],
      [blue, 1 - distance / 100],
    ] as const)
      through(side, layer, [share, 0, 0, share, middle.x * (1 - share), middle.y * (1 - share)]);
  } else {
    const angle = (numberAt(effect.angle, frame) * Math.PI) / 180;
    const by = turned(matrix, { x: distance * Math.cos(angle), y: distance * Math.sin(angle) });
    lay(red.ctx, layer, red, by);
    lay(blue.ctx, layer, blue, { x: -by.x, y: -by.y });
  }
  const [r, g, b] = [red, green, blue].map((one) => one.ctx.getImageData(0, 0, one.width, one.height).data) as [
    Uint8ClampedArray,
    Uint8ClampedArray,
    Uint8ClampedArray,
  ];
  const image = green.ctx.createImageData(green.width, green.height);
  const out = image.data;
  for (let i = 0; i < out.length; i += 4) {
    const covers = r[i + 3]! + g[i + 3]! + b[i + 3]!;
    if (!covers) continue;
    // Colours as far as they cover, each from its own picture; the alpha is their mean, but no less than any of them.
    const [x, y, z] = [(r[i]! * r[i + 3]!) / 255, (g[i + 1]! * g[i + 3]!) / 255, (b[i + 2]! * b[i + 3]!) / 255];
    const alpha = Math.max(Math.round(covers / 3), x, y, z);
    out[i] = (x * 255) / alpha;
    out[i + 1] = (y * 255) / alpha;
    out[i + 2] = (z * 255) / alpha;
    out[i + 3] = alpha;
  }
  green.ctx.putImageData(image, 0, 0);
  releaseCanvas(red.ctx);
  releaseCanvas(blue.ctx);
  return green;
}

/** Leave of a layer only what lies inside the picture of some steps, or outside it. */
function mask(effect: Mask, layer: Layer, frame: number, matrix: Matrix, paintMask: PaintMask): void {
  const sigma = scaleOf(matrix) * numberAt(effect.feather, frame);
  const by = paintMask(effect.steps, grown(layer, Math.ceil(FAR * sigma) + 1));
  if (effect.reads === "lightness") {
    const image = by.ctx.getImageData(0, 0, by.width, by.height);
    const data = image.data;
    for (let i = 0; i < data.length; i += 4)
      data[i + 3] = (luma(data[i]!, data[i + 1]!, data[i + 2]!) * data[i + 3]!) / 255;
    by.ctx.putImageData(image, 0, 0);
  }
  let edge = by;
  if (sigma >= SHARP) {
    edge = emptyLayer(layer);
    silhouette(edge, by, "black", sigma);
    releaseCanvas(by.ctx);
  }
  layer.ctx.globalCompositeOperation = effect.side === "inside" ? "destination-in" : "destination-out";
  lay(layer.ctx, edge, layer);
  layer.ctx.globalCompositeOperation = "source-over";
  releaseCanvas(edge.ctx);
}

function recolour(effect: Recolour, layer: Layer, frame: number): void {
  const m = valuesAt(effect.colours, frame);
  const image = layer.ctx.getImageData(0, 0, layer.width, layer.height);
  const data = image.data;
  for (let i = 0; i < data.length; i += 4) {
    if (!data[i + 3]) continue;
    const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
    for (let row = 0; row < 3; row++)
      data[i + row] = m[4 * row]! * r + m[4 * row + 1]! * g + m[4 * row + 2]! * b + m[4 * row + 3]! * 255;
  }
  layer.ctx.putImageData(image, 0, 0);
}

/** Paint one layer on another through a matrix between device pixels. */
function through(on: Layer, layer: Layer, [a, b, c, d, e, f]: Matrix): void {
  const { ctx } = on;
  ctx.setTransform(a, b, c, d, e - on.left, f - on.top);
  ctx.imageSmoothingEnabled = true;
  ctx.imageSmoothingQuality = "low";
  const { left, top, width, height } = layer;
  ctx.drawImage(layer.ctx.canvas, 0, 0, width, height, left, top, width, height);
}

/** How far off a canvas something is painted that shows by its shadow alone, px. */
const OFF = 8192;

/** Paint the blurred silhouette of a layer in a colour: by its shadow, which costs a fraction of what a filter does. */
function silhouette(on: Layer, layer: Layer, colour: string, sigma: number): void {
  const { ctx } = on;
  ctx.shadowColor = colour;
  ctx.shadowBlur = 2 * sigma;
  ctx.shadowOffsetX = OFF;
  ctx.shadowOffsetY = 0;
  lay(ctx, layer, on, { x: -OFF, y: 0 });
  castNone(ctx);
}

/** Paint something blurred by a Gaussian of standard deviations in px. */
function gaussian(ctx: CanvasRenderingContext2D, across: number, down: number, paint: () => void): void {
  if (Math.max(across, down) >= SHARP) ctx.filter = across === down ? `blur(${across}px)` : filterFor(across, down);
  paint();
  ctx.filter = "none";
}

const SVG = "http://www.w3.org/2000/svg";
const filters = new Map<string, SVGFilterElement>();
let sheet: SVGSVGElement | null = null;
/** This many SVG filters are kept. */
const MOST_FILTERS = 64;

/** An SVG filter that blurs differently across and down, which no CSS filter does. */
function filterFor(across: number, down: number): string {
  const id = `blur-${across.toFixed(2)}-${down.toFixed(2)}`.replaceAll(".", "_");
  if (!filters.has(id)) {
    if (!sheet) {
      sheet = document.createElementNS(SVG, "svg");
      sheet.setAttribute("width", "0");
      sheet.setAttribute("height", "0");
      sheet.setAttribute("aria-hidden", "true");
      sheet.style.position = "absolute";
      document.body.append(sheet);
    }
    const filter = document.createElementNS(SVG, "filter");
    filter.id = id;
    filter.setAttribute("color-interpolation-filters", "sRGB");
    const blur = document.createElementNS(SVG, "feGaussianBlur");
    blur.setAttribute("stdDeviation", `${across.toFixed(2)} ${down.toFixed(2)}`);
    filter.append(blur);
    sheet.append(filter);
    filters.set(id, filter);
    for (const [old, element] of filters) {
      if (filters.size <= MOST_FILTERS) break;
      element.remove();
      filters.delete(old);
    }
  }
  return `url(#${id})`;
}
