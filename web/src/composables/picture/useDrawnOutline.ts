/** Making an object of an outline that was drawn. */
import { still } from "@/api/channels";
import { newId } from "@/api/ids";
import type { Edit } from "@/api/types";
import { nextColour } from "@/composables/troupe/kinds";
import { type Point, rounded } from "@/geometry/matrix";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const PIXEL = 0.1;
/** A stored position in the picture. */
export const rounder = (p: Point): Point => ({ x: rounded(p.x, PIXEL), y: rounded(p.y, PIXEL) });

export function useDrawnOutline() {
  const scene = useScene();
  const selection = useSelection();

  /** Add the outline and select it: closed ones are filled, open ones are lines. */
  async function keep(what: Pick<Extract<Edit, { edit: "draw-outline" }>, "d" | "hand">, closed: boolean) {
    const { hex, name } = nextColour(scene.objects.length);
    const id = newId();
    const channels = closed
      ? { fill: still(hex) }
      : { fill: still("#00000000"), stroke: still(hex), "stroke.width": still(6) };
    const edit = {
      edit: "draw-outline",
      id,
      name: `${name} ${closed ? "outline" : "line"}`,
      channels,
      ...what,
    } as Edit;
    if (await scene.edit([edit])) selection.pick(id);
  }

  return { keep };
}
