/** The troupe as a list: the foremost first, what hangs on another under it, folded until it is opened or picked. */
import { computed } from "vue";
import type { SceneObject } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export interface Entry {
  readonly thing: SceneObject;
  readonly depth: number;
  /** How many objects hang directly on it. */
  readonly parts: number;
}

export function useTroupeTree() {
  const scene = useScene();
  const selection = useSelection();

  const foremostFirst = (parent: string): readonly SceneObject[] => [...(scene.parts.get(parent) ?? [])].reverse();

  const entries = computed<readonly Entry[]>(() => {
    const list: Entry[] = [];
    const visit = (thing: SceneObject, depth: number): void => {
      const parts = foremostFirst(thing.id);
      list.push({ thing, depth, parts: parts.length });
      if (selection.unfolded.has(thing.id)) for (const part of parts) visit(part, depth + 1);
    };
    for (const root of foremostFirst("")) visit(root, 0);
    return list;
  });

  return { entries };
}
