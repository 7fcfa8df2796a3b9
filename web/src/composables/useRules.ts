/** Rules on the picked object: changing, ordering, copying and removing them. */
import { still } from "@/api/channels";
import type { Edit, Rule, SceneObject, SettingWords } from "@/api/types";
import { newRuleId, useNewRules } from "@/composables/useNewRules";
import { useRuleReading } from "@/composables/useRuleReading";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useRules() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const reading = useRuleReading();
  const { wordsOf, onChannel, keysOf, plainOf, numberOf, colourOf } = reading;
  const { add } = useNewRules();

  const own = (rule: Rule) => ({ object: selection.objectId ?? "", rule: rule.id });
  const make = (edit: Edit) => scene.edit([edit]);

  const toggle = (rule: Rule) => make({ edit: "set-rule", ...own(rule), on: !rule.on });
  const remove = (rule: Rule) => make({ edit: "delete-rule", ...own(rule) });
  const duplicate = (thing: SceneObject, rule: Rule) =>
    make({
      edit: "add-rule",
      object: thing.id,
      rule: { ...rule, id: newRuleId() },
      index: thing.rules.indexOf(rule) + 1,
    });
  const setChannels = (rule: Rule, channels: string[] | "keyed") =>
    scene.attempt([{ edit: "set-rule", ...own(rule), channels }]);
  const setMode = (rule: Rule, mode: Rule["mode"]) => make({ edit: "set-rule", ...own(rule), mode });

  /** A new retime rule on an object, after all its others. */
  const retimeEdit = (
    thing: SceneObject,
    channels: string[] | "keyed",
    { delay, speed }: { delay: number; speed: number },
    id: string,
  ): Edit => ({
    edit: "add-rule",
    object: thing.id,
    rule: {
      id,
      kind: "retime",
      on: true,
      channels,
      mode: "add",
      settings: { delay: still(delay), speed: still(speed) },
    } as Rule,
  });

  /** Rules that have some objects follow a leader one after the other, on one channel: each the one before it. */
  function chainEdits(
    leader: string,
    links: readonly string[],
    channel: string,
    how: { delay: number; share: number; spring: number | null; damping: number },
  ): Edit[] {
    return links.map((object, i): Edit => {
      const numbers = {
        delay: still(how.delay),
        share: still(how.share),
        ...(how.spring === null ? {} : { spring: still(how.spring), damping: still(how.damping) }),
      };
      const settings = { leader: i === 0 ? leader : links[i - 1]!, ...numbers };
      return {
        edit: "add-rule",
        object,
        rule: {
          id: newRuleId(),
          kind: "follow",
          on: true,
          channels: [channel],
          mode: "add",
          settings,
        } as unknown as Rule,
      };
    });
  }

  /** Move a rule before or after its neighbour among those that act on a channel. */
  async function move(thing: SceneObject, rule: Rule, channel: string, by: 1 | -1): Promise<void> {
    const list = onChannel(thing, channel);
    const neighbour = list[list.indexOf(rule) + by];
    if (neighbour) await make({ edit: "move-rule", ...own(rule), index: thing.rules.indexOf(neighbour) });
  }

  /** Put the same rule on other objects, or on another channel; if wanted each with chance of its own. */
  function copyEdits(rule: Rule, objects: readonly string[], channel: string | null, ownChance: boolean): Edit[] {
    const seed = Number(
      wordsOf(rule)?.settings.some((one) => one.name === "seed") ? (plainOf(rule, "seed") ?? 0) : NaN,
    );
    return objects.map((object, i): Edit => {
      const settings =
        ownChance && !Number.isNaN(seed) ? { ...rule.settings, seed: still(seed + 1 + i) } : rule.settings;
      return {
        edit: "add-rule",
        object,
        rule: { ...rule, id: newRuleId(), settings, ...(channel ? { channels: [channel] } : {}) } as Rule,
      };
    });
  }

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
    return [{ edit: "set-setting", ...own(rule), setting: name, value }];
  }

  /** Key a setting at the playhead, or take that key away. */
  async function toggleKey(rule: Rule, words: SettingWords): Promise<void> {
    const channel = `${rule.id}:${words.name}`;
    const object = selection.objectId ?? "";
    const there = keysOf(rule, words.name).some((key) => key.frame === playback.frame);
    const value = words.holds === "colour" ? hexOf(colourOf(rule, words)) : (numberOf(rule, words) ?? words.low ?? 0);
    await make(
      there
        ? { edit: "delete-keys", object, channel, frames: [playback.frame], keep: "first", at: playback.frame }
        : { edit: "set-key", object, channel, frame: playback.frame, value },
    );
  }

  const freeze = (channel: string, tolerance: number) =>
    make({ edit: "freeze-channel", object: selection.objectId ?? "", channel, tolerance });

  return {
    ...reading,
    add,
    toggle,
    remove,
    duplicate,
    move,
    copyEdits,
    retimeEdit,
    chainEdits,
    setChannels,
    setMode,
    settingEdits,
    toggleKey,
    freeze,
  };
}
