/**
 * Baked motion as it comes from the service: float32 arrays with one row per frame, or a single row where nothing
 * changes. The page reads these arrays and never computes motion itself.
 */
import { decode } from "@msgpack/msgpack";
import { type Known, resolved, type Step, type StepData } from "@/api/paintList";
import { type Pages, pagesOf } from "@/api/pictures";

/** An array of `rows` rows, `width` numbers each. */
export interface Rows {
  readonly width: number;
  readonly rows: number;
  readonly data: Float32Array;
  /** The frame of its first row, where that is not 0. */
  readonly first?: number;
}

export interface Outline {
  readonly path: Path2D;
  /** left, top, right, bottom in the object's own space. */
  readonly bounds: readonly [number, number, number, number];
}

/** The outlines something has over time, and which of them each frame shows. */
export interface Outlines {
  readonly which: Uint16Array;
  /** One of the different outlines; its path is built when it is first asked for. */
  readonly outline: (index: number) => Outline | undefined;
  /** Whether it is taken hold of anywhere within its bounds, as a text is. */
  readonly boxed?: boolean;
  /** The frame of the first of `which`, where that is not 0. */
  readonly first?: number;
}

export interface BakedObject {
  /** a b c d e f per frame, from the object's own space to the picture. */
  readonly view: Rows;
  /** The same to its parent's space. */
  readonly local: Rows;
  /** Its own opacity, without that of its parent. */
  readonly fade: Rows;
  /** Where the pivot is in the picture. */
  readonly place: Rows;
  /** Where its own origin is in the picture. */
  readonly middle: Rows;
  readonly channels: Readonly<Record<string, Rows>>;
  readonly outline?: Outlines;
  /** Frames at which a repeating end begins a new turn, by channel. */
  readonly turns: Readonly<Record<string, readonly number[]>>;
  /** Frames at which it meets something. */
  readonly contacts: readonly number[];
  /** Of a figure: a b c d e f per frame for each bone, from the space it rests in to the picture. */
  readonly bones: Readonly<Record<string, Rows>>;
  /** Of a figure that walks: its steps. */
  readonly steps: Steps;
  /** The pages of a picture object. */
  readonly pages?: Pages;
  /** Of something whose outline rules bend: left, top, right, bottom of it at rest. */
  readonly rest?: readonly [number, number, number, number];
  /** Of a text: the characters that no font has. */
  readonly missing: readonly string[];
}

/** When each leg is on the ground, from frame to frame, and the poses of its steps: [frame, pose, leg]. */
export interface Steps {
  readonly down: Readonly<Record<string, readonly (readonly [number, number])[]>>;
  readonly poses: readonly (readonly [number, string, string])[];
}

export interface Motion {
  readonly revision: number;
  readonly fps: number;
  readonly length: number;
  readonly size: readonly [number, number];
  readonly background: string;
  /** Ids in drawing order, the first at the back. */
  readonly order: readonly string[];
  /** Ids of what is not shown, itself or by its parent. */
  readonly hidden: ReadonlySet<string>;
  /** By id; dials too, as `dial:` and their id, with one channel and nothing to see. */
  readonly objects: ReadonlyMap<string, BakedObject>;
  /** What is painted, the first at the back. */
  readonly steps: readonly Step[];
  /** The same unchanged sent. */
  readonly stepData: readonly StepData[];
}

interface WireArray {
  w: number;
  d: Uint8Array;
}
/** What has changed of an object; null where the object does not exist any more. */
interface WireObject {
  /** Whether it is another than the one of this id before, if there was one. */
  whole?: boolean;
  view?: WireArray | null;
  local?: WireArray | null;
  fade?: WireArray | null;
  place?: WireArray | null;
  middle?: WireArray | null;
  channels?: Record<string, WireArray | null>;
  outline?: WireOutline | null;
  turns?: Record<string, number[] | null>;
  contacts?: number[] | null;
  bones?: Record<string, WireArray | null>;
  steps?: Steps | null;
  missing?: string[] | null;
  rest?: [number, number, number, number] | null;
  pictures?: [id: string, width: number][] | null;
}
interface WireOutline {
  which: Uint8Array;
  boxed?: boolean;
  blocks: { verbs: Uint8Array; count: number; points: Uint8Array; bounds: Uint8Array }[];
}
interface WireMotion extends Omit<Motion, "hidden" | "objects" | "steps" | "stepData"> {
  steps?: StepData[];
  whole: boolean;
  dials: string[];
  copies: string[];
  hidden: string[];
  objects: Record<string, WireObject>;
}

/** The row of an array at a frame, as an offset into its data. */
export const rowAt = (array: Rows, frame: number): number =>
  array.rows > 1 ? Math.min(Math.max(Math.round(frame - (array.first ?? 0)), 0), array.rows - 1) * array.width : 0;

/** The first number of the row at a frame. */
export const numberAt = (array: Rows, frame: number): number => array.data[rowAt(array, frame)] ?? 0;

/** The same as the short decimal it most likely was before it became a float32 of the bake. */
export const writtenAt = (array: Rows, frame: number): number => Number(numberAt(array, frame).toPrecision(7));

/** The whole row at a frame. */
export const valuesAt = (array: Rows, frame: number): Float32Array => {
  const start = rowAt(array, frame);
  return array.data.subarray(start, start + array.width);
};

