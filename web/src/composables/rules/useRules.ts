/** Rules on the picked object: changing, ordering, copying and removing them. */
import { still } from "@/api/channels";
import { newRuleId } from "@/api/ids";
import type { Edit, Rule, SceneObject } from "@/api/types";
import { useNewRules } from "@/composables/rules/useNewRules";
import { useRuleReading } from "@/composables/rules/useRuleReading";
import { useRuleSettings } from "@/composables/rules/useRuleSettings";
import { useRuleSummary } from "@/composables/rules/useRuleSummary";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useRules() {
  const scene = useScene();
  const selection = useSelection();
  const reading = useRuleReading();
  const { wordsOf, onChannel, plainOf } = reading;
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

  const freeze = (channel: string, tolerance: number) =>
    make({ edit: "freeze-channel", object: selection.objectId ?? "", channel, tolerance });

  return {
    ...reading,
    ...useRuleSummary(reading),
    ...useRuleSettings(reading),
    add,
    toggle,
    remove,
    duplicate,
    move,
    copyEdits,
    setChannels,
    setMode,
    freeze,
  };
}
