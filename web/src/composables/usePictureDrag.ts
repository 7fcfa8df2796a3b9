/** Dragging in the picture: what is grabbed, what it would change, and making the change when it is let go. */
import { beginDrag } from "@/composables/useDrag";
import { ref, shallowRef } from "vue";
import { numberAt, valuesAt } from "@/api/motion";
import { useChanging } from "@/composables/useChanging";
import type { Edit } from "@/api/types";
import { useSeveral } from "@/composables/several/useSeveral";
import { useTogether } from "@/composables/several/useTogether";
import { type Point, rounded, straightened, toMatrix } from "@/geometry/matrix";
import { carrierOf } from "@/picture/boxes";
import type { useSnapping } from "@/composables/useSnapping";
import { beginMove, beginPivot, beginScale, beginTurn, type Drag, type Held } from "@/picture/drags";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export type Grip = { kind: "move" } | { kind: "turn" } | { kind: "pivot" } | { kind: "scale"; corner: Point };

const ROW: Record<Grip["kind"], string> = { move: "Travel", turn: "Rotation", scale: "Size", pivot: "Pivot" };
/** How far the pointer goes before a press becomes a drag, in screen pixels. */
const SLACK = 3;

interface Nudge {
  readonly kind: Grip["kind"];
  by: Record<string, number>;
}

/** Two changes from the keyboard, one after the other, as one. */
function joined(kind: Grip["kind"], one: Record<string, number>, two: Record<string, number>): Record<string, number> {
  const [none, join] = kind === "scale" ? [1, (a: number, b: number) => a * b] : [0, (a: number, b: number) => a + b];
  const names = new Set([...Object.keys(one), ...Object.keys(two)]);
  return Object.fromEntries([...names].map((name) => [name, join(one[name] ?? none, two[name] ?? none)]));
}

