/** Changing values at the playhead: as keys, as plain values, or for looking only. */
import { deleteKeys } from "@/api/edits";
import { keysOf } from "@/api/channels";
import { isJoint } from "@/api/figures";
import { numberAt } from "@/api/motion";
import type { Edit, SceneObject } from "@/api/types";
import { whose } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export type Values = Readonly<Record<string, number | string>>;

/** The channels of a row that a leaf beside it keys: the path where there is one, else all that are no path. */
export function keyable(thing: SceneObject, channels: readonly string[]): readonly string[] {
  if (!channels.includes("path")) return channels;
  return hasKeys(thing, "path")
    ? channels.filter((name) => name === "path" || hasKeys(thing, name))
    : channels.filter((name) => name !== "path");
}

export const hasKeys = (thing: SceneObject, channel: string): boolean => keysOf(thing, channel).length > 0;

/** Edits that change values at the playhead, to be shown while they change and made at the end. */
export function useChanging() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  /** Edits that give an object some values at the playhead. `moving` tells a move by hand from a value typed. */
  function editsFor(thing: SceneObject, values: Values, moving: boolean): Edit[] {
    return Object.entries(onPath(thing, values)).map(([channel, value]): Edit => {
      // What a gait does to a joint stays under what is added to it.
      if (
        thing.kind === "figure" &&
        typeof value === "number" &&
        thing.rules.length &&
        isJoint(thing.figure, channel)
      ) {
        const baked = scene.kept?.objects.get(thing.id)?.channels[channel];
        return {
          edit: "pose-joints",
          id: thing.id,
          frame: playback.frame,
          by: { [channel]: value - (baked ? Number(numberAt(baked, playback.frame).toPrecision(7)) : 0) },
          key: moving && selection.keyAsIMove,
        };
      }
      // The inner frame of an inset runs by itself: another one here is another one to begin from.
      if (thing.kind === "inset" && channel === "inner" && typeof value === "number" && !hasKeys(thing, channel)) {
        const baked = scene.kept?.objects.get(thing.id)?.channels[channel];
        const start = Number(thing.channels?.[channel]?.base ?? 0);
        const now = baked ? numberAt(baked, playback.frame) : start;
        return { edit: "set-value", object: thing.id, channel, value: Number((start + value - now).toPrecision(7)) };
      }
      const asKey = hasKeys(thing, channel) || (moving && selection.keyAsIMove);
      return asKey
        ? { edit: "set-key", object: thing.id, channel, frame: playback.frame, value }
        : { edit: "set-value", object: thing.id, channel, value };
    });
  }

  /** What follows a path has no place of its own: where it is put becomes a point of the path. */
  function onPath(thing: SceneObject, values: Values): Readonly<Record<string, number | string | [number, number]>> {
    if (!hasKeys(thing, "path") || hasKeys(thing, "x") || hasKeys(thing, "y") || !("x" in values || "y" in values))
      return values;
    const baked = scene.motion?.objects.get(thing.id)?.channels;
    const now = (name: string): number =>
      baked?.[name] ? Number(numberAt(baked[name], playback.frame).toPrecision(7)) : 0;
    const { x = now("x"), y = now("y"), ...others } = values;
    return { ...others, path: [Number(x), Number(y)] };
  }

  /** Whether such a change would only be looked at: keyed channels, with "key as I move" off. */
  const onlyLooks = (thing: SceneObject, values: Values): boolean =>
    !selection.keyAsIMove && Object.keys(onPath(thing, values)).some((channel) => hasKeys(thing, channel));

  /** Show a change while it is being made. */
  function show(thing: SceneObject, values: Values, moving = true): void {
    void scene.lookAt(merged(editsFor(thing, values, moving)), scene.look?.said ?? null);
  }

  /** Make a change; or, where it only looks, leave it on show with a way to keep it. */
  async function make(thing: SceneObject, values: Values, moving = false): Promise<void> {
    const edits = editsFor(thing, values, moving);
    if (!onlyLooks(thing, values)) {
      await scene.edit(edits);
      return;
    }
    const rows = new Set(
      vocabulary
        .channelsOf(thing)
        .filter((one) => one.name in values)
        .map((one) => one.row.toLowerCase()),
    );
    await scene.lookAt(merged(edits), `${whose(thing.name)} ${[...rows].join(" and ")} at frame ${playback.frame}`);
  }

  /** A look goes on from the one before: what it changes again is replaced, the rest stays. */
  function merged(edits: Edit[]): Edit[] {
    if (!scene.look?.said) return edits;
    const place = (edit: Edit): string => JSON.stringify({ ...edit, value: null });
    const fresh = new Set(edits.map(place));
    return [...scene.look.edits.filter((edit) => !fresh.has(place(edit))), ...edits];
  }

  /** Key some channels as they are at the playhead, or take those keys away if all have one there. */
  async function toggleKeys(thing: SceneObject, row: readonly string[]): Promise<void> {
    const channels = keyable(thing, row);
    const frame = playback.frame;
    const there = channels.filter((name) => keysOf(thing, name).some((key) => key.frame === frame));
    if (scene.look) {
      await scene.keepLook();
      return;
    }
    await scene.edit(
      there.length === channels.length
        ? channels.map((channel) => deleteKeys(thing.id, channel, [frame]))
        : channels
            .filter((name) => !there.includes(name))
            .map((channel): Edit => ({ edit: "set-key", object: thing.id, channel, frame })),
    );
  }

  return { show, make, onlyLooks, toggleKeys };
}
