/** Moving, turning, sizing, aligning, spreading and ordering the picked objects together. */
import type { Edit } from "@/api/types";
import { usePicked } from "@/composables/several/usePicked";
import { useTroupe } from "@/composables/troupe/useTroupe";
import type { Point } from "@/geometry/matrix";
import type { Change } from "@/geometry/together";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

type Side = Extract<Edit, { edit: "align-objects" }>["side"];
export type Place = Extract<Edit, { edit: "order-objects" }>["to"];
type Order = NonNullable<Extract<Edit, { edit: "spread-in-time" }>["order"]>;

export function useArranging() {
  const scene = useScene();
  const selection = useSelection();
  const troupe = useTroupe();
  const { together, handled } = usePicked();

  const moveEdit = (dx: number, dy: number): Edit => ({ edit: "move-objects", ...handled(), dx, dy });
  const changeEdit = (about: Point, { turn, scale }: Change): Edit => ({
    edit: "transform-objects",
    ...handled(),
    about: [about.x, about.y],
    turn,
    scale: [...scale],
  });
  const align = (side: Side, to: "each-other" | "picture") =>
    scene.edit([{ edit: "align-objects", ...handled(), side, to }]);
  const distribute = (along: "across" | "down", what: "gaps" | "middles") =>
    scene.attempt([{ edit: "distribute-objects", ...handled(), along, what }]);
  const spread = (later: number, order: Order, how: "keys" | "rule", seed: number) =>
    scene.edit([{ edit: "spread-in-time", ...together(), later, order, how, seed }]);
  const order = (to: Place) => troupe.order(selection.picked, to);

  return { moveEdit, changeEdit, align, distribute, spread, order };
}
