/** The troupe as a list: the foremost first, the children of another under it, folded until it is opened or picked. */
import { computed } from "vue";
import { innerOf } from "@/api/insets";
import type { InnerWords, SceneObject } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export interface Entry {
  readonly thing: SceneObject;
  readonly depth: number;
  /** How many objects hang directly on it, or are inside it. */
  readonly parts: number;
  /** The object of a row inside an inset, beside the inset itself. */
  readonly inside?: InnerWords["parts"][number];
}

export function useTroupeTree() {
  const scene = useScene();
  const selection = useSelection();

  const foremostFirst = (parent: string): readonly SceneObject[] => [...(scene.parts.get(parent) ?? [])].reverse();

  const entries = computed<readonly Entry[]>(() => {
    const list: Entry[] = [];
    const visit = (thing: SceneObject, depth: number): void => {
      const parts = foremostFirst(thing.id);
      const inner = [...(innerOf(scene.head, thing)?.parts ?? [])].reverse();
      list.push({ thing, depth, parts: parts.length + inner.length });
      if (!selection.unfolded.has(thing.id)) return;
      for (const part of parts) visit(part, depth + 1);
      const below = (parent: string | null, deep: number): void => {
        for (const one of inner)
          if (one.parent === parent) {
            list.push({ thing, depth: deep, parts: 0, inside: one });
            below(one.id, deep + 1);
          }
      };
      below(null, depth + 1);
    };
    for (const root of foremostFirst("")) visit(root, 0);
    return list;
  });

  return { entries };
}
