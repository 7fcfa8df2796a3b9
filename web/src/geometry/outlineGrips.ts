/** What of a rule on outlines can be taken hold of in the picture, in the space of the object it bends. */
import { readable } from "./frames";
import { angleBetween, difference, length, type Point, rounded } from "./matrix";
import type { RuleDrawing, RuleGrip } from "./ruleGrips";

/** What a grip needs to know of a rule on outlines. */
export interface OutlineGripped {
  readonly kind: string;
  readonly number: (name: string) => number;
  readonly word: (name: string) => string;
  /** left, top, right, bottom of the bent outline at rest. */
  readonly box: readonly [number, number, number, number];
  /** The point at a share of the outline that comes to the rule, and the share nearest to a point. */
  readonly along?: { readonly at: (share: number) => Point; readonly nearest: (to: Point) => number };
}

type Draw = (on: OutlineGripped) => RuleDrawing;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const between = (value: number, low: number, high: number): number => Math.min(Math.max(value, low), high);
/** Pixels that represent one wave where waves are pulled out. */
const A_WAVE = 6;
const BESIDE = 26;

/**
 * The middle line of a box in a direction: where it enters the box, its direction, its length, and half of what lies
 * across.
 */
function across({ box: [left, top, right, bottom], number }: OutlineGripped) {
  const angle = radians(number("direction"));
  const way = { x: Math.cos(angle), y: Math.sin(angle) };
  const [width, height] = [right - left, bottom - top];
  const long = Math.abs(way.x) * width + Math.abs(way.y) * height;
  const half = (Math.abs(way.y) * width + Math.abs(way.x) * height) / 2;
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const origin = { x: middle.x - (way.x * long) / 2, y: middle.y - (way.y * long) / 2 };
  /** The point so far along, and so far to the right of the way. */
  const put = (along: number, beside: number): Point => ({
    x: origin.x + along * way.x - beside * way.y,
    y: origin.y + along * way.y + beside * way.x,
  });
  const split = (p: Point): { along: number; beside: number } => {
    const by = difference(p, origin);
    return { along: by.x * way.x + by.y * way.y, beside: by.y * way.x - by.x * way.y };
  };
  return { way, long, half, put, split };
}

/**
 * A grip so far beyond an end of the middle line that turns its direction; rules have it at different places, so that
 * none hides another.
 */
function turning(on: OutlineGripped, beyond: number): RuleGrip {
  const { put, long } = across(on);
  const middle = put(long / 2, 0);
  const away = beyond < 0 ? -1 : 1;
  return {
    id: "direction",
    label: "Direction",
    says: `${readable(on.number("direction"), 0)}°`,
    at: put(beyond < 0 ? beyond : long + beyond, 0),
    drag: (to) => ({ direction: rounded(angleBetween({ x: away, y: 0 }, difference(to, middle)), 1) }),
  };
}

const ripple: Draw = (on) => {
  const [left, top, right, bottom] = on.box;
  const [amplitude, waves] = [on.number("amplitude"), on.number("waves")];
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const count: RuleGrip = {
    id: "waves",
    label: "Number of waves",
    says: `${readable(waves, 1)} waves`,
    at: { x: right + BESIDE + waves * A_WAVE, y: bottom },
    drag: (to) => ({ waves: Math.max(0, Math.round((to.x - right - BESIDE) / A_WAVE)) }),
  };
  const base = { x: right + BESIDE, y: bottom };
  if (on.word("goes") === "through") {
    const { put, split, long } = across(on);
    const height: RuleGrip = {
      id: "amplitude",
      label: "Height of the waves",
      says: `± ${readable(amplitude, 1)} px`,
      at: put(long, -amplitude),
      drag: (to) => ({ amplitude: rounded(-split(to).beside, 0.5) }),
    };
    return {
      lines: [
        [put(0, 0), put(long, 0)],
        [base, count.at],
      ],
      circles: [],
      grips: [height, count, turning(on, 90)],
    };
  }
  const height: RuleGrip = {
    id: "amplitude",
    label: "Height of the waves",
    says: `± ${readable(amplitude, 1)} px`,
    at: { x: middle.x, y: top - amplitude },
    drag: (to) => ({ amplitude: rounded(top - to.y, 0.5) }),
  };
  return {
    lines: [
      [{ x: middle.x, y: top }, height.at],
      [base, count.at],
    ],
    circles: [],
    grips: [height, count],
  };
};

const taper: Draw = (on) => {
  const { put, split, long, half } = across(on);
  const size = on.number("size");
  const end: RuleGrip = {
    id: "size",
    label: "Width of the tapered end",
    says: `× ${readable(size, 2)}`,
    at: put(long, -half * size),
    drag: (to) => ({ size: half ? rounded(between(-split(to).beside / half, -10, 20), 0.01) : size }),
  };
  return {
    lines: [
      [put(0, -half), end.at],
      [put(0, half), put(long, half * size)],
    ],
    circles: [],
    grips: [end, turning(on, 55)],
  };
};

