/** Putting objects in, copying them, hanging them on each other, and taking them out. */
import { isDial } from "@/api/dials";
import { still } from "@/api/channels";
import { newId } from "@/api/ids";
import type { TroupeObject, Channel, Edit, ShapeThing, TextShape } from "@/api/types";
import type { IconName } from "@/components/common/VineIcon.vue";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useDeleting } from "@/stores/deleting";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

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

/** Colours that new things take in turn, so that two of them can be told apart. */
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
/** The colour, with its name, of the next new thing where there are so many already. */
export const nextColour = (count: number): { readonly hex: string; readonly name: string } =>
  COLOURS[count % COLOURS.length] ?? COLOURS[0];

export function useTroupe() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const deleting = useDeleting();

  /** Add a new object in the middle of the picture and begin to name it. */
  async function add(kind: string, pathData = ""): Promise<void> {
    if (!scene.head) return;
    const id = newId();
    if (kind === "camera") {
      if (scene.camera) selection.pick(scene.camera.id);
      else if (await scene.edit([{ edit: "add-camera", id, name: "Camera" }])) {
        scene.wholeStage = true;
        selection.pick(id);
      }
      return;
    }
    const [width, height] = scene.head.size;
    const place = { x: still(width / 2), y: still(height / 2) };
    const word = KINDS.find((one) => one.kind === kind)?.label.replace(/ from.*/, "") ?? "Object";
    const { hex: colour, name: tint } = nextColour(scene.objects.length);
    // Until it is called something better, its colour tells it from others of its shape.
    const name = kind === "group" ? word : `${tint} ${word.toLowerCase()}`;
    const common = {
      id,
      name,
      parent: null,
      shown: true,
      pinned: false,
      blurred: true,
      locked: false,
      tag: null,
      blend: "normal" as const,
      span: {},
      rules: [],
    };
    const paint: Record<string, Channel> = { [kind === "line" ? "stroke" : "fill"]: still(colour) };
    const shape: ShapeThing["shape"] =
      kind === "outline"
        ? { type: "outline", d: pathData, fill_rule: "nonzero" }
        : kind === "text"
          ? { ...NEW_TEXT }
          : { type: kind as "ellipse" };
    const object: TroupeObject =
      kind === "group"
        ? { ...common, kind: "group", channels: place }
        : { ...common, kind: "shape", line: PLAIN_LINE, paints: {}, shape, channels: { ...place, ...paint } };
    if (await scene.edit([{ edit: "add-object", object }])) {
      selection.pick(id);
      // A text is written first; its name follows what is written.
      if (kind === "text") selection.writing = id;
      else selection.renaming = id;
    }
  }

  /** Begin a figure in the lower part of the picture, standing on its origin. */
  async function addFigure(starter: string, name: string, height: number, drawn: boolean): Promise<void> {
    if (!scene.head) return;
    const id = newId();
    const [wide, high] = scene.head.size;
    if (
      await scene.edit([
        {
          edit: "add-figure",
          id,
          name,
          starter,
          x: Math.round(wide * 0.25),
          y: Math.round(high * 0.82),
          height,
          drawn,
        },
      ])
    )
      selection.pick(id);
  }

  /** Copy an object with all that hangs on it; the copy lies just beside it in time and place. */
  const duplicate = (id: string): Promise<void> => duplicateAll([id]);

  /** The same of several at once, in one step. */
  async function duplicateAll(all: readonly string[]): Promise<void> {
    const whole = all.filter((id) => !isDial(id));
    if (!whole.length) return;
    const ids = new Map(whole.flatMap((id) => withParts(id, scene.parts)).map((part) => [part, newId()]));
    const edits = scene.objects
      .filter((one) => ids.has(one.id))
      .map((one): Edit => {
        const parent = one.parent ? (ids.get(one.parent) ?? one.parent) : null;
        return { edit: "add-object", object: { ...one, id: ids.get(one.id)!, parent } };
      });
    // Parents must be there before what hangs on them.
    edits.sort((a, b) => depthOf(a) - depthOf(b));
    if (await scene.edit(edits)) selection.pickAll(whole.flatMap((id) => ids.get(id) ?? []));

    function depthOf(edit: Edit): number {
      let depth = 0;
      if (edit.edit !== "add-object") return depth;
      const originals = new Map([...ids].map(([from, to]) => [to, from]));
      for (let at = originals.get(edit.object.id); at && ids.has(at); at = scene.byId.get(at)?.parent ?? undefined)
        depth += 1;
      return depth;
    }
  }

  /** Take an object out, with all that hangs on it, or a dial. What others read is asked about first. */
  async function remove(id: string): Promise<void> {
    const thing = scene.byId.get(id);
    if (thing) await deleting.ask(thing);
  }

  const hangOn = (id: string, parent: string | null) =>
    scene.edit([{ edit: "reparent-object", id, parent, keep_at: playback.frame }]);
  const pin = (id: string, pinned: boolean) => scene.edit([{ edit: "pin-object", id, pinned }]);
  const show = (id: string, shown: boolean) => scene.edit([{ edit: "show-object", id, shown }]);

  const lock = (ids: readonly string[], locked: boolean) =>
    scene.edit([{ edit: "lock-objects", objects: [...ids], locked }]);
  const tag = (ids: readonly string[], colour: string | null) =>
    scene.edit([{ edit: "tag-objects", objects: [...ids], tag: colour }]);

  /** Move objects, with all that hangs on them, within the drawing order. */
  const order = (
    ids: readonly string[],
    to: Extract<Edit, { edit: "order-objects" }>["to"],
    other: string | null = null,
  ) => scene.attempt([{ edit: "order-objects", objects: [...ids], to, other }]);

  /** Pick the next object of the troupe, towards the back (1) or the front (−1). */
  function pickNext(by: 1 | -1): void {
    const ids = scene.objects.map((one) => one.id).reverse();
    const at = selection.objectId ? ids.indexOf(selection.objectId) : by > 0 ? -1 : ids.length;
    selection.pick(ids[(at + by + ids.length) % ids.length] ?? null);
  }

  return { add, addFigure, duplicate, duplicateAll, remove, hangOn, pin, show, lock, tag, order, pickNext };
}
