/** Rules on the picked object: putting them on, changing, ordering, copying and removing them. */
import { still } from "@/api/channels";
import { newId } from "@/api/ids";
import { isColourDial } from "@/api/dials";
import { numberAt, valuesAt } from "@/api/motion";
import type { Channel, ChannelWords, Edit, Rule, RuleWords, SceneObject, SettingWords } from "@/api/types";
import { hexOf, rgbaOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Row, useVocabulary } from "@/stores/vocabulary";

type Settings = Rule["settings"];
const newRuleId = (): string => `r${newId()}`;

export function useRules() {
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

  /** A setting as it is written down: a word, or a channel. */
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

  /** Numbers "as the channel" are meant for whole pixels and degrees; a factor gets a hundredth. */
  const fitted = (
    words: RuleWords,
    settings: Readonly<Record<string, number | string>>,
    channel: ChannelWords,
  ): Settings => {
    const amounts = Object.fromEntries(
      words.settings.flatMap((one) =>
        one.unit === "as the channel" && typeof one.default === "number" ? [[one.name, one.default] as const] : [],
      ),
    );
    const scaled = Object.entries({ ...amounts, ...settings }).map(([name, value]) => {
      const same = words.settings.find((one) => one.name === name)?.unit === "as the channel";
      return [
        name,
        typeof value === "number"
          ? still(Number((same ? value * Math.min(1, channel.step) : value).toPrecision(6)))
          : value,
      ];
    });
    return Object.fromEntries(scaled) as Settings;
  };

  /** A tint begins with the first colour dial, as it is now: so nothing changes until the dial does. */
  function begunTint(): Settings {
    const dial = scene.dials.find((one) => isColourDial(one.dial));
    const rows = dial && scene.motion?.objects.get(dial.id)?.channels.value;
    const neutral = rows ? hexOf(valuesAt(rows, playback.frame)) : "";
    return (dial ? { dial: dial.dial.id, neutral } : {}) as Settings;
  }

  /**
   * What a rule begins with where the object itself says it: its floor lies in the picture below it, its radius is its
   * own.
   */
  function begun(words: RuleWords, thing: SceneObject): Settings {
    const baked = scene.motion?.objects.get(thing.id)?.channels;
    const now = (name: string): number => (baked?.[name] ? numberAt(baked[name], playback.frame) : 0);
    const height = scene.motion?.size[1] ?? 720;
    switch (words.kind) {
      case "tint":
        return begunTint();
      case "bounce":
        return {
          floor: still(Math.round(Math.max(height * 0.85, now("y") + 60))),
          start: still(playback.frame),
        } as Settings;
      case "mask": {
        // Most often something is masked by what lies right over it.
        const at = scene.objects.findIndex((one) => one.id === thing.id);
        const over = scene.objects.slice(at + 1).find((one) => thing.kind !== "dial" && one.parent === thing.parent);
        return (over && over.kind !== "camera" ? { by: over.id } : {}) as Settings;
      }
      case "roll":
        return baked?.["width"]
          ? ({ radius: still(Math.max(1, Math.round((now("width") * Math.abs(now("scale.x"))) / 2))) } as Settings)
          : {};
      default:
        return {};
    }
  }

  /** Settings with keys from the playhead on. */
  const moving = (moves: Readonly<Record<string, readonly (readonly [number, number])[]>>, loops: boolean): Settings =>
    Object.fromEntries(
      Object.entries(moves).map(([name, keys]) => [
        name,
        {
          ...still(keys[0]?.[1] ?? 0),
          keys: keys.map(([frame, value]) => ({
            frame: playback.frame + frame,
            value,
            ease: loops ? "linear" : "slow-out-in",
          })),
          after: { mode: loops ? "loop" : "hold", times: null },
        },
      ]),
    ) as unknown as Settings;

  const own = (rule: Rule) => ({ object: selection.objectId ?? "", rule: rule.id });
  const make = (edit: Edit) => scene.edit([edit]);

  interface Wanted {
    readonly words: RuleWords;
    readonly settings: Readonly<Record<string, number | string>>;
    readonly moves: Readonly<Record<string, readonly (readonly [number, number])[]>>;
    readonly loops: boolean;
  }

  /** The edit that puts a rule on a row of an object, and what it then acts on; null where the row has nothing for it. */
  function addEdit(thing: SceneObject, row: Row, channel: ChannelWords, wanted: Wanted): [Edit, string[]] | null {
    const { words, settings, moves, loops } = wanted;
    const channels = row.channels
      .filter((one) => one.unit !== "point" && (one.unit === "colour") === (words.of === "colour"))
      .map((one) => one.name);
    if (words.joints) {
      if (thing.kind !== "figure") return null;
      const limb = thing.figure.limbs.find((one) => channel.name.startsWith(`${one.id}.`));
      const told = words.settings.some((one) => one.names === "limb") && limb ? { limb: limb.id } : {};
      const joints = { id: newRuleId(), kind: words.kind, on: true, channels: "keyed", mode: "add" };
      const rule = { ...joints, settings: { ...told, ...settings } } as unknown as Rule;
      return [{ edit: "add-rule", object: thing.id, rule }, []];
    }
    // Place goes both ways together; of other rows the one channel that is looked at. Some rules are for channels of
    // their own.
    const meant =
      words.acts.length && words.of === "number"
        ? [...words.acts]
        : row.name === "Travel" || row.name === "Size"
          ? channels
          : channels.filter((name) => name === channel.name);
    if (!meant.length) return null;
    const rule = {
      id: newRuleId(),
      kind: words.kind,
      on: true,
      channels: meant,
      mode: words.modes[0] ?? "add",
      settings: { ...begun(words, thing), ...fitted(words, settings, channel), ...moving(moves, loops) },
    } as unknown as Rule;
    return [{ edit: "add-rule", object: thing.id, rule }, meant];
  }

  /** Put a rule on the picked row, with some settings other than its defaults; with several objects picked, on that row of each that has it. */
  async function add(
    words: RuleWords,
    settings: Readonly<Record<string, number | string>> = {},
    moves: Readonly<Record<string, readonly (readonly [number, number])[]>> = {},
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
    const meant = lead[1];
    if (meant.length && !meant.includes(channel.name))
      selection.pickRow(
        vocabulary.rowsOf(thing).find((one) => one.channels.some((other) => other.name === meant[0]))?.name ?? row.name,
        meant[0],
      );
  }

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

  /** A number setting without keys, or its default; null where it is off. */
  function plainOf(rule: Rule, name: string): number | null {
    const [setting, words] = [settingOf(rule, name), wordsOf(rule)?.settings.find((one) => one.name === name)];
    if (typeof setting === "object" && typeof setting.base === "number") return setting.base;
    return typeof words?.default === "number" ? words.default : null;
  }

  /** How a number setting is measured where its rule acts on a channel. */
  function measureOf(words: SettingWords, channel: ChannelWords): { unit: string; shown: number; step: number } {
    if (words.unit === "as the channel") return { unit: channel.unit, shown: channel.shown, step: channel.step };
    return { unit: words.unit, shown: 1, step: words.step };
  }

  /** The rule in one line, as it is at the playhead. */
  function summaryOf(rule: Rule, channel: ChannelWords): string {
    const words = wordsOf(rule);
    if (!words) return "";
    const filled = (part: string): string | null => {
      let lost = false;
      const text = part.replace(/\{([^}]+)\}/g, (_, names: string) => {
        for (const name of names.split("|")) {
          const setting = words.settings.find((one) => one.name === name);
          if (setting?.names === "object")
            return scene.byId.get(String(settingOf(rule, name) ?? ""))?.name ?? "nobody yet";
          if (setting?.names === "dial")
            return scene.dials.find((one) => one.dial.id === settingOf(rule, name))?.name ?? "no dial yet";
          if (setting?.names === "formula") return String(settingOf(rule, name) ?? setting.default);
          const value = setting ? numberOf(rule, setting) : null;
          if (!setting || value === null) continue;
          const { unit, shown } = measureOf(setting, channel);
          return `${Number((value * shown).toFixed(2))}${unit === "°" || unit === "%" ? unit : unit ? ` ${unit}` : ""}`;
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

  /** The number a setting has at the playhead, as its keys or its plain value say. Null where it is off. */
  function numberOf(rule: Rule, words: SettingWords): number | null {
    const setting = settingOf(rule, words.name);
    const baked = scene.motion?.objects.get(selection.objectId ?? "")?.channels[`${rule.id}:${words.name}`];
    if (baked && (keysOf(rule, words.name).length || formulaOf(rule, words.name) !== null))
      return Number(numberAt(baked, playback.frame).toPrecision(7));
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
    newId,
    formulaOf,
    retimeEdit,
    chainEdits,
    wordsOf,
    onChannel,
    settingOf,
    keysOf,
    numberOf,
    colourOf,
    add,
    toggle,
    remove,
    duplicate,
    move,
    copyEdits,
    plainOf,
    measureOf,
    summaryOf,
    setChannels,
    setMode,
    settingEdits,
    toggleKey,
    freeze,
  };
}
