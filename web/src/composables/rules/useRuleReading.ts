/** Rules of the selected object: their channels, and their settings at the playhead. */
import { writtenAt, valuesAt } from "@/api/motion";
import type { Channel, Rule, RuleWords, SceneObject, SettingWords } from "@/api/types";
import { rgbaOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export function useRuleReading() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  const wordsOf = (rule: { kind: string }): RuleWords | undefined =>
    vocabulary.words?.rules.find((one) => one.kind === rule.kind);
  const acts = (thing: SceneObject, rule: Rule, channel: string): boolean => {
    const keyed = (name: string): boolean => (thing.channels?.[name]?.keys.length ?? 0) > 0;
    if (channel === "look") return rule.channels.includes(channel);
    // Of the rules on all that is keyed, few know what to do with an outline.
    if (channel === "outline" && !wordsOf(rule)?.on_outlines) return false;
    return rule.channels === "keyed"
      ? keyed(channel) || ((channel === "x" || channel === "y") && keyed("path"))
      : rule.channels.includes(channel);
  };
  /** The rules on a channel, in order. */
  const onChannel = (thing: SceneObject, channel: string): Rule[] =>
    thing.rules.filter((rule) => acts(thing, rule, channel));

  /** A stored setting: a word or a channel. */
  const settingOf = (rule: Rule, name: string): Channel | string | undefined =>
    rule.settings?.[name] as Channel | string | undefined;
  const keysOf = (rule: Rule, name: string) => {
    const setting = settingOf(rule, name);
    return typeof setting === "object" ? setting.keys : [];
  };

  /** The formula a setting has, or null. */
  function formulaOf(rule: Rule, name: string): string | null {
    const setting = settingOf(rule, name);
    return typeof setting === "object" ? (setting.formula ?? null) : null;
  }

  /** A number setting without keys, or its default; null where it is off. */
  function plainOf(rule: Rule, name: string): number | null {
    const [setting, words] = [settingOf(rule, name), wordsOf(rule)?.settings.find((one) => one.name === name)];
    if (typeof setting === "object" && typeof setting.base === "number") return setting.base;
    return typeof words?.default === "number" ? words.default : null;
  }

  /** The number a setting has at the playhead, as its keys or its plain value say. Null where it is off. */
  function numberOf(rule: Rule, words: SettingWords): number | null {
    const setting = settingOf(rule, words.name);
    const baked = scene.motion?.objects.get(selection.objectId ?? "")?.channels[`${rule.id}:${words.name}`];
    if (baked && (keysOf(rule, words.name).length || formulaOf(rule, words.name) !== null))
      return writtenAt(baked, playback.frame);
    if (typeof setting === "object" && typeof setting.base === "number") return setting.base;
    return typeof words.default === "number" ? words.default : null;
  }

  /** The colour a setting has at the playhead. */
  function colourOf(rule: Rule, words: SettingWords): ArrayLike<number> {
    const baked = scene.motion?.objects.get(selection.objectId ?? "")?.channels[`${rule.id}:${words.name}`];
    if (baked && keysOf(rule, words.name).length) return valuesAt(baked, playback.frame);
    const setting = settingOf(rule, words.name);
    const written = typeof setting === "object" ? setting.base : setting;
    return rgbaOf(typeof written === "string" ? written : String(words.default));
  }

  return { wordsOf, onChannel, settingOf, keysOf, formulaOf, plainOf, numberOf, colourOf };
}
