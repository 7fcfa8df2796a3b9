/** The edits that moves of keys and handles in the curve view make. */
import type { Edit, Key } from "@/api/types";
import { keyAt, type Picked, usePicks } from "@/stores/picks";
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

export type Offset = readonly [number, number];
export type CurveGrip = { readonly channel: string; readonly key: Key } & (
  { readonly kind: "key" } | { readonly kind: "out" | "in"; readonly at: Offset; readonly other: Offset | null }
);
export type HandleGrip = Extract<CurveGrip, { kind: "out" | "in" }>;

/** Edits of the selected keys and handles; `scale` converts pixels to frames and values. */
export function useCurveEdits(scale: () => CurveScale) {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();

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
  function others(grip: HandleGrip, frames: number, value: number, broken: boolean): Edit[] {
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

  return { keyEdits, others };
}

/** Where a dragged handle goes; its partner swings along on the other side of the key, unless it is broken off. */
export function handleEdit(
  object: string,
  grip: HandleGrip,
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
