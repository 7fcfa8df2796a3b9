/** The picked parade: changing how it is laid out, and making one. */
import { computed } from "vue";
import { isParade, isShape } from "@/api/kinds";
import { NEW_PARADE, paradeOf } from "@/api/parades";
import type { Edit, Parade, SceneObject } from "@/api/types";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** The description of a new parade: its objects, arrangement, and values by channel. */
export interface NewParade {
  readonly id: string;
  readonly parts: readonly string[];
  readonly parade: Partial<Parade>;
  readonly values: Readonly<Record<string, number>>;
}

export function useParade() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  const thing = computed(() => (isParade(selection.thing) ? selection.thing : null));
  /** Its children, however deep. */
  const parts = computed<SceneObject[]>(() =>
    thing.value
      ? withParts(thing.value.id, scene.parts)
          .slice(1)
          .flatMap((id) => scene.byId.get(id) ?? [])
      : [],
  );

  const edit = (change: Partial<Parade>): Edit | null =>
    thing.value ? { edit: "set-parade", id: thing.value.id, parade: { ...thing.value.parade, ...change } } : null;
  const set = (change: Partial<Parade>): Promise<unknown> | undefined => {
    const made = edit(change);
    return made ? scene.edit([made]) : undefined;
  };
  const look = (change: Partial<Parade>): void => {
    const made = edit(change);
    if (made) void scene.lookAt([made]);
  };

  /** The edit that makes a parade; it is called after what it shows. */
  function making({ id, parts: some, parade, values }: NewParade): Edit {
    const first = scene.byId.get(some[0] ?? "");
    return {
      edit: "make-parade",
      id,
      name: `${first?.name ?? "Things"} parade`.slice(0, 80),
      parts: [...some],
      frame: playback.frame,
      parade: { ...NEW_PARADE, measured_at: playback.frame, ...parade },
      values: { ...values },
    };
  }

  /** Objects that copies could stand along: with a path or an outline, and no part of the parade. */
  const guidesFor = (own: readonly string[]): SceneObject[] =>
    scene.objects.filter(
      (one) =>
        !own.includes(one.id) && (isShape(one) || (one.channels?.["path"]?.keys.length ?? 0) > 1) && !paradeOf(one),
    );

  return { thing, parts, set, look, making, guidesFor };
}
