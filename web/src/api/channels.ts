/** Channels of an object by name, settings of its rules among them: those are named `rule:setting`. */
import type { Channel, ChannelWords, Key, Rule, RuleWords, SceneObject, SettingWords } from "./types";

/** Whether a channel holds numbers, and no colours, points, outlines, looks or words. */
export const holdsNumbers = (channel: { readonly unit: string }): boolean =>
  !["colour", "point", "outline", "look", "words"].includes(channel.unit);

/** Whether a value of a channel can be given in a field: a number, or a colour. */
export const hasField = (channel: { readonly unit: string }): boolean =>
  holdsNumbers(channel) || channel.unit === "colour";
/** Whether rules can act on a channel, as none can on the points of a path and on words. */
export const takesRules = ({ unit }: { readonly unit: string }): boolean => unit !== "point" && unit !== "words";

/** The name of the channel that says what a text says. */
export const WORDS = "text";
/** The words a key holds; null where it holds something else. */
export const wordsIn = (value: Key["value"]): string | null =>
  typeof value === "object" && "text" in value ? value.text : null;
/** The words a key holds as they stand within a sentence, cut short. */
export function quoted(said: string): string {
  const line = said.replaceAll("\n", " ");
  return `“${line.length > 40 ? `${line.slice(0, 39)}…` : line}”`;
}

/** A number as the picture reads it: whole, of a channel that counts. */
export function asRead({ whole }: Pick<ChannelWords, "whole">, value: number): number {
  return whole === "nearest" ? Math.round(value) : whole === "part" ? Math.floor(value) : value;
}

/** What a channel is called where many are listed: its row, and its own label where that says more. */
export const titleOf = ({ row, label }: ChannelWords): string =>
  label === row.toLowerCase() ? row : `${row} ${label}`;

/** A channel that never changes. */
export const still = (base: number | string): Channel => ({
  base,
  keys: [],
  before: { mode: "hold", times: null },
  after: { mode: "hold", times: null },
});

export const isSetting = (name: string): boolean => name.includes(":");

/** A channel in the file; undefined where it was never changed. */
export function channelOf(thing: SceneObject, name: string): Channel | undefined {
  if (!isSetting(name)) return thing.channels?.[name];
  const [id, setting = ""] = name.split(":");
  const found = thing.rules.find((rule) => rule.id === id)?.settings?.[setting];
  return typeof found === "object" ? (found as Channel) : undefined;
}

/** The keys of a channel. */
export const keysOf = (thing: SceneObject, name: string): readonly Key[] => channelOf(thing, name)?.keys ?? [];

/** The settings of an object's rules that have keys or a formula, each with its rule. */
export const keyedSettings = (thing: SceneObject): { rule: Rule; setting: string; name: string }[] =>
  thing.rules
    .flatMap((rule) =>
      Object.keys(rule.settings ?? {}).map((setting) => ({ rule, setting, name: `${rule.id}:${setting}` })),
    )
    .filter((one) => keysOf(thing, one.name).length > 0 || channelOf(thing, one.name)?.formula);

/** Every number and colour setting of an object's rules, with the words for both. */
export const rulesWithSettings = (
  thing: SceneObject,
  kinds: readonly RuleWords[],
): { rule: Rule; words: RuleWords; setting: SettingWords }[] =>
  thing.rules.flatMap((rule) => {
    const words = kinds.find((one) => one.kind === rule.kind);
    return (words?.settings ?? []).map((setting) => ({ rule, words: words!, setting }));
  });

/** The names of all channels with keys, settings included. */
export const keyedNames = (thing: SceneObject): string[] => [
  ...Object.entries(thing.channels ?? {}).flatMap(([name, channel]) => (channel.keys.length ? [name] : [])),
  ...keyedSettings(thing).map((one) => one.name),
];

/** The channels of a row that a leaf beside it keys: the path where there is one, else all that are no path. */
export function keyable(thing: SceneObject, channels: readonly string[]): readonly string[] {
  if (!channels.includes("path")) return channels;
  return hasKeys(thing, "path")
    ? channels.filter((name) => name === "path" || hasKeys(thing, name))
    : channels.filter((name) => name !== "path");
}

/** Whether a channel of an object has keys. */
export const hasKeys = (thing: SceneObject, channel: string): boolean => keysOf(thing, channel).length > 0;
