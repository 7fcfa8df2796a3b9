/**
 * What of a rule can be taken hold of in the picture: where it lies, in the space its object moves in, and what
 * dragging it means.
 */
import { readable } from "./frames";
import { angleBetween, difference, length, type Point, rounded } from "./matrix";

/** What a grip needs to know of a rule and of the object it is on. */
export interface Gripped {
  readonly kind: string;
  /** A number setting at the playhead. */
  readonly number: (name: string) => number;
  readonly word: (name: string) => string;
  readonly frame: number;
  readonly fps: number;
  readonly last: number;
  /** Where the object is at a frame, its rotation there, and its stretch. */
  readonly place: (frame: number) => Point;
  readonly rotation: (frame: number) => number;
  /** Frames of keys of its travel, in order. */
  readonly keys: readonly number[];
}

export interface RuleGrip {
  readonly id: string;
  readonly label: string;
  readonly at: Point;
  /** What it stands at now, to be read beside it. */
  readonly says: string;
  /** The settings it represents when it is dragged to a point. */
  readonly drag: (to: Point) => Readonly<Record<string, number>>;
}

export interface RuleDrawing {
  readonly lines: readonly (readonly [Point, Point])[];
  readonly circles: readonly { readonly middle: Point; readonly radius: number }[];
  readonly grips: readonly RuleGrip[];
}

const NOTHING: RuleDrawing = { lines: [], circles: [], grips: [] };
const POINTER = 70;
const clamped = (value: number, low: number, high: number): number => Math.min(Math.max(value, low), high);
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

type Draw = (on: Gripped) => RuleDrawing;

const bounce: Draw = (on) => {
  const [floor, start, keep] = [on.number("floor"), on.number("start"), on.number("keep")];
  const from = on.place(clamped(Math.round(start), 0, on.last));
  const height = floor - from.y;
  const gravity = on.number("gravity");
  const fall = gravity > 0 ? on.fps * Math.sqrt((2 * Math.abs(height)) / gravity) : on.number("fall");
  const apexAt = on.place(clamped(Math.round(start + fall + fall * Math.sqrt(keep)), 0, on.last)).x;
  const here = on.place(on.frame).x;
  const apex: Point = { x: apexAt, y: floor - height * keep };
  return {
    lines: [
      [
        { x: Math.min(here, from.x, apexAt) - 160, y: floor },
        { x: Math.max(here, from.x, apexAt) + 160, y: floor },
      ],
      [
        { x: apexAt - 26, y: apex.y },
        { x: apexAt + 26, y: apex.y },
      ],
    ],
    circles: [],
    grips: [
      {
        id: "floor",
        label: "Floor",
        says: `floor ${readable(floor, 0)}`,
        at: { x: Math.max(here, from.x, apexAt) + 130, y: floor },
        drag: (to) => ({ floor: rounded(to.y, 1) }),
      },
      ...(height
        ? [
            {
              id: "apex",
              label: "Height of the next bounce",
              says: `keeps ${readable(keep * 100, 0)} %`,
              at: apex,
              drag: (to: Point) => ({ keep: rounded(clamped((floor - to.y) / height, 0, 0.98), 0.005) }),
            },
          ]
        : []),
    ],
  };
};

const pendulum: Draw = (on) => {
  const pivot = on.place(on.frame);
  const [long, angle] = [on.number("length"), on.number("angle")];
  const bob: Point = { x: pivot.x - long * Math.sin(radians(angle)), y: pivot.y + long * Math.cos(radians(angle)) };
  return {
    lines: [
      [pivot, bob],
      [pivot, { x: pivot.x, y: pivot.y + long }],
    ],
    circles: [],
    grips: [
      {
        id: "bob",
        label: "Start angle and length",
        says: `${readable(angle, 0)}° · ${readable(long, 0)} px`,
        at: bob,
        drag: (to) => {
          const arm = difference(to, pivot);
          return {
            angle: rounded(clamped(angleBetween({ x: 0, y: 1 }, arm), -179, 179), 1),
            length: rounded(Math.max(1, length(arm)), 1),
          };
        },
      },
    ],
  };
};

const arc: Draw = (on) => {
  const n = clamped(
    on.keys.findLastIndex((frame) => frame <= on.frame),
    0,
    on.keys.length - 2,
  );
  const [first, second] = [on.keys[n], on.keys[n + 1]];
  if (first === undefined || second === undefined) return NOTHING;
  const [a, b] = [on.place(clamped(Math.round(first), 0, on.last)), on.place(clamped(Math.round(second), 0, on.last))];
  const way = difference(b, a);
  const distance = way.x ** 2 + way.y ** 2;
  if (!distance) return NOTHING;
  const side = on.word("side") === "right" ? -1 : 1;
  const bulge = on.number("bulge") * side;
  const middle: Point = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  return {
    lines: [[a, b]],
    circles: [],
    grips: [
      {
        id: "middle",
        label: "Bulge of the arc",
        says: readable(on.number("bulge"), 2),
        at: { x: middle.x + bulge * way.y, y: middle.y - bulge * way.x },
        drag: (to) => {
          const arm = difference(to, middle);
          return { bulge: rounded(clamped((side * (arm.x * way.y - arm.y * way.x)) / distance, -10, 10), 0.01) };
        },
      },
    ],
  };
};

const roll: Draw = (on) => {
  const middle = on.place(on.frame);
  const radius = on.number("radius");
  const turned = radians(on.rotation(on.frame));
  return {
    lines: [[middle, { x: middle.x + radius * Math.cos(turned), y: middle.y + radius * Math.sin(turned) }]],
    circles: [{ middle, radius }],
    grips: [
      {
        id: "radius",
        label: "Radius it rolls on",
        says: `radius ${readable(radius, 0)}`,
        at: { x: middle.x, y: middle.y + radius },
        drag: (to) => ({ radius: rounded(Math.max(1, length(difference(to, middle))), 1) }),
      },
    ],
  };
};

const face: Draw = (on) => {
  const middle = on.place(on.frame);
  const turned = radians(on.rotation(on.frame));
  const tip: Point = { x: middle.x + POINTER * Math.cos(turned), y: middle.y + POINTER * Math.sin(turned) };
  const offset = on.number("offset");
  return {
    lines: [[middle, tip]],
    circles: [],
    grips: [
      {
        id: "front",
        label: "Front direction",
        says: `${readable(offset, 0)}°`,
        at: tip,
        drag: (to) => ({ offset: rounded(offset + angleBetween(difference(tip, middle), difference(to, middle)), 1) }),
      },
    ],
  };
};

const DRAWN: Readonly<Record<string, Draw>> = { bounce, pendulum, arc, roll, face };

/** What is drawn of a rule; nothing for rules that have no place in the picture. */
export const drawingOf = (on: Gripped): RuleDrawing => DRAWN[on.kind]?.(on) ?? NOTHING;
