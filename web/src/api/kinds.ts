/** What kind an object is of, which says what it has. Nothing else on the page tells kinds apart by their names. */
import type {
  CameraThing,
  DialThing,
  FigureObject,
  GroupThing,
  InsetThing,
  ParadeObject,
  PictureThing,
  SceneObject,
  ShapeThing,
} from "./types";

/** Anything that says what kind it is of, or nothing at all. */
type Maybe = { readonly kind: string } | null | undefined;

export const isShape = (thing: Maybe): thing is ShapeThing => thing?.kind === "shape";
export const isFigure = (thing: Maybe): thing is FigureObject => thing?.kind === "figure";
export const isParade = (thing: Maybe): thing is ParadeObject => thing?.kind === "parade";
export const isInset = (thing: Maybe): thing is InsetThing => thing?.kind === "inset";
export const isPicture = (thing: Maybe): thing is PictureThing => thing?.kind === "picture";
export const isDial = (thing: Maybe): thing is DialThing => thing?.kind === "dial";
export const isCamera = (thing: Maybe): thing is CameraThing => thing?.kind === "camera";
export const isGroup = (thing: Maybe): thing is GroupThing => thing?.kind === "group";

/** What it is called among kinds: shapes by what they are drawn as. */
export const kindOf = (thing: SceneObject): string => (isShape(thing) ? thing.shape.type : thing.kind);
