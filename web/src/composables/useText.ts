/** Writing and setting a text: looks while it is typed, one edit when it is done. */
import { hasKeys, keysOf, WORDS, wordsIn } from "@/api/channels";
import { isShape } from "@/api/kinds";
import { valuesAt } from "@/api/motion";
import type { Edit, SceneObject, TextShape } from "@/api/types";
import { isGivenName } from "@/composables/troupe/kinds";
import { useChanging } from "@/composables/useChanging";
import type { Values } from "@/composables/useValueEdits";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/** The shape of an object, if it is a text. */
export const textOf = (thing: SceneObject | null | undefined): TextShape | null =>
  isShape(thing) && thing.shape.type === "text" ? thing.shape : null;

/** What a change of a text gives the channel of its words, where that has keys. */
const keyedWords = (thing: SceneObject | undefined, { text }: Partial<TextShape>): Values | null =>
  thing && text !== undefined && hasKeys(thing, WORDS) ? { [WORDS]: { text } } : null;

export function useText() {
  const scene = useScene();
  const playback = usePlayback();
  const changing = useChanging();

  /** What a text says at the playhead: what its keys say there, or what is in its shape. */
  function saidBy(thing: SceneObject): string {
    const which = scene.kept?.objects.get(thing.id)?.channels[WORDS];
    const keys = keysOf(thing, WORDS);
    if (!which || !keys.length) return textOf(thing)?.text ?? "";
    const key = keys[valuesAt(which, playback.textFrame)[0] ?? 0];
    return (key && wordsIn(key.value)) ?? "";
  }

  const edit = (id: string, shape: TextShape, change: Partial<TextShape>): Edit => ({
    edit: "set-shape",
    id,
    shape: { ...shape, ...change },
  });

  /** Show a text as it would be. */
  function show(id: string, change: Partial<TextShape>): void {
    const thing = scene.byId.get(id);
    const shape = textOf(thing);
    const words = keyedWords(thing, change);
    if (thing && words) changing.show(thing, words, false);
    else if (shape) void scene.lookAt([edit(id, shape, change)]);
  }

  /**
   * Change a text; nothing happens where nothing differs. Where its words are keyed, other words are those at the
   * playhead.
   */
  async function set(id: string, change: Partial<TextShape>): Promise<void> {
    const thing = scene.byId.get(id);
    const shape = textOf(thing);
    const words = keyedWords(thing, change);
    if (thing && words) {
      if (change.text === saidBy(thing)) scene.letGo();
      else await changing.make(thing, words);
      return;
    }
    const differs = shape && Object.entries(change).some(([name, value]) => shape[name as keyof TextShape] !== value);
    if (!shape || !differs) scene.letGo();
    else await scene.edit([edit(id, shape, change), ...renamed(id, change.text)]);
  }

  /** A text is called by its words until somebody gives it another name. */
  function renamed(id: string, words: string | undefined): Edit[] {
    const name = words?.split("\n")[0]?.replace(/[{}@]/g, "").trim().slice(0, 40).trim();
    const before = scene.byId.get(id)?.name ?? "";
    if (!name || !isGivenName(before) || scene.objects.some((one) => one.name === name)) return [];
    return [{ edit: "rename-object", id, name }];
  }

  return { saidBy, show, set };
}
