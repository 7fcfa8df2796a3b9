/** Turning a link made by hand into edits. */
import { newRuleId } from "@/api/ids";
import { api } from "@/api/client";
import { isSetting } from "@/api/channels";
import type { Edit, How, Place, Rule } from "@/api/types";
import { useScene } from "@/stores/scene";

export function useLinkEdits() {
  const scene = useScene();
  // Ids are kept while a dialog is open, so that a look and what is kept are the same edits.
  const ids = new Map<string, string>();
  const idFor = (place: Place): string => {
    const key = `${place.object} ${place.channel}`;
    if (!ids.has(key)) ids.set(key, newRuleId());
    return ids.get(key)!;
  };

  /** The formulas by which one drives others; or what is against it. */
  async function drafted(
    driver: Place,
    driven: readonly Place[],
    how: How,
    keepAt: number | null,
  ): Promise<readonly string[] | string> {
    try {
      return (await api.draftLink(scene.id!, { driver, driven: [...driven], how, keep_at: keepAt })).formulas;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  }

  /** Edits that put formulas on channels as rules, and on settings of rules as they are. */
  const linkEdits = (driven: readonly Place[], formulas: readonly string[]): Edit[] =>
    driven.map((place, i): Edit => {
      const formula = formulas[i] ?? formulas[0] ?? "";
      if (isSetting(place.channel)) {
        const [rule = "", setting = ""] = place.channel.split(":");
        return { edit: "link-setting", object: place.object, rule, setting, formula };
      }
      const rule = {
        id: idFor(place),
        kind: "link",
        on: true,
        channels: [place.channel],
        mode: "replace",
        settings: { formula },
      } as unknown as Rule;
      return { edit: "add-rule", object: place.object, rule };
    });

  /** Edits that have colours take a colour dial; with `neutral`, its colour now, nothing changes yet. */
  const tintEdits = (dial: string, driven: readonly Place[], share: number, neutral: string): Edit[] =>
    driven.map((place): Edit => {
      const settings = { dial, share: { base: share, keys: [] }, ...(neutral ? { neutral } : {}) };
      return {
        edit: "add-rule",
        object: place.object,
        rule: {
          id: idFor(place),
          kind: "tint",
          on: true,
          channels: [place.channel],
          mode: "add",
          settings,
        } as unknown as Rule,
      };
    });

  return { drafted, linkEdits, tintEdits };
}
