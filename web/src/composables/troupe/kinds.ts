/** The kinds of objects that can be added, and what new ones look like. */
import { still } from "@/api/channels";
import { plainObject } from "@/api/plainObject";
import type { Channel, ShapeThing, TextShape, TroupeObject } from "@/api/types";
import type { IconName } from "@/components/common/VineIcon.vue";
import type { Point } from "@/geometry/matrix";

export interface Kind {
  readonly kind: string;
  readonly label: string;
  readonly icon: IconName;
}

export const KINDS: readonly Kind[] = [
  { kind: "ellipse", label: "Ellipse", icon: "ellipse" },
  { kind: "rectangle", label: "Rectangle", icon: "rectangle" },
  { kind: "polygon", label: "Polygon", icon: "polygon" },
  { kind: "star", label: "Star", icon: "star" },
  { kind: "line", label: "Line", icon: "line" },
  { kind: "text", label: "Text", icon: "text" },
  { kind: "outline", label: "Outline from SVG path…", icon: "outline" },
  { kind: "picture", label: "Picture or flipbook…", icon: "picture" },
  { kind: "file", label: "Drawing, table, sound or scene…", icon: "file" },
  { kind: "group", label: "Group", icon: "group" },
  { kind: "camera", label: "Camera", icon: "camera" },
  { kind: "inset", label: "Inset: a scene inside…", icon: "inset" },
  { kind: "element", label: "Ready element…", icon: "parade" },
  { kind: "figure", label: "Figure that walks…", icon: "figure" },
];

/** Colours of new objects in turn, so that neighbours differ. */
const COLOURS = [
  { hex: "#F2932B", name: "Orange" },
  { hex: "#3F8F63", name: "Green" },
  { hex: "#8A5FA8", name: "Violet" },
  { hex: "#3C86B5", name: "Blue" },
  { hex: "#D0365B", name: "Red" },
  { hex: "#B8862D", name: "Ochre" },
] as const;
/** Whether a name is one that a new text was given, and nobody chose. */
export const isGivenName = (name: string): boolean =>
  COLOURS.some((one) => name.replace(/ \d+$/, "") === `${one.name} text`);
const PLAIN_LINE = { cap: "round" as const, join: "round" as const, dash: [] as number[] };
const NEW_TEXT: TextShape = { type: "text", text: "Text", font: "figtree", weight: 600, align: "middle", wrap: null };
/** The colour and its name for the next object, by the number of existing ones. */
export const nextColour = (count: number): { readonly hex: string; readonly name: string } =>
  COLOURS[count % COLOURS.length] ?? COLOURS[0];

/** A new object at a place of the picture; `count`: how many objects there are already, by which it gets its colour. */
export function newObject(kind: string, id: string, place: Point, count = 0, pathData = ""): TroupeObject {
  const word = KINDS.find((one) => one.kind === kind)?.label.replace(/ from.*/, "") ?? "Object";
  const { hex, name: tint } = nextColour(count);
  const common = {
    ...plainObject(),
    id,
    // Until it is called something better, its colour tells it from others of its shape.
    name: kind === "group" ? word : `${tint} ${word.toLowerCase()}`,
  };
  const channels = { x: still(place.x), y: still(place.y) };
  if (kind === "group") return { ...common, kind: "group", channels };
  const paint: Record<string, Channel> = { [kind === "line" ? "stroke" : "fill"]: still(hex) };
  const shape = shapeOf(kind, pathData);
  return { ...common, kind: "shape", line: PLAIN_LINE, paints: {}, shape, channels: { ...channels, ...paint } };
}

function shapeOf(kind: string, pathData: string): ShapeThing["shape"] {
  if (kind === "outline") return { type: "outline", d: pathData, fill_rule: "nonzero" };
  return kind === "text" ? { ...NEW_TEXT } : { type: kind as "ellipse" };
}
