/** The paint list: what is painted at every frame, as a tree of steps. docs/paint-list.md describes it. */
import type { Outlines, Rows } from "@/api/motion";

interface Common {
  /** Whose step it is. */
  readonly id: string;
  /** All of these multiplied, per frame. */
  readonly opacity: readonly Rows[];
  readonly shown: boolean;
}
export interface Fill extends Common {
  readonly op: "fill";
  readonly matrix: Rows;
  readonly outline: Outlines;
  readonly colour: Rows;
}
export interface Stroke extends Common {
  readonly op: "stroke";
  readonly matrix: Rows;
  readonly outline: Outlines;
  readonly colour: Rows;
  readonly width: Rows;
}
export interface Picture extends Common {
  readonly op: "picture";
  readonly matrix: Rows;
  readonly size: Rows;
  readonly pictures: readonly CanvasImageSource[];
  readonly page: Rows;
  readonly smooth: boolean;
}
export interface Group extends Common {
  readonly op: "group";
  readonly blend: string;
  readonly steps: readonly Step[];
}
export interface Instance extends Common {
  readonly op: "instance";
  readonly matrix: Rows;
  readonly delay: number;
  readonly steps: readonly Step[];
}
export type Leaf = Fill | Stroke | Picture;
export type Step = Leaf | Group | Instance;

/** Where a track is found: whose it is and its name. */
export type Address = readonly [owner: string, name: string];
/** A step as it is sent, with addresses instead of tracks; what is as usual is left out. */
export interface StepData {
  readonly op: Step["op"];
  readonly id: string;
  readonly opacity?: readonly Address[];
  readonly shown?: boolean;
  readonly matrix?: Address;
  readonly outline?: string;
  readonly colour?: Address;
  readonly width?: Address;
  readonly size?: Address;
  readonly page?: Address;
  readonly pictures?: string;
  readonly smooth?: boolean;
  readonly blend?: string;
  readonly delay?: number;
  readonly steps?: readonly StepData[];
}

/** What addresses stand for. */
export interface Known {
  readonly track: (address: Address) => Rows | undefined;
  readonly outline: (owner: string) => Outlines | undefined;
  readonly pictures: (owner: string) => readonly CanvasImageSource[] | undefined;
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
  const outline = data.outline === undefined ? undefined : known.outline(data.outline);
  const steps = resolved(data.steps ?? [], known);
  if (op === "fill") return matrix && outline && colour && { op, ...common, matrix, outline, colour };
  if (op === "stroke") return matrix && outline && colour && width && { op, ...common, matrix, outline, colour, width };
  if (op === "group") return { op, ...common, blend: data.blend ?? "normal", steps };
  if (op === "instance") return matrix && { op, ...common, matrix, delay: data.delay ?? 0, steps };
  const pictures = data.pictures === undefined ? undefined : known.pictures(data.pictures);
  return (
    matrix && size && page && pictures && { op, ...common, matrix, size, page, pictures, smooth: data.smooth ?? true }
  );
}

/** The steps that paint something themselves, in order, each with the opacity of the groups it stands in. */
export function leavesOf(steps: readonly Step[], above: readonly Rows[] = []): Leaf[] {
  return steps.flatMap((step): Leaf[] => {
    const opacity = above.length ? [...above, ...step.opacity] : step.opacity;
    if (step.op === "group" || step.op === "instance") return leavesOf(step.steps, opacity);
    return [above.length ? { ...step, opacity } : step];
  });
}
