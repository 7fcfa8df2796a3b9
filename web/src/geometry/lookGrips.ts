/** What of a rule on a look can be taken hold of in the picture, in the space of the scene. */
import { readable } from "./frames";
import { difference, length, type Point, rounded } from "./matrix";
import type { RuleDrawing, RuleGrip } from "./ruleGrips";

/** What a grip needs to know of a rule on a look. */
export interface LookGripped {
  readonly kind: string;
  readonly number: (name: string) => number;
  readonly word: (name: string) => string;
  /** Where the object's pivot is. */
  readonly pivot: Point;
  /** The middle and the right edge of the box: of the object, or of what masks it. */
  readonly edges: { readonly middle: Point; readonly right: Point } | null;
  /** How many rules on the look come before it: their grips lie one below the other. */
  readonly nth: number;
  /** How many px of the scene one of the screen is. */
  readonly px: number;
}

const NOTHING: RuleDrawing = { lines: [], circles: [], grips: [] };
/** How far apart a grip and what it represents lie where that is next to nothing: a hand finds it beside the object. */
const AWAY = 24;
const HALF = 0.5;
/** How far apart the grips of two rules are on the screen, px. */
const BELOW = 22;

type Draw = (on: LookGripped) => RuleDrawing;

const shadow: Draw = (on) => {
  const from = on.edges?.middle ?? on.pivot;
  const [dx, dy] = [on.number("dx"), on.number("dy")];
  const at = { x: from.x + dx, y: from.y + dy };
  return {
    lines: [[from, at]],
    circles: [],
    grips: [
      {
        id: "shadow",
        label: "Direction of the shadow",
        says: "",
        at,
        drag: (to: Point) => ({ dx: rounded(to.x - from.x, HALF), dy: rounded(to.y - from.y, HALF) }),
      },
      softness(on, "blur", "Blur of the shadow", { x: dx, y: dy }),
    ].flatMap((one) => one ?? []),
  };
};

/** A grip beside the right edge of the box, as far from it as a blur is large. */
function softness(on: LookGripped, name: string, label: string, by: Point = { x: 0, y: 0 }): RuleGrip | null {
  if (!on.edges) return null;
  const edge = { x: on.edges.right.x + by.x + AWAY, y: on.edges.right.y + by.y + on.nth * BELOW * on.px };
  const size = on.number(name);
  return {
    id: name,
    label,
    says: `${readable(size, 1)} px`,
    at: { x: edge.x + size, y: edge.y },
    drag: (to) => ({ [name]: rounded(Math.min(500, Math.max(0, to.x - edge.x)), HALF) }),
  };
}

const soft =
  (name: string, label: string): Draw =>
  (on) => {
    const grip = softness(on, name, label);
    if (!grip || !on.edges) return NOTHING;
    return { lines: [[{ x: on.edges.right.x, y: grip.at.y }, grip.at]], circles: [], grips: [grip] };
  };

const fringe: Draw = (on) => {
  const distance = on.number("distance");
  const outward = on.word("way") === "outward";
  const angle = outward ? 0 : (on.number("angle") * Math.PI) / 180;
  const from = on.pivot;
  // Outward, the distance is that at 100 px from the middle.
  const reach = (outward ? 100 : AWAY) + distance;
  const at = { x: from.x + reach * Math.cos(angle), y: from.y + reach * Math.sin(angle) };
  return {
    lines: [[from, at]],
    circles: outward ? [{ middle: from, radius: 100 }] : [],
    grips: [
      {
        id: "fringe",
        label: outward ? "Colour shift at 100 px from the centre" : "Distance and direction of the red shift",
        says: `${readable(distance, 1)} px`,
        at,
        drag: (to): Readonly<Record<string, number>> => {
          const arm = difference(to, from);
          if (outward) return { distance: rounded(length(arm) - 100, HALF) };
          const turned = rounded((Math.atan2(arm.y, arm.x) * 180) / Math.PI, 1);
          return { distance: rounded(Math.max(0, length(arm) - AWAY), HALF), angle: turned };
        },
      },
    ],
  };
};

const DRAWN: Readonly<Record<string, Draw>> = {
  shadow,
  fringe,
  glow: soft("size", "Reach of the glow"),
  blur: soft("size", "How soft it is"),
  mask: soft("feather", "Feather of the mask"),
};

/** What is drawn of a rule on a look; nothing for those that have no place in the picture. */
export const lookDrawingOf = (on: LookGripped): RuleDrawing => DRAWN[on.kind]?.(on) ?? NOTHING;
