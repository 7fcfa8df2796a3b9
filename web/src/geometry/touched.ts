/**
 * What a change of a scene touched, to tell whether edits that were thought for an earlier version still mean what they
 * meant.
 */
import type { Changed, SceneHead } from "@/api/types";

/** Stands for the scene itself: its name, size, length, rate and background. */
export const SCENE_ITSELF = "";

interface Version {
  readonly head: SceneHead;
  readonly objects: readonly { readonly id: string }[];
}

/** The ids of the objects and dials that differ after a change, those that came and went too. */
export function touchedBy(before: Version, changed: Changed): ReadonlySet<string> {
  const touched = new Set(changed.objects.map((thing) => thing.id));
  const now = new Set(changed.order);
  for (const thing of before.objects) if (!now.has(thing.id)) touched.add(thing.id);
  const dials = new Map(before.head.dials.map((dial) => [dial.id, JSON.stringify(dial)]));
  for (const dial of changed.head.dials) {
    if (dials.get(dial.id) !== JSON.stringify(dial)) touched.add(`dial:${dial.id}`);
    dials.delete(dial.id);
  }
  for (const gone of dials.keys()) touched.add(`dial:${gone}`);
  if (itself(before.head) !== itself(changed.head)) touched.add(SCENE_ITSELF);
  return touched;
}

const itself = ({ name, fps, length, size, background }: SceneHead): string =>
  JSON.stringify([name, fps, length, size, background]);

/**
 * Whether edits, or parts that are brought back, are of something among these. What names no object is of the scene
 * itself.
 */
export function concern(edits: readonly object[], touched: ReadonlySet<string>, known: ReadonlySet<string>): boolean {
  const named = [...texts(edits)].filter((text) => known.has(text) || touched.has(text));
  return named.length ? named.some((id) => touched.has(id)) : touched.has(SCENE_ITSELF);
}

function* texts(data: unknown): Generator<string> {
  if (typeof data === "string") yield data;
  else if (data && typeof data === "object")
    for (const [name, part] of Object.entries(data)) {
      yield name;
      yield* texts(part);
    }
}
