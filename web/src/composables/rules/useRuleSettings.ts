/** Giving settings of a rule of the picked object values and keys. */
import type { Edit, Rule, SettingWords } from "@/api/types";
import type { useRuleReading } from "@/composables/rules/useRuleReading";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useRuleSettings({ keysOf, numberOf, colourOf }: ReturnType<typeof useRuleReading>) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /**
   * Edits that give a setting a value: a key at the playhead if it has keys, else a plain one; null puts it back to
   * its default.
   */
  function settingEdits(rule: Rule, name: string, value: number | string | null): Edit[] {
    if (value !== null && keysOf(rule, name).length)
      return [
        {
          edit: "set-key",
          object: selection.objectId ?? "",
          channel: `${rule.id}:${name}`,
          frame: playback.frame,
          value,
        },
      ];
    return [{ edit: "set-setting", object: selection.objectId ?? "", rule: rule.id, setting: name, value }];
  }

  /** Key a setting at the playhead, or take that key away. */
  async function toggleKey(rule: Rule, words: SettingWords): Promise<void> {
    const channel = `${rule.id}:${words.name}`;
    const object = selection.objectId ?? "";
    const there = keysOf(rule, words.name).some((key) => key.frame === playback.frame);
    const value = words.holds === "colour" ? hexOf(colourOf(rule, words)) : (numberOf(rule, words) ?? words.low ?? 0);
    await scene.edit([
      there
        ? { edit: "delete-keys", object, channel, frames: [playback.frame], keep: "first", at: playback.frame }
        : { edit: "set-key", object, channel, frame: playback.frame, value },
    ]);
  }

  return { settingEdits, toggleKey };
}