const bend: Draw = (on) => {
  const { put, long } = across(on);
  const angle = on.number("angle");
  const held = { start: 0, end: 1 }[on.word("held")] ?? 0.5;
  const anchor = put(held * long, 0);
  /** The bent middle line at some length along. */
  const bent = (along: number): Point => {
    const from = along - held * long;
    const turn = radians(angle) / (long || 1);
    if (Math.abs(turn) < 1e-9) return put(along, 0);
    return put(held * long + Math.sin(turn * from) / turn, (1 - Math.cos(turn * from)) / turn);
  };
  // The end that is farther from what is held.
  const far = held === 1 ? 0 : 1;
  const share = far - held;
  const places = Array.from({ length: 13 }, (_, i) => bent((i / 12) * long));
  const tip: RuleGrip = {
    id: "angle",
    label: "Bend angle",
    says: `${readable(angle, 0)}°`,
    at: bent(far * long),
    drag: (to) => {
      const flat = difference(put(far * long, 0), anchor);
      // The chord of an arc turns half as far as its end.
      const chord = angleBetween(flat, difference(to, anchor));
      return { angle: rounded(between((2 * chord) / Math.abs(share), -720, 720), 1) * Math.sign(share) };
    },
  };
  return {
    lines: places.slice(1).map((p, i) => [places[i]!, p] as const),
    circles: [],
    grips: [tip, turning(on, -55)],
  };
};

const swirl: Draw = (on) => {
  const [left, top, right, bottom] = on.box;
  const home = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const middle = { x: home.x + on.number("x"), y: home.y + on.number("y") };
  const [radius, angle] = [on.number("radius"), on.number("angle")];
  const pointer = (degrees: number): Point => ({
    x: middle.x + (radius / 2) * Math.cos(radians(degrees)),
    y: middle.y + (radius / 2) * Math.sin(radians(degrees)),
  });
  return {
    lines: [[middle, pointer(angle)]],
    circles: [{ middle, radius }],
    grips: [
      {
        id: "middle",
        label: "Centre of the swirl",
        says: "",
        at: middle,
        drag: (to) => ({ x: rounded(to.x - home.x, 1), y: rounded(to.y - home.y, 1) }),
      },
      {
        id: "radius",
        label: "Radius of the swirl",
        says: `${readable(radius, 0)} px`,
        at: { x: middle.x, y: middle.y + radius },
        drag: (to) => ({ radius: rounded(Math.max(1, length(difference(to, middle))), 1) }),
      },
      {
        id: "angle",
        label: "Angle of the swirl",
        says: `${readable(angle, 0)}°`,
        at: pointer(angle),
        drag: (to) => ({
          angle: rounded(angle + angleBetween(difference(pointer(angle), middle), difference(to, middle)), 1),
        }),
      },
    ],
  };
};

const rough: Draw = (on) => {
  const [left, top, right] = on.box;
  const amplitude = on.number("amplitude");
  const base = { x: (left + right) / 2, y: top };
  const height: RuleGrip = {
    id: "amplitude",
    label: "Amplitude of the roughness",
    says: `± ${readable(amplitude, 1)} px`,
    at: { x: base.x, y: top - amplitude },
    drag: (to) => ({ amplitude: rounded(Math.max(0, top - to.y), 0.5) }),
  };
  return { lines: [[base, height.at]], circles: [], grips: [height] };
};

const drawOn: Draw = (on) => {
  const along = on.along;
  if (!along) return { lines: [], circles: [], grips: [] };
  const shift = on.number("shift");
  const whole = (share: number): number => ((share % 1) + 1) % 1;
  const grip = (name: "from" | "to", label: string): RuleGrip => {
    const share = on.number(name);
    return {
      id: name,
      label,
      says: `${name} ${readable(share * 100, 0)} %`,
      // The end of the way is not its beginning.
      at: along.at(share === 1 && !shift ? 1 : whole(share + shift)),
      drag: (to) => ({
        [name]: rounded(between(shift ? whole(along.nearest(to) - shift) : along.nearest(to), 0, 1), 0.005),
      }),
    };
  };
  return {
    lines: [],
    circles: [],
    grips: [grip("from", "Start of the drawn part"), grip("to", "End of the drawn part")],
  };
};

const round: Draw = (on) => {
  const [left, top] = on.box;
  const radius = on.number("radius");
  const corner = { x: left, y: top };
  return {
    lines: [[corner, { x: left + radius, y: top }]],
    circles: [],
    grips: [
      {
        id: "radius",
        label: "Corner radius",
        says: `${readable(radius, 0)} px`,
        at: { x: left + radius, y: top },
        drag: (to) => ({ radius: rounded(Math.max(0, to.x - left), 0.5) }),
      },
    ],
  };
};

const DRAWN: Readonly<Record<string, Draw>> = { ripple, taper, bend, swirl, rough, "draw-on": drawOn, round };

/** What is drawn of a rule on outlines. */
export const outlineDrawingOf = (on: OutlineGripped): RuleDrawing =>
  DRAWN[on.kind]?.(on) ?? { lines: [], circles: [], grips: [] };
