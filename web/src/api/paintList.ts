/** The paint list: all paint operations of every frame, as a tree. See docs/paint-list.md. */
import { type Outlines, type Rows, valuesAt } from "@/api/motion";
import type { Pages } from "@/api/pictures";

interface Measured {
  /** The rule that asks for it. */
  readonly rule: string;
  /** From the space it is measured in to that of its group; the same where it is missing. */
  readonly matrix?: Rows;
}
export interface Shadow extends Measured {
  readonly effect: "shadow";
  readonly dx: Rows;
  readonly dy: Rows;
  readonly blur: Rows;
  readonly colour: Rows;
  readonly opacity: Rows;
}
export interface Glow extends Measured {
  readonly effect: "glow";
  readonly size: Rows;
  readonly colour: Rows;
  readonly strength: Rows;
  readonly lies: "behind" | "over";
}
export interface Blur extends Measured {
  readonly effect: "blur";
  readonly size: Rows;
  /** The one direction it is blurred in; all round where it is missing. */
  readonly angle?: Rows;
}
export interface Fringe extends Measured {
  readonly effect: "fringe";
  readonly distance: Rows;
  readonly angle: Rows;
  /** What colours are moved outward from; in one direction where it is missing. */
  readonly middle?: Rows;
}
export interface Mask extends Measured {
  readonly effect: "mask";
  readonly steps: readonly Step[];
  readonly side: "inside" | "outside";
  readonly reads: "opacity" | "lightness";
  readonly feather: Rows;
}
export interface Recolour extends Measured {
  readonly effect: "recolour";
  readonly colours: Rows;
}
/** What a rule on a look does to one picture. */
export type Effect = Shadow | Glow | Blur | Fringe | Mask | Recolour;

interface Common {
  /** Whose step it is. */
  readonly id: string;
  /** All of these multiplied, per frame. */
  readonly opacity: readonly Rows[];
  readonly shown: boolean;
}
/** Colour stops, in the object's space. */
export interface Gradient {
  readonly kind: "linear" | "radial";
  /** x and y of the first end, x and y of the last. */
  readonly ends: readonly Rows[];
  /** The place and the colour of each stop. */
  readonly stops: readonly (readonly [place: Rows, colour: Rows])[];
}
export interface Fill extends Common {
  readonly op: "fill";
  readonly gradient: Gradient | undefined;
  readonly matrix: Rows;
  readonly outline: Outlines;
  readonly colour: Rows;
  readonly rule: CanvasFillRule;
}
export interface Stroke extends Common {
  readonly op: "stroke";
  readonly gradient: Gradient | undefined;
  readonly matrix: Rows;
  readonly outline: Outlines;
  readonly colour: Rows;
  readonly width: Rows;
  readonly cap: CanvasLineCap;
  readonly join: CanvasLineJoin;
  /** The lengths of dashes and gaps in turn; none for a whole line. */
  readonly dash: readonly number[];
  readonly offset: Rows | undefined;
}
export interface Picture extends Common {
  readonly op: "picture";
  readonly matrix: Rows;
  readonly size: Rows;
  readonly pictures: Pages;
  readonly page: Rows;
  readonly smooth: boolean;
  readonly fit: "stretch" | "cover";
  readonly tile: "none" | "across" | "down" | "both";
}
export interface Group extends Common {
  readonly op: "group";
  readonly blend: string;
  /** What is done to its picture, in order. */
  readonly effects: readonly Effect[];
  readonly steps: readonly Step[];
}
export interface Instance extends Common {
  readonly op: "instance";
  readonly matrix: Rows;
  readonly delay: number;
  /** Of the scene inside an inset: at which frame its steps are; they have a time of their own. */
  readonly frames?: Rows;
  readonly steps: readonly Step[];
}
/** Some steps n times: the instances of a parade, as they are counted, and in which order they are painted. */
export interface Copies extends Common {
  readonly op: "copies";
  readonly instances: readonly Instance[];
  readonly order: Rows | undefined;
}
export type Leaf = Fill | Stroke | Picture;
export type Step = Leaf | Group | Instance | Copies;

