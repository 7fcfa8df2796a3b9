/** Editing a path in the picture: its points and handles, and putting points on it. */
import { beginDrag } from "@/composables/useDrag";
import { computed, shallowRef } from "vue";
import type { Edit, Key } from "@/api/types";
import { difference, inverse, type Matrix, moved, type Point, rounded, straightened, turned } from "@/geometry/matrix";
import { carrierOf } from "@/picture/boxes";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

type Pair = readonly [number, number];
export interface PathHandle {
  readonly key: Key;
  readonly side: "out" | "in";
  readonly at: Pair;
}
export type PathGrip =
  { readonly kind: "point"; readonly key: Key } | { readonly kind: "handle"; readonly handle: PathHandle };

/** Frames from one point to the next, where points are put down one after the other. */
const APART = 12;
const PIXEL = 0.1;

export function usePathEdit(toPicture: (event: PointerEvent | MouseEvent) => Point) {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  const playback = usePlayback();
  const moving = shallowRef<{ frame: number; text: string } | null>(null);

  const keys = computed(() => selection.keysOf("path"));
  /** From the space the path lies in to the picture, at the playhead. */
  const space = computed((): Matrix => carrierOf(scene.motion, selection.thing, playback.frame));
  const isPicked = (key: Key): boolean => picks.has(selection.objectId ?? "", "path", key.frame);
  const pointOf = (key: Key): Point =>
    Array.isArray(key.value) ? { x: key.value[0], y: key.value[1] } : { x: 0, y: 0 };

  /** How the path goes on from its key number i. */
  const wayOf = (i: number): string => {
    const [key, next] = [keys.value[i], keys.value[i + 1]];
    if (!key || !next) return "straight";
    return key.way ?? (key.ease === "spline" ? "spline" : key.out || next.in ? "bezier" : "straight");
  };

  const handles = computed((): PathHandle[] =>
    keys.value.flatMap((key, i) => {
      const third = (to: Key): Pair => [(pointOf(to).x - pointOf(key).x) / 3, (pointOf(to).y - pointOf(key).y) / 3];
      const [before, after] = [keys.value[i - 1], keys.value[i + 1]];
      const out: PathHandle[] =
        after && wayOf(i) === "bezier" ? [{ key, side: "out", at: key.out ?? third(after) }] : [];
      const into: PathHandle[] =
        before && wayOf(i - 1) === "bezier" ? [{ key, side: "in", at: key.in ?? third(before) }] : [];
      return [...out, ...into];
    }),
  );

  const text = ([x, y]: Pair): string => `${x}, ${y}`;
  const offset = (at: Pair): Pair => [rounded(at[0], PIXEL), rounded(at[1], PIXEL)];

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
    event.preventDefault();
    event.stopPropagation();
    const key = grip.kind === "point" ? grip.key : grip.handle.key;
    const own = [{ object: thing.id, channel: "path", frames: [key.frame] }];
    if (event.shiftKey) picks.add(own);
    else if (!isPicked(key)) picks.set(own);
    selection.pickRow("Travel", "path", true);
    const from = toPicture(event);
    const press = { x: event.clientX, y: event.clientY };
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      if (!edits.length && Math.hypot(e.clientX - press.x, e.clientY - press.y) < 3) return;
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
    beginDrag(event, { move, end: (kept) => void end(kept) });
  }

  /** Put a point on the path, at the whole frame whose dot is nearest to a place of the picture. */
  async function putOn(event: PointerEvent): Promise<void> {
    const place = scene.motion?.objects.get(selection.objectId ?? "")?.place;
    const [first, last] = [keys.value[0]?.frame, keys.value.at(-1)?.frame];
    if (!place || first === undefined || last === undefined) return;
    const home = inverse(lensOf(scene.motion, selection.objectId ?? "", playback.frame));
    if (!home) return;
    const at = moved(home, toPicture(event));
    let best = { frame: -1, far: Infinity };
    for (let frame = Math.ceil(first); frame <= Math.min(last, place.rows - 1); frame++) {
      const far = Math.hypot((place.data[frame * 2] ?? 0) - at.x, (place.data[frame * 2 + 1] ?? 0) - at.y);
      if (far < best.far) best = { frame, far };
    }
    if (best.frame < 0 || keys.value.some((key) => key.frame === best.frame)) return;
    await add({ edit: "set-key", object: selection.objectId ?? "", channel: "path", frame: best.frame });
  }

  /** Go on from the end of the path to a place of the picture, or begin one there. */
  async function goOnTo(event: PointerEvent): Promise<void> {
    const home = inverse(space.value);
    if (!home || !selection.object) return;
    const last = keys.value.at(-1);
    const at = moved(home, toPicture(event));
    const frame = last
      ? Math.max(Math.ceil(last.frame) + 1, playback.frame > last.frame ? playback.frame : last.frame + APART)
      : playback.frame;
    await add({
      edit: "set-key",
      object: selection.object.id,
      channel: "path",
      frame,
      value: [rounded(at.x, PIXEL), rounded(at.y, PIXEL)],
    });
    // While a path is drawn, what is chosen next is meant for all of it.
    picks.clear();
  }

  async function add(edit: Extract<Edit, { edit: "set-key" }>): Promise<void> {
    if (await scene.edit([edit])) picks.set([{ object: edit.object, channel: "path", frames: [edit.frame] }]);
  }

  return { keys, space, handles, moving, isPicked, pointOf, wayOf, begin, putOn, goOnTo };
}

export type PathEdit = ReturnType<typeof usePathEdit>;
