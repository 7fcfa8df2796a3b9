/** Changing values at the playhead: as keys, as plain values, or for looking only. */
import { deleteKeys } from "@/api/edits";
import { hasKeys, keyable, keysOf } from "@/api/channels";
import type { Edit, SceneObject } from "@/api/types";
import { useValueEdits, type Values } from "@/composables/useValueEdits";
import { whose } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

/** Edits that change values at the playhead, to be shown while they change and made at the end. */
export function useChanging() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();
  const { editsFor, onPath } = useValueEdits();

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

  /** A preview continues the previous one: repeated changes are replaced, others stay. */
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