/** Where a track is found: whose it is, its name, and the frame of its first row where that is not 0. */
export type Address = readonly [owner: string, name: string, first?: number];
/** An effect in a message, with addresses instead of tracks. */
export interface EffectData {
  readonly effect: Effect["effect"];
  readonly steps?: readonly StepData[];
  readonly [name: string]: unknown;
}
/** A paint operation in a message, with addresses instead of tracks; defaults are omitted. */
export interface StepData {
  readonly op: Step["op"];
  readonly id: string;
  readonly opacity?: readonly Address[];
  readonly shown?: boolean;
  readonly matrix?: Address;
  readonly outline?: string | readonly [owner: string, first: number];
  readonly colour?: Address;
  readonly rule?: CanvasFillRule;
  readonly gradient?: {
    readonly kind: Gradient["kind"];
    readonly ends: readonly Address[];
    readonly stops: readonly (readonly [place: Address, colour: Address])[];
  };
  readonly width?: Address;
  readonly cap?: CanvasLineCap;
  readonly join?: CanvasLineJoin;
  readonly dash?: readonly number[];
  readonly offset?: Address;
  readonly size?: Address;
  readonly page?: Address;
  readonly pictures?: string;
  readonly smooth?: boolean;
  readonly fit?: Picture["fit"];
  readonly tile?: Picture["tile"];
  readonly blend?: string;
  readonly effects?: readonly EffectData[];
  readonly delay?: number;
  readonly steps?: readonly StepData[];
  readonly matrices?: Address;
  readonly fades?: Address;
  readonly order?: Address;
  readonly frames?: Address;
  readonly delays?: readonly number[];
  readonly each?: readonly (readonly StepData[])[];
}

/** What addresses represent. */
export interface Known {
  readonly track: (address: Address) => Rows | undefined;
  readonly outline: (owner: string, first: number) => Outlines | undefined;
  readonly pictures: (owner: string) => Pages | undefined;
}

/** Put tracks in the place of their addresses. A step whose tracks are missing is left out. */
export function resolved(data: readonly StepData[], known: Known): Step[] {
  return data.flatMap((one) => resolvedStep(one, known) ?? []);
}

function resolvedStep(data: StepData, known: Known): Step | undefined {
  const { op, id, shown = true } = data;
  const find = (address: Address | undefined): Rows | undefined => address && known.track(address);
  const common = { id, shown, opacity: (data.opacity ?? []).flatMap((address) => known.track(address) ?? []) };
  const [matrix, colour, width, size, page] = [
    find(data.matrix),
    find(data.colour),
    find(data.width),
    find(data.size),
    find(data.page),
  ];
  const outline =
    data.outline === undefined
      ? undefined
      : typeof data.outline === "string"
        ? known.outline(data.outline, 0)
        : known.outline(...data.outline);
  const steps = resolved(data.steps ?? [], known);
  const gradient = data.gradient && resolvedGradient(data.gradient, known);
  if (op === "fill") {
    const rule = data.rule ?? "nonzero";
    return matrix && outline && colour && { op, ...common, matrix, outline, colour, rule, gradient };
  }
  if (op === "stroke") {
    const { cap = "round", join = "round", dash = [] } = data;
    const line = { gradient, cap, join, dash, offset: find(data.offset) };
    return matrix && outline && colour && width && { op, ...common, matrix, outline, colour, width, ...line };
  }
  if (op === "group") {
    const effects = (data.effects ?? []).flatMap((one) => resolvedEffect(one, known) ?? []);
    return { op, ...common, blend: data.blend ?? "normal", effects, steps };
  }
  if (op === "copies") return copies(data, common, known);
  if (op === "instance") {
    const frames = find(data.frames);
    return matrix && { op, ...common, matrix, delay: data.delay ?? 0, ...(frames && { frames }), steps };
  }
  const pictures = data.pictures === undefined ? undefined : known.pictures(data.pictures);
  const { smooth = true, fit = "stretch", tile = "none" } = data;
  return matrix && size && page && pictures && { op, ...common, matrix, size, page, pictures, smooth, fit, tile };
}

/** A gradient; nothing if a track of it is missing. */
function resolvedGradient(data: NonNullable<StepData["gradient"]>, known: Known): Gradient | undefined {
  const ends = data.ends.flatMap((end) => known.track(end) ?? []);
  const stops = data.stops.flatMap(([place, colour]) => {
    const [at, written] = [known.track(place), known.track(colour)];
    return at && written ? [[at, written] as const] : [];
  });
  return ends.length === 4 && stops.length ? { kind: data.kind, ends, stops } : undefined;
}

