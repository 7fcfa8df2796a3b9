/** Dragging points and handles of a path in the picture. */
import { shallowRef } from "vue";
import type { Edit, Key } from "@/api/types";
import { type Pair, type PathHandle, type PathPoints, PIXEL } from "@/composables/path/usePathPoints";
import { beginOwnDrag, SLACK } from "@/composables/useDrag";
import { difference, inverse, type Point, rounded, straightened, turned } from "@/geometry/matrix";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export type PathGrip =
  { readonly kind: "point"; readonly key: Key } | { readonly kind: "handle"; readonly handle: PathHandle };

const text = ([x, y]: Pair): string => `${x}, ${y}`;
const offset = (at: Pair): Pair => [rounded(at[0], PIXEL), rounded(at[1], PIXEL)];

export function usePathDrag(
  toPicture: (event: PointerEvent | MouseEvent) => Point,
  { keys, space, handles, isPicked, pointOf }: PathPoints,
) {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  /** Where the point or the handle that is dragged is, by the frame of its key. */
  const moving = shallowRef<{ frame: number; text: string } | null>(null);

  /**
   * The edits a drag of a point or a handle makes: with several points picked they all move; with Alt a handle moves
   * alone.
   */
  function editsFor(grip: PathGrip, by: Point, broken: boolean): Edit[] {
    const object = selection.objectId ?? "";
    if (grip.kind === "point") {
      const held = keys.value.filter((key) => key === grip.key || (isPicked(grip.key) && isPicked(key)));
      return held.map((key): Edit => ({
        edit: "set-key",
        object,
        channel: "path",
        frame: key.frame,
        value: [rounded(pointOf(key).x + by.x, PIXEL), rounded(pointOf(key).y + by.y, PIXEL)],
      }));
    }
    const { key, side, at } = grip.handle;
    const to = offset([at[0] + by.x, at[1] + by.y]);
    const partner = handles.value.find((one) => one.key === key && one.side !== side);
    const edit = { edit: "set-handles" as const, object, channel: "path", frame: key.frame, [side]: [...to] };
    if (broken || !partner) return [edit as Edit];
    // The partner swings along on the other side of the point and keeps its length.
    const far = Math.hypot(...partner.at) / (Math.hypot(...to) || 1);
    return [{ ...edit, [partner.side]: [...offset([-to[0] * far, -to[1] * far])] } as Edit];
  }

  function begin(event: PointerEvent, grip: PathGrip): void {
    const home = inverse(space.value);
    const thing = selection.object;
    if (event.button !== 0 || !thing || !home) return;
    const key = grip.kind === "point" ? grip.key : grip.handle.key;
    const own = [{ object: thing.id, channel: "path", frames: [key.frame] }];
    if (event.shiftKey) picks.add(own);
    else if (!isPicked(key)) picks.set(own);
    selection.pickRow("Travel", "path", true);
    const from = toPicture(event);
    const press = { x: event.clientX, y: event.clientY };
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      if (!edits.length && Math.hypot(e.clientX - press.x, e.clientY - press.y) < SLACK) return;
      const whole = difference(toPicture(e), from);
      const by = turned(home, e.shiftKey ? straightened(whole) : whole);
      edits = editsFor(grip, by, e.altKey);
      const first = edits[0];
      if (first?.edit === "set-key" && Array.isArray(first.value))
        moving.value = { frame: key.frame, text: text(first.value) };
      else if (first?.edit === "set-handles" && grip.kind === "handle")
        moving.value = { frame: key.frame, text: text((first[grip.handle.side] ?? [0, 0]) as Pair) };
      void scene.lookAt(edits);
    };
    const end = async (kept: boolean): Promise<void> => {
      if (edits.length && kept) await scene.edit(edits);
      else if (edits.length) scene.letGo();
      edits = [];
      moving.value = null;
    };
    beginOwnDrag(event, { move, end: (kept) => void end(kept) });
  }

  return { moving, begin };
}
