/** Values and keys of a channel that all picked objects have. */
import { keysOf } from "@/api/channels";
import { deleteKeys } from "@/api/edits";
import type { Edit, SceneObject } from "@/api/types";
import { usePicked } from "@/composables/several/usePicked";
import { keyable } from "@/api/channels";
import type { TypedChange } from "@/geometry/together";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export function useSharedKeys() {
  const scene = useScene();
  const selection = useSelection();
  const vocabulary = useVocabulary();
  const playback = usePlayback();
  const { together } = usePicked();

  /** Give one channel of all that have it a value, or change what each has. */
  const wish = (channel: string, { how, value }: TypedChange | { how: "set"; value: string }): Edit => ({
    edit: "change-values",
    ...together(),
    channel,
    how,
    value,
    key: false,
  });

  /** The channels of an object in a row that can have keys in any object. */
  const namesIn = (thing: SceneObject, row: string): string[] =>
    (vocabulary.rowsOf(thing).find((one) => one.name === row)?.channels ?? [])
      .map((one) => one.name)
      .filter((name) => name !== "outline" && name !== "look");

  /** Key a shared row at its current value, or remove its keys if all have one at this frame. */
  async function toggleKeys(row: string): Promise<void> {
    const frame = playback.frame;
    const all = selection.picked.flatMap((id) => {
      const thing = scene.byId.get(id);
      return thing ? keyable(thing, namesIn(thing, row)).map((channel) => ({ thing, channel })) : [];
    });
    const keyed = all.filter(({ thing, channel }) => keysOf(thing, channel).some((key) => key.frame === frame));
    if (!all.length) return;
    const channels = [
      ...new Set(selection.picked.flatMap((id) => (scene.byId.has(id) ? namesIn(scene.byId.get(id)!, row) : []))),
    ];
    await scene.edit(
      keyed.length === all.length
        ? all.map(({ thing, channel }) => deleteKeys(thing.id, channel, [frame]))
        : [{ edit: "key-objects", objects: [...selection.picked], channels, frame }],
    );
  }

  return { wish, toggleKeys };
}
