/** Where objects are in the picture: their own boxes, and which of them a point hits. */
import { isDial } from "@/api/kinds";
import { type BakedObject, type Motion, numberAt, type Rows, valuesAt } from "@/api/motion";
import type { SceneObject } from "@/api/types";
import { hexOf } from "@/geometry/colour";
import { IDENTITY, inverse, type Matrix, moved, type Point, times, toMatrix } from "@/geometry/matrix";
import { atFrame, inside, type FrameView, opacityAt, outlineAt, placeOf } from "@/picture/frameView";
import { endless, inOrder, type Leaf, type Step, stepsOf } from "@/api/paintList";
import { frameOf, lensOf } from "@/picture/lens";
import { extentOf } from "@/picture/layers";

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export const corners = (box: Box): readonly Point[] => [
  { x: box.left, y: box.top },
  { x: box.right, y: box.top },
  { x: box.right, y: box.bottom },
  { x: box.left, y: box.bottom },
];

/** An object's matrix at a frame, from its own space to the picture. */
export const viewOf = (motion: Motion, id: string, frame: number): Matrix | null => {
  const thing = motion.objects.get(id);
  return thing ? toMatrix(valuesAt(thing.view, frame)) : null;
};

/** The carrier of an object: its parent, or the bone it is attached to; undefined without a parent. */
export function carrierOf(motion: Motion | null, thing: SceneObject | null, frame: number): Matrix {
  if (!thing || isDial(thing)) return IDENTITY;
  const parent = thing.parent ? motion?.objects.get(thing.parent) : undefined;
  // Children of nothing is seen through the camera.
  if (!parent) return lensOf(motion, thing.id, frame);
  const carrier = toMatrix(valuesAt((thing.bone ? parent.bones[thing.bone] : undefined) ?? parent.view, frame));
  const lead = parent.channels["copies.lead"];
  // Children of a parade is taken hold of where its lead stands.
  return lead ? times(carrier, placeOfCopy(parent, numberAt(lead, frame), frame)) : carrier;
}

/** Where a copy of a parade stands, in the parade's own space. */
export function placeOfCopy(parade: BakedObject, copy: number, frame: number): Matrix {
  const row = parade.channels["copies"] ? valuesAt(parade.channels["copies"], frame) : null;
  return row && row.length >= 6 * (copy + 1) ? toMatrix(row.subarray(6 * copy, 6 * copy + 6)) : IDENTITY;
}

/** What hangs directly on each object, by its id. */
export type Parts = ReadonlyMap<string, readonly SceneObject[]>;

/** Everything that is attached to an object, itself included. */
export function withParts(id: string, parts: Parts): string[] {
  const found = [id];
  for (let i = 0; i < found.length; i++) found.push(...(parts.get(found[i]!) ?? []).map((one) => one.id));
  return found;
}

/**
 * The box of an object in its own space; for a group, the box around its parts. Null if nothing exists to put one
 * around.
 */