export function usePictureDrag(toPicture: (event: PointerEvent) => Point, snapping: ReturnType<typeof useSnapping>) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const changing = useChanging();
  const several = useSeveral();
  const together = useTogether();
  const messages = useMessages();

  const active = ref<Grip["kind"] | null>(null);
  /** The values being dragged, for showing beside the pointer. */
  const values = shallowRef<Record<string, number> | null>(null);

  /** The picked object as it is at the playhead. */
  function held(): Held | null {
    const motion = scene.motion;
    const thing = selection.object;
    const baked = thing && motion?.objects.get(thing.id);
    if (!motion || !baked) return null;
    const now = Object.entries(baked.channels).filter(([, array]) => array.width === 1);
    return {
      values: Object.fromEntries(now.map(([name, array]) => [name, exact(numberAt(array, playback.frame))])),
      parent: carrierOf(motion, thing, playback.frame),
      view: toMatrix(valuesAt(baked.view, playback.frame)),
    };
  }

  function begin(event: PointerEvent, grip: Grip): void {
    const start = held();
    const thing = selection.object;
    if (!start || !thing || event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    const from = toPicture(event);
    const press = { x: event.clientX, y: event.clientY };
    const drag = dragOf(grip, start, from);
    const snap = grip.kind === "move" ? snapping.begin(thing.id) : null;
    playback.pause();
    selection.pickRow(ROW[grip.kind]);

    const move = (e: PointerEvent): void => {
      if (!active.value && Math.hypot(e.clientX - press.x, e.clientY - press.y) < SLACK) return;
      active.value = grip.kind;
      const to = toPicture(e);
      const now = drag(snap && !e.altKey ? snap(from, to, e.shiftKey) : to, { steady: e.shiftKey });
      values.value = thing.kind === "camera" ? framed(now, start) : now;
      if (e.altKey) snapping.end();
      if (grip.kind !== "pivot") changing.show(thing, values.value);
    };
    const end = (kept: boolean): void => {
      const made = values.value;
      const was = active.value;
      active.value = null;
      values.value = null;
      snapping.end();
      if (!was || !made) return;
      if (!kept) scene.letGo();
      else if (grip.kind === "pivot") void putPivot(thing.id, made);
      else void changing.make(thing, made, true);
    };
    beginDrag(event, { move, end });
  }

  /** Move all picked objects by a common drag. */
  function beginTogether(event: PointerEvent): void {
    if (event.button !== 0 || !several.free().length) return;
    event.preventDefault();
    event.stopPropagation();
    const [from, press] = [toPicture(event), { x: event.clientX, y: event.clientY }];
    let wanted: Edit | null = null;
    playback.pause();
    selection.pickRow(ROW.move);
    beginDrag(event, {
      move: (e) => {
        if (!wanted && Math.hypot(e.clientX - press.x, e.clientY - press.y) < SLACK) return;
        const to = toPicture(e);
        const by = { x: to.x - from.x, y: to.y - from.y };
        const { x, y } = e.shiftKey ? straightened(by) : by;
        wanted = several.moveEdit(rounded(x, 0.1), rounded(y, 0.1));
        void scene.lookAt([wanted]);
      },
      end: (kept) => void (wanted && (kept ? scene.edit([wanted]) : scene.letGo())),
    });
  }

  async function putPivot(id: string, to: Record<string, number>): Promise<void> {
    await scene.edit([{ edit: "move-pivot", id, frame: playback.frame, x: to["pivot.x"] ?? 0, y: to["pivot.y"] ?? 0 }]);
  }

  const waiting: Nudge[] = [];
  let nudging = false;

  /**
   * Change the picked object from the keyboard: by amounts, or for scale by factors. Each starts from what the one
   * before has left; those that come while one is being made are made together.
   */
  async function nudge(kind: Grip["kind"], by: Record<string, number>): Promise<void> {
    const last = waiting.at(-1);
    if (last?.kind === kind) last.by = joined(kind, last.by, by);
    else waiting.push({ kind, by });
    if (nudging) return;
    nudging = true;
    try {
      for (let next = waiting.shift(); next; next = waiting.shift()) await nudged(next.kind, next.by);
    } finally {
      nudging = false;
    }
  }

  async function nudged(kind: Grip["kind"], by: Record<string, number>): Promise<void> {
    const start = held();
    const thing = selection.object;
    if (!start || !thing) return;
    if (!several.free().length && thing.kind !== "camera") {
      messages.info(`${thing.name} is locked: unlock it in the troupe to change it in the picture.`);
      return;
    }
    selection.pickRow(ROW[kind]);
    if (selection.several && kind !== "pivot") {
      if (kind === "move") await scene.edit([several.moveEdit(by["x"] ?? 0, by["y"] ?? 0)]);
      else await together.change({ turn: by["rotation"] ?? 0, scale: [by["scale.x"] ?? 1, by["scale.y"] ?? 1] });
      return;
    }
    const next = Object.fromEntries(
      Object.entries(by).map(([name, amount]) => {
        const now = start.values[name] ?? 0;
        return [name, Number((kind === "scale" ? now * amount : now + amount).toFixed(4))];
      }),
    );
    if (kind === "pivot")
      await putPivot(thing.id, {
        "pivot.x": start.values["pivot.x"] ?? 0,
        "pivot.y": start.values["pivot.y"] ?? 0,
        ...next,
      });
    else await changing.make(thing, next, true);
  }

  return { active, values, begin, beginTogether, nudge };
}

export type PictureDrag = ReturnType<typeof usePictureDrag>;

/** A camera whose frame is made larger looks from farther away. */
function framed(values: Record<string, number>, start: Held): Record<string, number> {
  const { "scale.x": wide, "scale.y": high, ...others } = values;
  if (wide === undefined || high === undefined) return values;
  const factor = Math.max(Math.abs(wide), Math.abs(high), 0.01);
  return { ...others, zoom: Number(((start.values["zoom"] ?? 1) / factor).toFixed(4)) };
}

function dragOf(grip: Grip, start: Held, from: Point): Drag {
  switch (grip.kind) {
    case "move":
      return beginMove(start, from);
    case "turn":
      return beginTurn(start, from);
    case "scale":
      return beginScale(start, grip.corner);
    case "pivot":
      return beginPivot(start);
  }
}

/** A float32 of the bake as the short decimal it most likely was. */
const exact = (value: number): number => Number(value.toPrecision(7));
