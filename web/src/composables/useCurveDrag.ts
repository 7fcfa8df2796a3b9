/** Dragging keys and handles in the curve view: one, or all that are picked. */
import { beginDrag } from "@/composables/useDrag";
import { shallowRef } from "vue";
import type { Edit, Key } from "@/api/types";
import { keyAt, type Picked, usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { nearest } from "@/geometry/snapping";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export interface CurveScale {
  readonly perFrame: number;
  /** Pixels per unit of value, of a channel. */
  readonly perValue: (channel: string) => number;
  /** What values of a channel are rounded to. */
  readonly step: (channel: string) => number;
  /** Whether its keys hold numbers, and can be moved up and down. */
  readonly isNumber: (channel: string) => boolean;
}

type Offset = readonly [number, number];
export type CurveGrip = { readonly channel: string; readonly key: Key } & (
  { readonly kind: "key" } | { readonly kind: "out" | "in"; readonly at: Offset; readonly other: Offset | null }
);

/** What is held: how far keys have been moved, or where a handle is now. */
export type CurveHold =
  | { readonly kind: "key"; readonly frames: number; readonly pixels: number }
  | { readonly kind: "out" | "in"; readonly channel: string; readonly frame: number; readonly at: Offset };

const REACH = 5;

export function useCurveDrag(scale: () => CurveScale) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();
  const held = shallowRef<CurveHold | null>(null);

  function begin(event: PointerEvent, grip: CurveGrip): void {
    const thing = selection.thing;
    if (event.button !== 0 || !thing) return;
    event.preventDefault();
    event.stopPropagation();
    const own: Picked[] = [{ object: thing.id, channel: grip.channel, frames: [grip.key.frame] }];
    const was = picks.hasAll(own);
    if (event.shiftKey && grip.kind === "key") (was ? picks.remove : picks.add)(own);
    else if (!was) picks.set(own);
    const keys = picks.keys.filter((one) => one.object === thing.id);
    const from = { x: event.clientX, y: event.clientY };
    let edits: Edit[] = [];
    let by = 0;

    const move = (e: PointerEvent): void => {
      let [dx, dy] = [e.clientX - from.x, e.clientY - from.y];
      if (e.shiftKey) [dx, dy] = Math.abs(dx) >= Math.abs(dy) ? [dx, 0] : [0, dy];
      if (!edits.length && Math.hypot(dx, dy) < 3) return;
      if (grip.kind === "key") {
        const snapped =
          dx && !e.altKey
            ? nearest(grip.key.frame + dx / scale().perFrame, [{ frame: playback.frame }], REACH / scale().perFrame)
            : null;
        by = snapped
          ? snapped.frame - grip.key.frame
          : e.altKey
            ? Number((dx / scale().perFrame).toFixed(2))
            : Math.round(dx / scale().perFrame);
        edits = keys.flatMap((one) => keyEdits(one, by, dy));
        held.value = { kind: "key", frames: by, pixels: dy };
      } else {
        const frames = dx / scale().perFrame;
        const value = -dy / scale().perValue(grip.channel);
        const first = handleEdit(thing.id, grip, frames, value, e.altKey);
        edits = [first, ...others(grip, frames, value, e.altKey)];
        held.value = {
          kind: grip.kind,
          channel: grip.channel,
          frame: grip.key.frame,
          at: first[grip.kind] as [number, number],
        };
      }
      if (edits.length) void scene.lookAt(edits);
    };
    const end = async (kept: boolean): Promise<void> => {
      if (!kept) {
        held.value = null;
        if (edits.length) scene.letGo();
        return;
      }
      const next = grip.kind === "key" ? picks.moved((frame) => frame + by) : picks.keys;
      if (edits.length && (await scene.edit(edits))) picks.set(next);
      else if (!edits.length && was && !event.shiftKey) picks.set(own);
      held.value = null;
    };
    beginDrag(event, { move, end: (kept) => void end(kept) });
  }

  /** The edits that move some keys of a channel by frames, and by pixels upwards or downwards. */
  function keyEdits(picked: Picked, by: number, dy: number): Edit[] {
    const { object, channel } = picked;
    const slid: Edit[] = by ? [{ edit: "move-keys", ...picked, by }] : [];
    const thing = scene.byId.get(object);
    if (!thing || !dy || !scale().isNumber(channel)) return slid;
    const { perValue, step } = scale();
    const values = picked.frames.map((frame): Edit => {
      const value = Number(keyAt(thing, channel, frame)?.value ?? 0) - dy / perValue(channel);
      return {
        edit: "set-key",
        object,
        channel,
        frame: frame + by,
        value: Number((Math.round(value / step(channel)) * step(channel)).toFixed(4)),
      };
    });
    return [...slid, ...values];
  }

  /** The same move of the same side's handle, for the other picked keys that have one. */
  function others(
    grip: Extract<CurveGrip, { kind: "out" | "in" }>,
    frames: number,
    value: number,
    broken: boolean,
  ): Edit[] {
    const thing = selection.thing;
    if (!thing) return [];
    return picks.keys
      .filter((one) => one.object === thing.id)
      .flatMap((one) =>
        one.frames
          .filter((frame) => !(one.channel === grip.channel && frame === grip.key.frame))
          .map((frame) => ({ channel: one.channel, key: keyAt(thing, one.channel, frame) })),
      )
      .flatMap(({ channel, key }) => {
        const at = key?.[grip.kind];
        return key && at
          ? [
              handleEdit(
                thing.id,
                { kind: grip.kind, channel, key, at, other: key[grip.kind === "out" ? "in" : "out"] ?? null },
                frames,
                value,
                broken,
              ),
            ]
          : [];
      });
  }

  return { held, begin };
}

/** Where a dragged handle goes; its partner swings along on the other side of the key, unless it is broken off. */
function handleEdit(
  object: string,
  grip: Extract<CurveGrip, { kind: "out" | "in" }>,
  frames: number,
  value: number,
  broken: boolean,
): Extract<Edit, { edit: "set-handles" }> {
  const round = (number: number): number => Number(number.toFixed(3));
  const sign = grip.kind === "out" ? 1 : -1;
  const moved: [number, number] = [
    round(sign * Math.max(0.01, sign * (grip.at[0] + frames))),
    round(grip.at[1] + value),
  ];
  const edit: Extract<Edit, { edit: "set-handles" }> = {
    edit: "set-handles",
    object,
    channel: grip.channel,
    frame: grip.key.frame,
    [grip.kind]: moved,
  };
  if (broken || !grip.other) return edit;
  const partner: [number, number] = [grip.other[0], round((grip.other[0] * moved[1]) / moved[0])];
  return { ...edit, [grip.kind === "out" ? "in" : "out"]: partner };
}
