/** Changing the shape of the picked object's path at some of its points. */
import type { Edit } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Make points of the path sharp or smooth. */
export function useSetCorner() {
  const scene = useScene();
  const selection = useSelection();
  return (frames: number[], corner: "sharp" | "smooth"): void => {
    if (selection.objectId && frames.length)
      void scene.edit([{ edit: "set-corner", object: selection.objectId, frames, corner } satisfies Edit]);
  };
}
