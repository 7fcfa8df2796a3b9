/** Editing the points of the picked object's outline in the picture. */
import { computed, ref, shallowRef, watch } from "vue";
import { hasKeys } from "@/composables/useChanging";
import { api } from "@/api/client";
import type { Edit, OutlinePoints, SceneObject } from "@/api/types";
import { beginDrag, beginOwnDrag } from "@/composables/useDrag";
import { useNewest } from "@/composables/useNewest";
import type { Snapping } from "@/composables/useSnapping";
import {
  difference,
  distance,
  IDENTITY,
  inverse,
  length,
  type Matrix,
  moved,
  type Point,
  rounded,
  straightened,
  turned,
} from "@/geometry/matrix";
import { type HandledPoint, nearestOn } from "@/geometry/outline";
import { whose } from "@/geometry/frames";
import { viewOf } from "@/picture/boxes";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** A point with its number, in the object's own space. */
export interface NumberedPoint extends HandledPoint {
  readonly number: number;
  readonly smooth: boolean;
  /** The next point of its part, for which the outline leaves it; none at the end of an open part. */
  readonly next: number | null;
  readonly first: boolean;
  /** Whether it is an end of an open part. */
  readonly end: boolean;
}
export type Side = "in" | "out";

/** Whether an object has points of its own. */
export const hasPoints = (thing: SceneObject | null | undefined): boolean =>
  thing?.kind === "shape" && thing.shape.type === "outline";

const PIXEL = 0.01;
const pair = (p: Point): [number, number] => [rounded(p.x, PIXEL), rounded(p.y, PIXEL)];
const point = (p: readonly number[] | null | undefined): Point | null => (p ? { x: p[0]!, y: p[1]! } : null);

