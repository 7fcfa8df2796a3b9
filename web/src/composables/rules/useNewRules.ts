/** Putting new rules on the picked objects, with settings that fit where they are put. */
import { takesRules } from "@/api/channels";
import { newRuleId } from "@/api/ids";
import { isFigure } from "@/api/kinds";
import type { ChannelWords, Edit, Rule, RuleWords, SceneObject } from "@/api/types";
import { fitted, moving, type Moves } from "@/composables/rules/newSettings";
import { useRuleBeginnings } from "@/composables/rules/useRuleBeginnings";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Row, useVocabulary } from "@/stores/vocabulary";

/** A rule that is to be put somewhere: its settings other than its defaults, and the keys some of them get. */
interface Wanted {
  readonly words: RuleWords;
  readonly settings: Readonly<Record<string, number | string>>;
  readonly moves: Moves;
  readonly loops: boolean;
}

/** A rule on the joints of a figure: on those of the limb whose channel is looked at, where it is for one. */
function jointRule(thing: SceneObject, channel: ChannelWords, { words, settings }: Wanted): Rule | null {
  if (!isFigure(thing)) return null;
  const limb = thing.figure.limbs.find((one) => channel.name.startsWith(`${one.id}.`));
  const own = words.settings.some((one) => one.names === "limb") && limb ? { limb: limb.id } : {};
  const rule = { id: newRuleId(), kind: words.kind, on: true, channels: "keyed", mode: "add" };
  return { ...rule, settings: { ...own, ...settings } } as unknown as Rule;
}

/**
 * The channels a rule acts on where it is put on a row: of place and size both, of other rows the one that is looked
 * at. Some rules are for channels of their own.
 */
function actedOn(row: Row, channel: ChannelWords, words: RuleWords): string[] {
  if (words.acts.length && words.of === "number") return [...words.acts];
  const both = row.name === "Travel" || row.name === "Size";
  return row.channels
    .filter((one) => takesRules(one) && (one.unit === "colour") === (words.of === "colour"))
    .map((one) => one.name)
    .filter((name) => both || name === channel.name);
}

export function useNewRules() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();
  const { begun } = useRuleBeginnings();

  /**
   * The edit that puts a rule on a row of an object, and what it then acts on; null where the row has nothing for it.
   */
  function addEdit(thing: SceneObject, row: Row, channel: ChannelWords, wanted: Wanted): [Edit, string[]] | null {
    const { words, settings, moves, loops } = wanted;
    if (words.joints) {
      const rule = jointRule(thing, channel, wanted);
      return rule && [{ edit: "add-rule", object: thing.id, rule }, []];
    }
    const acted = actedOn(row, channel, words);
    if (!acted.length) return null;
    const rule = {
      id: newRuleId(),
      kind: words.kind,
      on: true,
      channels: acted,
      mode: words.modes[0] ?? "add",
      settings: {
        ...begun(words, thing),
        ...fitted(words, settings, channel),
        ...moving(moves, loops, playback.frame),
      },
    } as unknown as Rule;
    return [{ edit: "add-rule", object: thing.id, rule }, acted];
  }

  /**
   * Put a rule on the picked row, with some settings other than its defaults; with several objects picked, on that row
   * of each that has it.
   */
  async function add(
    words: RuleWords,
    settings: Readonly<Record<string, number | string>> = {},
    moves: Moves = {},
    loops = false,
  ): Promise<void> {
    const [thing, row, channel] = [selection.thing, selection.row, selection.channel];
    if (!thing || !row || !channel) return;
    const wanted = { words, settings, moves, loops };
    const lead = addEdit(thing, row, channel, wanted);
    if (!lead) return;
    const others = selection.others.flatMap((other): Edit[] => {
      const same = vocabulary.rowsOf(other).find((one) => one.name === row.name);
      const found = same?.channels.find((one) => one.name === channel.name);
      const added = same && found && addEdit(other, same, found, wanted);
      return added ? [added[0]] : [];
    });
    await scene.edit([lead[0], ...others]);
    // The vine shows what the rule does.
    const [shown] = lead[1];
    if (!shown || lead[1].includes(channel.name)) return;
    const rows = vocabulary.rowsOf(thing);
    selection.pickRow(rows.find((one) => one.channels.some((other) => other.name === shown))?.name ?? row.name, shown);
  }

  return { add };
}
