/** Which objects are picked: one whose values are shown, and others together with it. */
import { computed, ref, type ShallowRef, shallowRef, watch } from "vue";
import { isDial } from "@/api/kinds";
import type { Point } from "@/geometry/matrix";
import { toggled } from "@/geometry/sets";
import type { useScene } from "@/stores/scene";

type SceneStore = ReturnType<typeof useScene>;

/** `beforePick` is called with the object about to be selected, and whether selected keys are kept. */
export function usePickedThings(scene: SceneStore, beforePick: (id: string | null, keepKeys: boolean) => void) {
  const objectId = ref<string | null>(null);
  /** What is picked together with it. */
  const also: ShallowRef<ReadonlySet<string>> = shallowRef(new Set<string>());
  /**
   * What several picked ones are turned and sized about, px of the picture; null for the middle of the box around them.
   */
  const commonPivot = shallowRef<Point | null>(null);

  const thing = computed(() => scene.byId.get(objectId.value ?? "") ?? null);
  /** The picked object, where it is one of the troupe and no dial. */
  const object = computed(() => (thing.value && !isDial(thing.value) ? thing.value : null));
  /** All picked objects of the troupe, the one whose values are shown first. */
  const picked = computed(() =>
    [objectId.value, ...also.value].flatMap((id) => {
      const one = id ? scene.byId.get(id) : undefined;
      return one && !isDial(one) ? [one.id] : [];
    }),
  );
  const several = computed(() => picked.value.length > 1);
  /** Those picked together with the one whose values are shown first. */
  const others = computed(() => picked.value.slice(1).flatMap((id) => scene.byId.get(id) ?? []));
  watch(
    () => picked.value.join(" "),
    () => (commonPivot.value = null),
  );

  /** What was picked before what is picked now. */
  let pickedBefore: readonly string[] = [];
  // Undo may take away what is picked, such as a copy that was built from something: that is picked again then.
  scene.$onAction(({ name, after }) => {
    if ((name !== "undo" && name !== "redo") || !picked.value.length) return;
    after(() => {
      if (!picked.value.length) pickAll(pickedBefore.filter((id) => scene.byId.has(id)));
    });
  });

  /** Pick an object; picked keys are released unless they are to be kept. */
  function pick(id: string | null, keepKeys = false): void {
    if (id !== objectId.value && picked.value.length) pickedBefore = picked.value;
    beforePick(id, keepKeys);
    objectId.value = id;
    if (also.value.size) also.value = new Set();
  }

  /** Pick an object together with those that are picked, or released it alone. */
  function toggle(id: string): void {
    if (objectId.value === null || isDial(scene.byId.get(objectId.value))) pick(id);
    else if (id === objectId.value) pickAll([...also.value]);
    else also.value = toggled(also.value, id);
  }

  /** Pick some objects together. */
  function pickAll(ids: readonly string[]): void {
    const [first, ...rest] = ids;
    pick(first ?? null);
    also.value = new Set(rest);
  }

  /** Pick nothing, and forget what was picked before. */
  function pickNothing(): void {
    objectId.value = null;
    also.value = new Set();
    pickedBefore = [];
  }

  return { objectId, also, commonPivot, thing, object, picked, several, others, pick, toggle, pickAll, pickNothing };
}