export function useOutlineEdit(toPicture: (event: PointerEvent | MouseEvent) => Point, snapping: Snapping) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const outline = useOutline();

  const thing = computed(() => (selection.tool === "points" && hasPoints(selection.object) ? selection.object : null));
  /** Pixels of the screen to a pixel of the picture; set by who shows it. */
  const scale = ref(1);
  const found = shallowRef<OutlinePoints | null>(null);
  /** What a drag moves meanwhile. */
  const pulled = shallowRef<{
    readonly by: Point;
    readonly handle: { number: number; side: Side; broken: boolean } | null;
  } | null>(null);
  const box = shallowRef<{ readonly from: Point; readonly to: Point } | null>(null);
  const space = computed(
    (): Matrix => (thing.value && scene.motion && viewOf(scene.motion, thing.value.id, playback.frame)) || IDENTITY,
  );

  const beginAsking = useNewest();
  watch(
    () => [scene.id, scene.revision, thing.value?.id, playback.playing ? null : playback.frame] as const,
    async ([id, , object, frame], before) => {
      if (before?.[2] !== object) outline.clear();
      if (!id || !object || frame === null) {
        if (!object) found.value = null;
        return;
      }
      const isNewest = beginAsking();
      const points = await api.outline(id, object, frame).catch(() => null);
      if (isNewest()) [found.value, pulled.value] = [points, null];
    },
    { immediate: true },
  );

  const numbered = (parts: OutlinePoints["parts"]): NumberedPoint[] => {
    let begin = 0;
    return parts.flatMap((part) => {
      const start = begin;
      begin += part.points.length;
      return part.points.map((one, i): NumberedPoint => {
        const last = i === part.points.length - 1;
        return {
          number: start + i,
          at: { x: one.x, y: one.y },
          into: point(one.into),
          out: point(one.out),
          smooth: one.smooth,
          next: last ? (part.closed ? start : null) : start + i + 1,
          first: i === 0,
          end: !part.closed && (i === 0 || last),
        };
      });
    });
  };
  const kept = computed(() => numbered(found.value?.parts ?? []));
  const following = computed(() => numbered(found.value?.following ?? []));
  /** The points as they are shown: moved along while a hand drags them. */
  const points = computed(() => {
    const pull = pulled.value;
    if (!pull) return kept.value;
    const { by, handle } = pull;
    const shifted = (p: Point | null): Point | null => p && { x: p.x + by.x, y: p.y + by.y };
    return kept.value.map((one) => {
      if (!handle)
        return outline.picked.has(one.number)
          ? { ...one, at: shifted(one.at)!, into: shifted(one.into), out: shifted(one.out) }
          : one;
      return one.number === handle.number
        ? withHandle(one, handle.side, shifted(handleOf(one, handle.side))!, handle.broken)
        : one;
    });
  });
  const handleOf = (one: HandledPoint, side: Side): Point | null => (side === "out" ? one.out : one.into);

  function withHandle(one: NumberedPoint, side: Side, to: Point, broken: boolean): NumberedPoint {
    const other = handleOf(one, side === "out" ? "in" : "out");
    const reach = distance(to, one.at);
    const own = other ? distance(other, one.at) : 0;
    const across =
      other && !broken && reach > 0
        ? { x: one.at.x - ((to.x - one.at.x) * own) / reach, y: one.at.y - ((to.y - one.at.y) * own) / reach }
        : other;
    return side === "out" ? { ...one, out: to, into: across } : { ...one, into: to, out: across };
  }

  /** The frame whose key is changed, or none for an outline without keys. */
  const frame = computed(() =>
    thing.value && (hasKeys(thing.value, "outline") || selection.keyAsIMove) ? playback.frame : null,
  );
  const onlyLooks = computed(() => thing.value !== null && hasKeys(thing.value, "outline") && !selection.keyAsIMove);
  const own = (shaped: boolean): { object: string; frame: number | null } => ({
    object: thing.value?.id ?? "",
    // What changes which points there are is no pose: without keys it is done to the shape itself.
    frame: shaped && thing.value && !hasKeys(thing.value, "outline") ? null : frame.value,
  });

  async function make(edits: readonly Edit[]): Promise<boolean> {
    if (!thing.value || !edits.length) return false;
    selection.pickRow("Outline");
    if (onlyLooks.value) {
      await scene.lookAt([...edits], `${whose(thing.value.name)} outline at frame ${playback.frame}`);
      return true;
    }
    return Boolean(await scene.edit([...edits]));
  }

  const movedBy = (by: Point): Edit => ({
    edit: "move-points",
    ...own(false),
    points: [...outline.picked],
    dx: rounded(by.x, PIXEL),
    dy: rounded(by.y, PIXEL),
  });

  function beginPoint(event: PointerEvent, one: NumberedPoint): void {
    const home = inverse(space.value);
    if (!home || event.button !== 0) return;
    if (event.shiftKey) outline.pick([one.number], true);
    else if (!outline.picked.has(one.number)) outline.pick([one.number]);
    if (!outline.picked.has(one.number)) return void event.stopPropagation();
    const from = toPicture(event);
    const start = moved(space.value, one.at);
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      let whole = difference(toPicture(e), from);
      if (!edits.length && length(whole) * scale.value < 3) return;
      if (e.shiftKey) whole = straightened(whole);
      else
        whole = difference(
          snapping.point({ x: start.x + whole.x, y: start.y + whole.y }, thing.value?.id ?? null),
          start,
        );
      const by = turned(home, whole);
      pulled.value = { by, handle: null };
      edits = [movedBy(by)];
      void scene.lookAt(edits);
    };
    beginOwnDrag(event, { move, end: (keep) => void end(keep, edits) });
  }

  function beginHandle(event: PointerEvent, one: NumberedPoint, side: Side): void {
    const home = inverse(space.value);
    const handle = handleOf(one, side);
    if (!home || !handle || event.button !== 0) return;
    outline.pick([one.number]);
    const from = toPicture(event);
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      const by = turned(home, difference(toPicture(e), from));
      // A corner with handles keeps them apart; Alt breaks those of a smooth point.
      const broken = e.altKey || !one.smooth;
      pulled.value = { by, handle: { number: one.number, side, broken } };
      const to = pair({ x: handle.x + by.x, y: handle.y + by.y });
      edits = [{ edit: "set-point-handle", ...own(false), point: one.number, side, to, broken }];
      void scene.lookAt(edits);
    };
    beginOwnDrag(event, { move, end: (keep) => void end(keep, edits) });
  }

  async function end(keep: boolean, edits: Edit[]): Promise<void> {
    snapping.end();
    if (!edits.length) return;
    if (keep) {
      // The overlay stays where the hand let go until the kept points arrive.
      if (!(await make(edits))) pulled.value = null;
    } else {
      pulled.value = null;
      scene.letGo();
    }
  }

  /** Drag a box over the points to pick. */
  function beginBox(event: PointerEvent): void {
    const from = toPicture(event);
    const before = event.shiftKey ? [...outline.picked] : [];
    const move = (e: PointerEvent): void => {
      const to = toPicture(e);
      box.value = { from, to };
      const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
      const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
      const inside = points.value.filter(({ at }) => {
        const p = moved(space.value, at);
        return p.x >= left && p.x <= right && p.y >= top && p.y <= bottom;
      });
      outline.pick([...before, ...inside.map((one) => one.number)]);
    };
    beginDrag(event, {
      move,
      end: () => {
        if (!box.value && !event.shiftKey) outline.clear();
        box.value = null;
      },
    });
  }

  /** Put one more point on the piece that leaves a point, where the pointer is. */
  async function putOn(event: PointerEvent, one: NumberedPoint): Promise<void> {
    const [home, next] = [inverse(space.value), one.next === null ? null : points.value[one.next]];
    if (!home || !next || event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    const share = nearestOn(one, next, moved(home, toPicture(event)));
    if (await make([{ edit: "add-point", ...own(true), after: one.number, share }])) outline.pick([one.number + 1]);
  }

  const list = computed(() => [...outline.picked].filter((number) => number < kept.value.length));
  const ends = computed(() => kept.value.filter((one) => one.end && outline.picked.has(one.number)));
  const actions = {
    corner: () => make([{ edit: "set-points", ...own(false), points: list.value, kind: "corner" }]),
    smooth: () => make([{ edit: "set-points", ...own(false), points: list.value, kind: "smooth" }]),
    remove: async () => {
      if (await make([{ edit: "remove-points", ...own(true), points: list.value }])) outline.clear();
    },
    cut: async () => {
      if (await make([{ edit: "cut-outline", ...own(true), point: list.value[0] ?? 0 }])) outline.clear();
    },
    join: async () => {
      const [one, other] = ends.value;
      if (one && other && (await make([{ edit: "join-ends", ...own(true), one: one.number, other: other.number }])))
        outline.clear();
    },
    reverse: () => make([{ edit: "reverse-outline", ...own(true) }]),
    first: async () => {
      if (await make([{ edit: "first-point", ...own(true), point: list.value[0] ?? 0 }])) outline.clear();
    },
    nudge: (by: Point) => {
      const home = inverse(space.value);
      return home ? make([movedBy(turned(home, by))]) : Promise.resolve(false);
    },
    pickAll: () => outline.pick(kept.value.map((one) => one.number)),
    refit: (tolerance: number) => scene.edit([{ edit: "refit-outline", object: thing.value?.id ?? "", tolerance }]),
    meet: (mine: number, theirs: number) =>
      scene.edit([
        {
          edit: "meet-points",
          object: thing.value?.id ?? "",
          frame: found.value?.meetings?.frame ?? 0,
          meets: [mine, theirs],
        },
      ]),
    forgetMeeting: () =>
      scene.edit([
        { edit: "meet-points", object: thing.value?.id ?? "", frame: found.value?.meetings?.frame ?? 0, meets: null },
      ]),
  };

  /** Draw a line from a point to the one of the next key that it shall go to. */
  const meeting = shallowRef<{ readonly from: Point; readonly to: Point; readonly over: number | null } | null>(null);
  function beginMeeting(event: PointerEvent, number: number): void {
    const home = inverse(space.value);
    const mine = kept.value[number];
    if (!home || !mine) return;
    const move = (e: PointerEvent): void => {
      const to = moved(home, toPicture(e));
      const near = following.value
        .map((one) => ({ number: one.number, far: distance(one.at, to) }))
        .sort((a, b) => a.far - b.far)[0];
      meeting.value = { from: mine.at, to, over: near && near.far * scale.value < 24 ? near.number : null };
    };
    const endMeeting = (keep: boolean): void => {
      const over = meeting.value?.over ?? null;
      meeting.value = null;
      if (keep && over !== null) void actions.meet(number, over);
    };
    beginOwnDrag(event, { move, end: endMeeting });
  }

  return {
    thing,
    found,
    points,
    following,
    space,
    box,
    list,
    ends,
    meeting,
    scale,
    onlyLooks,
    actions,
    beginPoint,
    beginHandle,
    beginBox,
    beginMeeting,
    putOn,
  };
}

export type OutlineEdit = ReturnType<typeof useOutlineEdit>;
