/** The objects of a scene by what is asked for: dials, objects by id, the children of what, and what is locked. */
import { computed, type Ref } from "vue";
import { dialThing } from "@/api/dials";
import { isCamera } from "@/api/kinds";
import type { DialThing, SceneHead, SceneObject, TroupeObject } from "@/api/types";

export function useSceneParts(head: Readonly<Ref<SceneHead | null>>, objects: Readonly<Ref<readonly TroupeObject[]>>) {
  const camera = computed(() => objects.value.find((thing) => isCamera(thing)) ?? null);
  /** The dials, as objects with one channel. */
  const dials = computed<readonly DialThing[]>(() => (head.value?.dials ?? []).map(dialThing));
  /** Objects by id, and dials by `dial:` and their id. */
  const byId = computed(
    () => new Map<string, SceneObject>([...objects.value, ...dials.value].map((thing) => [thing.id, thing])),
  );
  /** What an object is attached to, by its id. */
  const parentOf = (object: string): string | null => byId.value.get(object)?.parent ?? null;
  /** What hangs directly on each object, by its id, in drawing order. */
  const parts = computed(() => Map.groupBy(objects.value, (thing) => thing.parent ?? ""));
  /** Children of nothing, without the camera. */
  const wholes = computed(() => objects.value.filter((thing) => !thing.parent && !isCamera(thing)));
  /**
   * The objects that are locked against picking and moving in the picture: by themselves, or with their parent.
   */
  const locked = computed(() => {
    const found = new Set<string>();
    const lock = (id: string): void => {
      found.add(id);
      for (const part of parts.value.get(id) ?? []) lock(part.id);
    };
    for (const thing of objects.value) if (thing.locked && !found.has(thing.id)) lock(thing.id);
    return found;
  });

  return { camera, dials, byId, parentOf, parts, wholes, locked };
}
