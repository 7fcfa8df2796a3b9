/** A double click in the picture: it opens what is under the pointer. */
import { isInset } from "@/api/kinds";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import type { Drawing } from "@/composables/picture/useDrawing";
import type { PicturePicking } from "@/composables/picture/usePicturePicking";
import { textOf } from "@/composables/useText";
import type { Point } from "@/geometry/matrix";
import { useInside } from "@/stores/inside";
import { useLive } from "@/stores/live";
import { useOutline } from "@/stores/outline";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function usePictureOpening(at: (event: MouseEvent) => Point, picking: PicturePicking, drawing: Drawing) {
  const [scene, selection, live, inside, outline] = [useScene(), useSelection(), useLive(), useInside(), useOutline()];

  /** It goes into an inset, to the words of a text or the points of an outline, or picks a part of a whole. */
  function open(event: MouseEvent): void {
    if (selection.tool === "draw") {
      if (outline.drawn.length > 1) void drawing.finish(false);
      return;
    }
    if (!scene.motion || selection.tool === "path" || live.on) return;
    const found = picking.foremost(at(event));
    if (!found) return;
    const thing = scene.byId.get(found);
    if (isInset(thing)) return inside.enter(found);
    selection.pick(found);
    if (textOf(thing)) selection.writing = found;
    else if (selection.tool === "pick" && hasPoints(thing)) selection.tool = "points";
  }

  return { open };
}
