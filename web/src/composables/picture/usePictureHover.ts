/** Tooltips under the pointer while nothing is pressed. */
import { ref } from "vue";
import type { Drawing } from "@/composables/picture/useDrawing";
import type { PictureDrag } from "@/composables/picture/usePictureDrag";
import type { PicturePicking } from "@/composables/picture/usePicturePicking";
import type { PictureView } from "@/composables/picture/usePictureView";
import type { Point } from "@/geometry/matrix";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function usePictureHover(view: PictureView, picking: PicturePicking, drag: PictureDrag, drawing: Drawing) {
  const [scene, selection, playback, live] = [useScene(), useSelection(), usePlayback(), useLive()];

  /** The name of what is under the pointer, and where on the stage the pointer is. */
  const hovered = ref<{ name: string; at: Point } | null>(null);
  function hover(event: PointerEvent): void {
    hovered.value = null;
    if (selection.tool === "draw") return drawing.hover(event);
    if (!scene.motion || drag.active.value || playback.playing || live.on) return;
    const id = picking.underPointer(event);
    const name = id ? scene.byId.get(id)?.name : null;
    if (name) hovered.value = { name, at: view.toStage(event.clientX, event.clientY) };
  }

  return { hover, hovered };
}
