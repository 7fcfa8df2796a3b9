/** Moving all picked objects by a drag of one of them. */
import type { Edit } from "@/api/types";
import { ROW } from "@/composables/picture/useGrips";
import { useSeveral } from "@/composables/several/useSeveral";
import { beginOwnDrag, SLACK } from "@/composables/useDrag";
import { type Point, rounded, straightened } from "@/geometry/matrix";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useTogetherDrag(toPicture: (event: PointerEvent) => Point) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const several = useSeveral();

  function beginTogether(event: PointerEvent): void {
    if (event.button !== 0 || !several.free().length) return;
    const [from, press] = [toPicture(event), { x: event.clientX, y: event.clientY }];
    let wanted: Edit | null = null;
    playback.pause();
    selection.pickRow(ROW.move);
    const move = (e: PointerEvent): void => {
      if (!wanted && Math.hypot(e.clientX - press.x, e.clientY - press.y) < SLACK) return;
      const to = toPicture(e);
      const by = { x: to.x - from.x, y: to.y - from.y };
      const { x, y } = e.shiftKey ? straightened(by) : by;
      wanted = several.moveEdit(rounded(x, 0.1), rounded(y, 0.1));
      void scene.lookAt([wanted]);
    };
    const end = (kept: boolean): void => void (wanted && (kept ? scene.edit([wanted]) : scene.letGo()));
    beginOwnDrag(event, { move, end });
  }

  return { beginTogether };
}
