/**
 * A scene on the page for unit tests, without a service: what is asked of it is written down, and nothing is answered.
 */
import { createPinia, setActivePinia } from "pinia";
import { still } from "@/api/channels";
import type { Motion, Rows } from "@/api/motion";
import { plainObject } from "@/api/plainObject";
import type { Channel, ChannelWords, Dial, Edit, Key, SceneHead, TroupeObject, Vocabulary } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";
import { HEAD } from "@/testing/head";

type Shape = "ellipse" | "text" | "outline";

/** A channel with keys, from frames and values. */
export const keyed = (...stops: readonly (readonly [number, Key["value"]])[]): Channel => ({
  ...still(0),
  keys: stops.map(([frame, value]) => ({ frame, value, ease: "linear" }) as Key),
});

/** A drawn object, or a group, called by its id with a capital. */
export function thing(
  id: string,
  channels: Record<string, Channel> = {},
  more: Partial<TroupeObject> & { type?: Shape; text?: string } = {},
): TroupeObject {
  const { type = "ellipse", text = "Mail", ...rest } = more;
  const name = id[0]!.toUpperCase() + id.slice(1);
  const shape = type === "text" ? { type, text, font: "figtree", weight: 400, align: "middle", wrap: null } : { type };
  const line = { cap: "round", join: "round", dash: [] };
  return { ...plainObject(), id, name, kind: "shape", shape, line, paints: {}, channels, ...rest } as TroupeObject;
}

/** A channel in words. */
function words(name: string, row: string, label: string, more: Partial<ChannelWords> = {}): ChannelWords {
  const plain = { family: "travel", unit: "px", default: 0, low: null, high: null, step: 1, shown: 1, about: "" };
  return { name, row, label, ...plain, ...more } as ChannelWords;
}
const COMMON: readonly ChannelWords[] = [
  words("path", "Travel", "path", { unit: "point", default: [0, 0] }),
  words("x", "Travel", "x"),
  words("y", "Travel", "y"),
  words("rotation", "Rotation", "turn", { family: "turn", unit: "°" }),
  words("scale.x", "Size", "wide", { family: "size", unit: "%", step: 0.01, shown: 100, default: 1 }),
  words("scale.y", "Size", "high", { family: "size", unit: "%", step: 0.01, shown: 100, default: 1 }),
  words("opacity", "Opacity", "opacity", { family: "look", unit: "%", step: 0.01, shown: 100, default: 1 }),
  words("outline", "Outline", "outline", { family: "size", unit: "outline" }),
];
const PAINT = [words("fill", "Fill", "fill", { family: "look", unit: "colour", default: "#F2932B" })];
const SETTING = {
  unit: "as the channel",
  default: 10,
  low: null,
  high: null,
  holds: "number",
  names: null,
  choices: [],
};

/** As much of the vocabulary as tests need. */
export const VOCABULARY = {
  kinds: [{ name: "shape", icon: "ellipse", is_whole: false, is_drawn: true }],
  channels: {
    ellipse: [...COMMON, ...PAINT],
    outline: [...COMMON, ...PAINT],
    text: [...COMMON, words("text", "Words", "words", { family: "look", unit: "words" }), ...PAINT],
    group: COMMON,
  },
  feels: [{ name: "slow-in", label: "Slow in", about: "", curve: [] }],
  ends: [],
  gradients: { fill: [], stroke: [] },
  rules: [
    {
      kind: "oscillator",
      label: "Oscillator",
      of: "number",
      acts: [],
      modes: ["add", "multiply"],
      summary: "{amplitude} · {frequency} · every {period|frequency}",
      settings: [
        { ...SETTING, name: "amplitude", label: "amplitude", about: "" },
        { ...SETTING, name: "frequency", label: "frequency", about: "", unit: "Hz", default: 1 },
        { ...SETTING, name: "seed", label: "seed", about: "", unit: "", default: 0 },
      ],
    },
    {
      kind: "tint",
      label: "Tint",
      of: "colour",
      acts: [],
      modes: [],
      summary: "to {dial}",
      settings: [{ ...SETTING, name: "dial", label: "dial", about: "", unit: "", default: null, names: "dial" }],
    },
  ],
} as unknown as Vocabulary;

/** A dial of the scene. */
export const dial = (id: string, base: number, more: Partial<Dial> = {}): Dial =>
  ({
    id,
    name: id[0]!.toUpperCase() + id.slice(1),
    channel: still(base),
    unit: "",
    low: null,
    high: null,
    ...more,
  }) as Dial;

/** Values of one channel, a row a frame or a single one for all. */
export const rows = (...values: readonly number[]): Rows =>
  ({ data: Float32Array.from(values), rows: values.length, width: 1 }) as Rows;

/**
 * Put a scene of some objects on the page. What edits and looks it is asked for is in `edits` and `looks`, the last one
 * last.
 */
export function staged(objects: readonly TroupeObject[], head: Partial<SceneHead> = {}) {
  setActivePinia(createPinia());
  const scene = useScene();
  const [edits, looks]: [Edit[][], Edit[][]] = [[], []];
  scene.id = "s1";
  scene.head = {
    ...HEAD,
    sounds: [],
    markers: [],
    beat: null,
    ...head,
  } as unknown as SceneHead;
  scene.objects = objects;
  const accepted = async (made: Edit[]): Promise<boolean> => (edits.push(made), true);
  Object.assign(scene, {
    edit: accepted,
    attempt: async (made: Edit[]): Promise<null> => (edits.push(made), null),
    undo: async () => void edits.push([]),
    lookAt: async (made: Edit[]) => void looks.push(made),
    letGo: () => void looks.push([]),
  });
  useVocabulary().words = VOCABULARY;
  return { scene, selection: useSelection(), edits, looks };
}

/** What baked motion says of the scene. */
const MOTION = { revision: 0, length: HEAD.length, fps: HEAD.fps, size: HEAD.size };

/** Let the page know of baked values: of each object its channels. */
export function baked(channels: Record<string, Record<string, Rows>>): void {
  const objects = new Map(
    Object.entries(channels).map(([id, own]) => [id, { channels: own, turns: {}, contacts: [] }] as const),
  );
  useScene().kept = { ...MOTION, objects } as unknown as Motion;
}

/**
 * Let the page know where some objects lie, each a box of the picture about its pivot, and of further channels they
 * have.
 */
export function laid(
  boxes: Record<string, readonly [x: number, y: number, width: number, height: number]>,
  channels: Record<string, Record<string, Rows>> = {},
): void {
  const wide = (...values: readonly number[]): Rows => ({
    data: Float32Array.from(values),
    rows: 1,
    width: values.length,
  });
  const objects = new Map(
    Object.entries(boxes).map(([id, [x, y, w, h]]) => {
      const bounds = [-w / 2, -h / 2, w / 2, h / 2] as const;
      const outline = { which: Uint16Array.of(0), outline: () => ({ bounds }) };
      const own = {
        x: rows(x),
        y: rows(y),
        rotation: rows(0),
        "scale.x": rows(1),
        "scale.y": rows(1),
        ...channels[id],
      };
      const where = { view: wide(1, 0, 0, 1, x, y), place: wide(x, y), middle: wide(x, y), fade: rows(1) };
      return [id, { ...where, outline, channels: own, turns: {}, contacts: [], bones: {} }] as const;
    }),
  );
  useScene().kept = {
    ...MOTION,
    hidden: new Set(),
    steps: [],
    stepData: [],
    order: Object.keys(boxes),
    objects,
  } as unknown as Motion;
}
