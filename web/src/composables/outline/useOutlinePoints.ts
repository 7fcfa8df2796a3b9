/** The points of the picked object's outline: as they are kept, and as a hand that drags them shows them. */
import { computed, ref, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import { isShape } from "@/api/kinds";
import type { OutlinePoints, SceneObject } from "@/api/types";
import { useNewest } from "@/composables/useNewest";
import { IDENTITY, type Matrix, type Point } from "@/geometry/matrix";
import { movedPoint, numbered, type Side, withHandleMoved } from "@/geometry/numberedPoints";
import { viewOf } from "@/picture/boxes";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Whether an object has points of its own. */
export const hasPoints = (thing: SceneObject | null | undefined): boolean =>
  isShape(thing) && thing.shape.type === "outline";

/** How far a drag has moved the picked points, or one handle. */
export interface Pull {
  readonly by: Point;
  readonly handle: { readonly number: number; readonly side: Side; readonly broken: boolean } | null;
}

export function useOutlinePoints() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const outline = useOutline();

  /** The object whose points are edited. */
  const thing = computed(() => (selection.tool === "points" && hasPoints(selection.object) ? selection.object : null));
  /** Pixels of the screen to a pixel of the picture; set by who shows it. */
  const scale = ref(1);
  const found = shallowRef<OutlinePoints | null>(null);
  const pull = shallowRef<Pull | null>(null);
  /** From the object's own space to the picture. */
  const space = computed(
    (): Matrix => (thing.value && scene.motion && viewOf(scene.motion, thing.value.id, playback.frame)) || IDENTITY,
  );

  const beginAsking = useNewest();
  watch(
    () => [scene.id, scene.revision, thing.value?.id, playback.playing ? null : playback.frame] as const,
    async ([id, , object, frame], before) => {
      if (before?.[2] !== object) outline.clear();
      if (!id || !object || frame === null) {
        if (!object) found.value = null;
        return;
      }
      const isNewest = beginAsking();
      const points = await api.outline(id, object, frame).catch(() => null);
      if (isNewest()) [found.value, pull.value] = [points, null];
    },
    { immediate: true },
  );

  const kept = computed(() => numbered(found.value?.parts ?? []));
  /** Those of the next key. */
  const following = computed(() => numbered(found.value?.following ?? []));
  /** The points as they are shown: moved along while a hand drags them. */
  const points = computed(() => {
    if (!pull.value) return kept.value;
    const { by, handle } = pull.value;
    if (!handle) return kept.value.map((one) => (outline.picked.has(one.number) ? movedPoint(one, by) : one));
    return kept.value.map((one) =>
      one.number === handle.number ? withHandleMoved(one, handle.side, by, handle.broken) : one,
    );
  });

  return { thing, scale, found, pull, space, kept, following, points };
}

export type OutlinePointsShown = ReturnType<typeof useOutlinePoints>;
