/** A rule of the picked object in one line, such as "12 px · every 8 frames". */
import type { ChannelWords, Rule, SettingWords } from "@/api/types";
import type { useRuleReading } from "@/composables/rules/useRuleReading";
import { spaced } from "@/geometry/frames";
import { useScene } from "@/stores/scene";

/** How a number setting is measured where its rule acts on a channel. */
export function measureOf(words: SettingWords, channel: ChannelWords): { unit: string; shown: number; step: number } {
  if (words.unit === "as the channel") return { unit: channel.unit, shown: channel.shown, step: channel.step };
  return { unit: words.unit, shown: 1, step: words.step };
}

/** The summary its words give, filled in with its settings at the playhead. */
export function useRuleSummary({ wordsOf, settingOf, numberOf }: ReturnType<typeof useRuleReading>) {
  const scene = useScene();

  /** What a setting names, or the formula it is; none where it is a number. */
  function nameOf(rule: Rule, { name, names, ...setting }: SettingWords): string | null {
    const written = settingOf(rule, name);
    if (names === "object") return scene.byId.get(String(written ?? ""))?.name ?? "nobody yet";
    if (names === "dial") return scene.dials.find((one) => one.dial.id === written)?.name ?? "no dial yet";
    return names === "formula" ? String(written ?? setting.default) : null;
  }

  /** The rule in one line, at the playhead. */
  function summaryOf(rule: Rule, channel: ChannelWords): string {
    const words = wordsOf(rule);
    if (!words) return "";
    const filled = (part: string): string | null => {
      let lost = false;
      const text = part.replace(/\{([^}]+)\}/g, (_, names: string) => {
        for (const name of names.split("|")) {
          const setting = words.settings.find((one) => one.name === name);
          const named = setting && nameOf(rule, setting);
          if (typeof named === "string") return named;
          const value = setting ? numberOf(rule, setting) : null;
          if (!setting || value === null) continue;
          const { unit, shown } = measureOf(setting, channel);
          return `${Number((value * shown).toFixed(2))}${spaced(unit)}`;
        }
        lost = true;
        return "";
      });
      return lost ? null : text;
    };
    return words.summary
      .split(" · ")
      .map(filled)
      .filter((part) => part !== null)
      .join(" · ");
  }

  return { summaryOf };
}
