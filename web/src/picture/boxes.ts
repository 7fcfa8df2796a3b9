/** Where objects lie in the picture: their own boxes, and which of them a point hits. */
import { type Motion, numberAt, valuesAt } from "@/api/motion";
import type { SceneObject } from "@/api/types";
import { IDENTITY, inverse, type Matrix, moved, type Point, toMatrix } from "@/geometry/matrix";
import { outlineAt } from "@/picture/paint";

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

/** An object's world matrix at a frame. */
export const worldOf = (motion: Motion, id: string, frame: number): Matrix | null => {
  const thing = motion.objects.get(id);
  return thing ? toMatrix(valuesAt(thing.world, frame)) : null;
};

/** What carries an object: its parent, or the bone of it that it hangs on; nothing for what hangs on nothing. */
export function carrierOf(motion: Motion | null, thing: SceneObject | null, frame: number): Matrix {
  const parent = thing && thing.kind !== "dial" && thing.parent ? motion?.objects.get(thing.parent) : undefined;
  if (!parent || !thing || thing.kind === "dial") return IDENTITY;
  return toMatrix(valuesAt((thing.bone ? parent.bones[thing.bone] : undefined) ?? parent.world, frame));
}

/** What hangs directly on each object, by its id. */
export type Parts = ReadonlyMap<string, readonly SceneObject[]>;

/** Everything that hangs on an object, itself included. */
export function withParts(id: string, parts: Parts): string[] {
  const found = [id];
  for (let i = 0; i < found.length; i++) found.push(...(parts.get(found[i]!) ?? []).map((one) => one.id));
  return found;
}

/** The box of an object in its own space; for a group, the box around its parts. Null if there is nothing to put one around. */
export function boxOf(motion: Motion, id: string, frame: number, parts: Parts): Box | null {
  const own = motion.objects.get(id);
  if (!own) return null;
  const bounds = outlineAt(own, frame)?.bounds;
  if (bounds) return { left: bounds[0], top: bounds[1], right: bounds[2], bottom: bounds[3] };
  const home = inverse(toMatrix(valuesAt(own.world, frame)));
  if (!home) return null;
  const points: Point[] = [];
  for (const part of withParts(id, parts).slice(1)) {
    const thing = motion.objects.get(part);
    const box = thing && outlineAt(thing, frame)?.bounds;
    if (!box) continue;
    const world = toMatrix(valuesAt(thing.world, frame));
    for (const corner of corners({ left: box[0], top: box[1], right: box[2], bottom: box[3] })) points.push(moved(home, moved(world, corner)));
  }
  if (points.length === 0) return null;
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

let probe: CanvasRenderingContext2D | null = null;

/** Whether a point of the picture is on an object: within its outline, or within `near` pixels of its line. */
export function hits(motion: Motion, id: string, frame: number, point: Point, near: number, world?: Matrix): boolean {
  const thing = motion.objects.get(id);
  const outline = thing && outlineAt(thing, frame);
  if (!thing || !outline || numberAt(thing.opacity, frame) <= 0) return false;
  const home = inverse(world ?? toMatrix(valuesAt(thing.world, frame)));
  if (!home) return false;
  const local = moved(home, point);
  probe ??= document.createElement("canvas").getContext("2d");
  if (!probe) return false;
  const filled = thing.channels.fill && (valuesAt(thing.channels.fill, frame)[3] ?? 0) > 0;
  if (filled && probe.isPointInPath(outline.path, local.x, local.y)) return true;
  const scale = Math.sqrt(Math.abs(home[0] * home[3] - home[1] * home[2]));
  const width = thing.channels["stroke.width"] ? numberAt(thing.channels["stroke.width"], frame) : 0;
  if (width <= 0) return false;
  probe.lineWidth = Math.max(width, near * 2 * scale);
  return probe.isPointInStroke(outline.path, local.x, local.y);
}

/** The foremost shown object at a point of the picture, or null. */
export function topmostAt(motion: Motion, frame: number, point: Point, near: number): string | null {
  return motion.order.findLast((id) => !motion.hidden.has(id) && hits(motion, id, frame, point, near)) ?? null;
}
