/** The edits that give an object values at the playhead. */
import { hasKeys } from "@/api/channels";
import { isJoint } from "@/api/figures";
import { isFigure, isInset } from "@/api/kinds";
import { writtenAt } from "@/api/motion";
import type { Edit, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Words of a text, as a key holds them. */
interface Words {
  readonly text: string;
}
export type Values = Readonly<Record<string, number | string | Words>>;
type Placed = Readonly<Record<string, number | string | Words | [number, number]>>;

export function useValueEdits() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** Edits that give an object some values at the playhead. `moving` tells a move by hand from a value typed. */
  const editsFor = (thing: SceneObject, values: Values, moving: boolean): Edit[] =>
    Object.entries(onPath(thing, values)).map(
      ([channel, value]) =>
        jointEdit(thing, channel, value, moving) ??
        innerEdit(thing, channel, value) ??
        plainEdit(thing, channel, value, moving),
    );

  /** What the kept scene shows of a channel at the playhead; null where it shows nothing. */
  function shownOf(thing: SceneObject, channel: string): number | null {
    const baked = scene.kept?.objects.get(thing.id)?.channels[channel];
    return baked ? writtenAt(baked, playback.frame) : null;
  }

  /** For a joint moved by rules: their part stays below the added value. */
  function jointEdit(thing: SceneObject, channel: string, value: Placed[string], moving: boolean): Edit | null {
    if (!isFigure(thing) || typeof value !== "number") return null;
    if (!thing.rules.length || !isJoint(thing.figure, channel)) return null;
    const by = { [channel]: value - (shownOf(thing, channel) ?? 0) };
    return { edit: "pose-joints", id: thing.id, frame: playback.frame, by, key: moving && selection.keyAsIMove };
  }

  /** The inner frame of an inset runs by itself: another one here is another one to begin from. */
  function innerEdit(thing: SceneObject, channel: string, value: Placed[string]): Edit | null {
    if (!isInset(thing) || channel !== "inner" || typeof value !== "number" || hasKeys(thing, channel)) return null;
    const start = Number(thing.channels?.[channel]?.base ?? 0);
    return {
      edit: "set-value",
      object: thing.id,
      channel,
      value: Number((start + value - (shownOf(thing, channel) ?? start)).toPrecision(7)),
    };
  }

  const plainEdit = (thing: SceneObject, channel: string, value: Placed[string], moving: boolean): Edit =>
    hasKeys(thing, channel) || (moving && selection.keyAsIMove)
      ? { edit: "set-key", object: thing.id, channel, frame: playback.frame, value }
      : { edit: "set-value", object: thing.id, channel, value };

  /** What follows a path has no place of its own: where it is put becomes a point of the path. */
  function onPath(thing: SceneObject, values: Values): Placed {
    if (!hasKeys(thing, "path") || hasKeys(thing, "x") || hasKeys(thing, "y") || !("x" in values || "y" in values))
      return values;
    const baked = scene.motion?.objects.get(thing.id)?.channels;
    const now = (name: string): number => (baked?.[name] ? writtenAt(baked[name], playback.frame) : 0);
    const { x = now("x"), y = now("y"), ...others } = values;
    return { ...others, path: [Number(x), Number(y)] };
  }

  return { editsFor, onPath };
}