/** Read a message of the service; omitted parts are taken from the previous motion. */
export function readMotion(message: Uint8Array, before?: Motion): Motion {
  const wire = decode(message) as WireMotion;
  const old = wire.whole ? undefined : before;
  const objects = new Map<string, BakedObject>();
  for (const id of [...wire.order, ...wire.dials, ...wire.copies]) {
    const was = old?.objects.get(id);
    const fresh = wire.objects[id];
    if (fresh) objects.set(id, merged(fresh.whole ? undefined : was, fresh));
    else if (was) objects.set(id, was);
  }
  const { revision, fps, length, size, background, order } = wire;
  const stepData = wire.steps ?? old?.stepData ?? [];
  const steps = resolved(stepData, knownIn(objects));
  return { revision, fps, length, size, background, order, hidden: new Set(wire.hidden), objects, steps, stepData };
}

/** What the addresses of a paint list represent among some objects. */
export const knownIn = (objects: ReadonlyMap<string, BakedObject>): Known => ({
  track: ([owner, name, first]) => startingAt(trackOf(objects.get(owner), name), first),
  outline: (owner, first) => startingAt(objects.get(owner)?.outline, first),
  pictures: (owner) => objects.get(owner)?.pages,
});

/** Rows whose first is that of another frame than 0. */
const startingAt = <T extends object>(rows: T | undefined, first: number | undefined): T | undefined =>
  rows && first ? { ...rows, first } : rows;

/** A track of an object by its name in the paint list. */
function trackOf(thing: BakedObject | undefined, name: string): Rows | undefined {
  return name === "view" ? thing?.view : name === "fade" ? thing?.fade : thing?.channels[name];
}

const NO_STEPS: Steps = { down: {}, poses: [] };
const NOTHING: Rows = { width: 1, rows: 1, data: new Float32Array(6) };

function merged(was: BakedObject | undefined, fresh: WireObject): BakedObject {
  return {
    view: newer(was?.view, fresh.view, rows) ?? NOTHING,
    local: newer(was?.local, fresh.local, rows) ?? NOTHING,
    fade: newer(was?.fade, fresh.fade, rows) ?? NOTHING,
    place: newer(was?.place, fresh.place, rows) ?? NOTHING,
    middle: newer(was?.middle, fresh.middle, rows) ?? NOTHING,
    channels: overlaid(was?.channels, fresh.channels, rows),
    outline: newer(was?.outline, fresh.outline, readOutlines),
    turns: overlaid(was?.turns, fresh.turns, asItIs),
    contacts: newer(was?.contacts, fresh.contacts, asItIs) ?? [],
    bones: overlaid(was?.bones, fresh.bones, rows),
    steps: newer(was?.steps, fresh.steps, asItIs) ?? NO_STEPS,
    missing: newer(was?.missing, fresh.missing, asItIs) ?? [],
    rest: newer(was?.rest, fresh.rest, asItIs),
    pages: newer(was?.pages, fresh.pictures, pagesOf),
  };
}

const asItIs = <T>(value: T): T => value;

/** What there was, unless something else came, or word that it is missing. */
const newer = <W, T>(was: T | undefined, fresh: W | null | undefined, read: (value: W) => T): T | undefined =>
  fresh === undefined ? was : fresh === null ? undefined : read(fresh);

/** The same for each of a record. */
function overlaid<W, T>(
  was: Readonly<Record<string, T>> | undefined,
  fresh: Record<string, W | null> | undefined,
  read: (value: W) => T,
): Readonly<Record<string, T>> {
  if (!fresh && was) return was;
  const found: Record<string, T> = { ...was };
  for (const [name, value] of Object.entries(fresh ?? {}))
    if (value === null) delete found[name];
    else found[name] = read(value);
  return found;
}

function rows(array: WireArray): Rows {
  const data = new Float32Array(aligned(array.d));
  return { width: array.w, rows: data.length / array.w, data };
}

/** A copy of some bytes that begins where typed arrays may begin. */
const aligned = (data: Uint8Array): ArrayBuffer => data.slice().buffer as ArrayBuffer;

/**
 * What gives each outline by its place, and keeps it from then on: of hundreds that a moving outline has, few are ever
 * seen.
 */
export function builtWhenAsked(builders: readonly (() => Outline)[]): Outlines["outline"] {
  const built: (Outline | undefined)[] = [];
  return (index) => (built[index] ??= builders[index]?.());
}

function outlinesOf(block: WireOutline["blocks"][number]): (() => Outline)[] {
  const points = new Float32Array(aligned(block.points));
  const bounds = new Float32Array(aligned(block.bounds));
  const each = points.length / block.count;
  return Array.from({ length: block.count }, (_, k) => () => {
    const [left = 0, top = 0, right = 0, bottom = 0] = bounds.subarray(4 * k, 4 * k + 4);
    return {
      path: buildPath(block.verbs, points.subarray(k * each, (k + 1) * each)),
      bounds: [left, top, right, bottom] as const,
    };
  });
}

/** The outlines of an object from a message: each is built when it is first asked for. */
export function readOutlines(wire: WireOutline): Outlines {
  return {
    which: new Uint16Array(aligned(wire.which)),
    boxed: wire.boxed,
    outline: builtWhenAsked(wire.blocks.flatMap(outlinesOf)),
  };
}

/** An outline as the canvas takes it, from its verbs (0 move, 1 line, 2 cubic, 3 close) and their points, x y. */
export function buildPath(verbs: Uint8Array, points: Float32Array): Path2D {
  const path = new Path2D();
  let at = 0;
  const next = (): number => points[at++] ?? 0;
  for (const verb of verbs) {
    if (verb === 0) path.moveTo(next(), next());
    else if (verb === 1) path.lineTo(next(), next());
    else if (verb === 2) path.bezierCurveTo(next(), next(), next(), next(), next(), next());
    else path.closePath();
  }
  return path;
}
