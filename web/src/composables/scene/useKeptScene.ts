/** The scene as the server keeps it, as far as the page has heard: its objects, its motion, what can be undone. */
import { computed, ref, shallowRef } from "vue";
import type { ChangedMotion } from "@/api/client";
import { type Motion, readMotion } from "@/api/motion";
import type { HistoryState, SceneHead, SceneState, TroupeObject } from "@/api/types";
import { useSceneParts } from "@/composables/scene/useSceneParts";

export type KeptScene = ReturnType<typeof useKeptScene>;

export function useKeptScene() {
  const id = ref<string | null>(null);
  const revision = ref(0);
  const history = ref<HistoryState>({ undo: null, redo: null });
  const head = shallowRef<SceneHead | null>(null);
  const objects = shallowRef<readonly TroupeObject[]>([]);
  const kept = shallowRef<Motion | null>(null);
  /** The scene that this one is inside of, if it is. */
  const whole = shallowRef<SceneState["whole"]>(null);
  const parts = useSceneParts(head, objects);
  const ids = computed<ReadonlySet<string>>(() => new Set(parts.byId.value.keys()));

  /** Show a scene unchanged read. */
  function show(sceneId: string, found: SceneState, message: Uint8Array): void {
    id.value = sceneId;
    revision.value = found.revision;
    history.value = found.history;
    const { objects: shown, ...rest } = found.scene;
    head.value = {
      ...rest,
      own_fonts: found.own_fonts ?? [],
      inner: found.inner ?? [],
      blur: found.scene.blur ?? null,
      beat: found.scene.beat ?? null,
      pictures_shown: found.pictures_shown ?? {},
    };
    whole.value = found.whole ?? null;
    objects.value = shown;
    kept.value = readMotion(message);
  }

  /** Take up a change; false if there is no scene, or it is no news. */
  function take({ changed, motion }: ChangedMotion): boolean {
    if (!id.value || changed.revision === revision.value) return false;
    const fresh = new Map(changed.objects.map((thing) => [thing.id, thing]));
    const before = new Map(objects.value.map((thing) => [thing.id, thing]));
    head.value = changed.head;
    objects.value = changed.order.flatMap((object) => fresh.get(object) ?? before.get(object) ?? []);
    revision.value = changed.revision;
    history.value = changed.history;
    kept.value = readMotion(motion, kept.value ?? undefined);
    return true;
  }

  /** Hold no scene any more. */
  function clear(): void {
    id.value = null;
    head.value = null;
    whole.value = null;
    objects.value = [];
    kept.value = null;
  }

  return { id, revision, history, head, objects, kept, whole, ...parts, ids, show, take, clear };
}
