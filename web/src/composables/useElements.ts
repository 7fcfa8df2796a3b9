/** Putting ready elements into the picture. */
import { newId } from "@/api/ids";
import { api } from "@/api/client";
import type { ElementWords, Scene } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useElements() {
  const scene = useScene();
  const selection = useSelection();

  /** Put an element into the middle of the picture, and pick what holds it together; false if it could not be. */
  async function putIn(element: ElementWords): Promise<boolean> {
    if (!scene.head) return false;
    const { objects } = JSON.parse(await api.elementFile(element.name)) as Scene;
    const prefix = newId();
    const [width, height] = scene.head.size;
    const done = await scene.edit([
      {
        edit: "add-objects",
        objects: [...objects],
        prefix,
        x: (width - element.width) / 2,
        y: (height - element.height) / 2,
      },
    ]);
    if (!done) return false;
    const root = objects.find((one) => !one.parent);
    if (root) {
      selection.pick(`${prefix}-${root.id}`);
      if (!selection.unfolded.has(`${prefix}-${root.id}`)) selection.fold(`${prefix}-${root.id}`);
    }
    return true;
  }

  return { putIn };
}