export function boxOf(motion: Motion, id: string, frame: number, parts: Parts): Box | null {
  const own = motion.objects.get(id);
  if (!own) return null;
  if (own.channels["zoom"]) return frameOf(motion, id, frame);
  const bounds = outlineAt(own.outline, frame)?.bounds;
  if (bounds) return { left: bounds[0], top: bounds[1], right: bounds[2], bottom: bounds[3] };
  // Of an inset in a parade, whose frames differ from copy to copy, the picture inside as a whole.
  const shown = own.channels["picture.size"] ?? (own.channels["inset.frame"] ? undefined : own.channels["inset.size"]);
  if (shown) return boxOfSize(shown, frame);
  const home = inverse(toMatrix(valuesAt(own.view, frame)));
  if (!home) return null;
  const isMany = (one: string): boolean => {
    const channels = motion.objects.get(one)?.channels;
    return channels !== undefined && ("copies" in channels || "inset.frame" in channels);
  };
  if (withParts(id, parts).some(isMany)) {
    // The box around parades and insets is that around all copies, and all that is inside.
    const painted = extentOf(stepsOf(motion.steps, new Set(withParts(id, parts))), atFrame(frame), home, 0);
    return (
      painted && {
        left: painted.left,
        top: painted.top,
        right: painted.left + painted.width,
        bottom: painted.top + painted.height,
      }
    );
  }
  const points: Point[] = [];
  for (const part of withParts(id, parts).slice(1)) {
    const thing = motion.objects.get(part);
    const outlined = thing && outlineAt(thing.outline, frame)?.bounds;
    const sized = thing?.channels["picture.size"];
    const box = outlined
      ? { left: outlined[0], top: outlined[1], right: outlined[2], bottom: outlined[3] }
      : sized && boxOfSize(sized, frame);
    if (!thing || !box) continue;
    const view = toMatrix(valuesAt(thing.view, frame));
    for (const corner of corners(box)) points.push(moved(home, moved(view, corner)));
  }
  if (points.length === 0) return null;
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** The corners of an object's box as they are in the picture; null if nothing exists to put one around. */
export function cornersOf(motion: Motion, id: string, frame: number, parts: Parts): Point[] | null {
  const [box, view] = [boxOf(motion, id, frame, parts), viewOf(motion, id, frame)];
  return box && view && corners(box).map((corner) => moved(view, corner));
}

/** The box of a picture about its own middle. */
function boxOfSize(size: Rows, frame: number): Box {
  const [width = 0, height = 0] = valuesAt(size, frame);
  return { left: -width / 2, top: -height / 2, right: width / 2, bottom: height / 2 };
}

let probe: CanvasRenderingContext2D | null = null;

/**
 * Whether a point of the space a step is in is on what it paints: in a fill, in a picture, or within `near` pixels
 * of a line.
 */
function hits(step: Leaf, matrix: Matrix, frame: number, point: Point, near: number): boolean {
  const home = inverse(matrix);
  probe ??= document.createElement("canvas").getContext("2d");
  if (!home || !probe) return false;
  const local = moved(home, point);
  if (step.op === "picture") {
    const [width = 0, height = 0] = valuesAt(step.size, frame);
    const [across, down] = endless(step);
    return (across || Math.abs(local.x) <= width / 2) && (down || Math.abs(local.y) <= height / 2);
  }
  const outline = outlineAt(step.outline, frame);
  if (!outline) return false;
  if (step.outline.boxed) {
    const [left, top, right, bottom] = outline.bounds;
    return local.x >= left && local.x <= right && local.y >= top && local.y <= bottom;
  }
  if (step.op === "fill")
    return (valuesAt(step.colour, frame)[3] ?? 0) > 0 && probe.isPointInPath(outline.path, local.x, local.y, step.rule);
  const width = numberAt(step.width, frame);
  if (width <= 0) return false;
  const scale = Math.sqrt(Math.abs(home[0] * home[3] - home[1] * home[2]));
  probe.lineWidth = Math.max(width, near * 2 * scale);
  return probe.isPointInStroke(outline.path, local.x, local.y);
}

const NONE: ReadonlySet<string> = new Set();

/**
 * The id of the foremost step that is seen at a point, or null; those of `past`, with all in them, are looked through.
 */
export function topmostIn(
  steps: readonly Step[],
  view: FrameView,
  point: Point,
  near: number,
  earlier = 0,
  past: ReadonlySet<string> = NONE,
): string | null {
  for (const step of steps.toReversed()) {
    const frame = view.frameOf(step.id) - earlier;
    if (!step.shown || past.has(step.id) || opacityAt(step, frame) <= 0) continue;
    if (step.op === "group") {
      const found = topmostIn(step.steps, view, point, near, earlier, past);
      if (found) return found;
    } else if (step.op === "instance") {
      const home = inverse(placeOf(step, frame, view));
      const there = home && moved(home, point);
      if (there && step.frames) {
        // What is inside is taken hold of as one.
        if (topmostIn(step.steps, inside(step.frames, frame), there, near)) return step.id;
        continue;
      }
      const found = there && topmostIn(step.steps, view, there, near, earlier + step.delay, past);
      if (found) return found;
    } else if (step.op === "copies") {
      const found = topmostIn(inOrder(step, frame), view, point, near, earlier, past);
      if (found) return found;
    } else if (hits(step, placeOf(step, frame, view), frame, point, near)) return step.id;
  }
  return null;
}

/** Which copy of a parade lies foremost at a point of the picture; null where none does. */
export function copyAtPoint(motion: Motion, id: string, frame: number, point: Point, near: number): number | null {
  const find = (steps: readonly Step[], at: Point): number | null => {
    for (const step of steps.toReversed()) {
      if (step.op === "copies" && step.id === id) {
        const hit = inOrder(step, frame).findLast((one) => topmostIn([one], atFrame(frame), at, near));
        return hit ? step.instances.indexOf(hit) : null;
      }
      if (step.op !== "group" && step.op !== "instance") continue;
      const home = step.op === "group" ? IDENTITY : inverse(placeOf(step, frame, atFrame(frame)));
      const found = home && find(step.steps, moved(home, at));
      if (found !== null) return found;
    }
    return null;
  };
  return find(motion.steps, point);
}

/** The foremost shown object at a point of the picture, or null; those of `past` are looked through. */
export const topmostAt = (
  motion: Motion,
  frame: number,
  point: Point,
  near: number,
  past: ReadonlySet<string> = NONE,
): string | null => topmostIn(motion.steps, atFrame(frame), point, near, 0, past);

/**
 * What an object is filled with at a frame, as #RRGGBBAA; its line's colour where it has no fill. Empty for what has
 * neither.
 */
export function colourAt(motion: Motion | null, thing: SceneObject, frame: number): string {
  const channels = motion?.objects.get(thing.id)?.channels;
  const hex = (name: string): string => {
    const rows = channels?.[name];
    const rgba = rows ? valuesAt(rows, frame) : null;
    return rgba && (rgba[3] ?? 0) > 0 ? hexOf(rgba) : "";
  };
  return hex("fill") || hex("stroke");
}