/** An effect whose tracks are missing is left out. */
function resolvedEffect(data: EffectData, known: Known): Effect | undefined {
  const found: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(data)) {
    if (name === "steps") found[name] = resolved(value as readonly StepData[], known);
    else if (Array.isArray(value)) {
      const track = known.track(value as unknown as Address);
      // On the whole stage nothing lies between the scene and the picture.
      if (!track && name !== "matrix") return undefined;
      if (track) found[name] = track;
    } else found[name] = value;
  }
  return found as unknown as Effect;
}

/** The column of each copy in an array of all copies. */
function column(array: Rows, copy: number, width: number): Rows {
  const data = new Float32Array(array.rows * width);
  for (let row = 0; row < array.rows; row++)
    data.set(
      array.data.subarray(row * array.width + copy * width, row * array.width + (copy + 1) * width),
      row * width,
    );
  return { ...array, width, data };
}

function copies(data: StepData, common: Common, known: Known): Copies | undefined {
  const matrices = data.matrices && known.track(data.matrices);
  if (!matrices) return undefined;
  const fades = data.fades && known.track(data.fades);
  const each = (data.each ?? []).map((steps) => resolved(steps, known));
  const instances = (data.delays ?? []).map((delay, k): Instance => ({
    op: "instance",
    id: common.id,
    shown: true,
    opacity: fades ? [column(fades, k, 1)] : [],
    matrix: column(matrices, k, 6),
    delay,
    steps: each[each.length > 1 ? k : 0] ?? [],
  }));
  return { op: "copies", ...common, instances, order: data.order && known.track(data.order) };
}

/** The copies of a parade at a frame, from the back to the front. */
export function inOrder(step: Copies, frame: number): readonly Instance[] {
  if (!step.order) return step.instances;
  return [...valuesAt(step.order, frame)].flatMap((k) => step.instances[k] ?? []);
}

/**
 * How far a line can lie from its outline, as a share of half its width: mitered corners and square ends go farther.
 */
export const reachOf = ({ cap, join }: Stroke): number =>
  Math.max(cap === "square" ? 1.5 : 1, join === "miter" ? 10 : 1);

/** Whether a picture goes on without end across, and down. */
export const endless = ({ tile }: Picture): readonly [across: boolean, down: boolean] => [
  tile === "across" || tile === "both",
  tile === "down" || tile === "both",
];

/** Whether a step paints the scene inside an inset. */
export const isInside = (step: Step): step is Instance & { readonly frames: Rows } =>
  step.op === "instance" && step.frames !== undefined;

/** Of some steps, those that paint certain objects, in what they are in. */
export function stepsOf(steps: readonly Step[], ids: ReadonlySet<string>): Step[] {
  const known = new Map<readonly Step[], Step[]>();
  const within = (some: readonly Step[]): Step[] => {
    // Copies share their steps.
    const found = known.get(some) ?? stepsOf(some, ids);
    known.set(some, found);
    return found;
  };
  return steps.flatMap((step): Step[] => {
    if (step.op === "copies") {
      const instances = step.instances.map((one) => ({ ...one, steps: within(one.steps) }));
      return instances.some((one) => one.steps.length) ? [{ ...step, instances }] : [];
    }
    // What is inside an inset has ids of its own, which may be those of objects beside it.
    if ((step.op !== "group" && step.op !== "instance") || isInside(step)) return ids.has(step.id) ? [step] : [];
    const inner = within(step.steps);
    return inner.length ? [{ ...step, steps: inner }] : [];
  });
}

/**
 * The steps that paint something themselves and are in no copies and inside no inset, in order, each with the opacity
 * of the groups it is in.
 */
export function leavesOf(steps: readonly Step[], above: readonly Rows[] = []): Leaf[] {
  return steps.flatMap((step): Leaf[] => {
    const opacity = above.length ? [...above, ...step.opacity] : step.opacity;
    // Ghosts of every copy, and of all that is inside, would hide more than they show.
    if (step.op === "copies" || isInside(step)) return [];
    if (step.op === "group" || step.op === "instance") return leavesOf(step.steps, opacity);
    return [above.length ? { ...step, opacity } : step];
  });
}
