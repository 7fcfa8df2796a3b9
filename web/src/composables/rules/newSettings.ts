/** Settings of new rules: those of their presets, fitted to the channel they are put on. */
import { still } from "@/api/channels";
import type { ChannelWords, Rule, RuleWords } from "@/api/types";

export type Settings = Rule["settings"];
/** Keys of settings: frame and value of each, counted from where the rule is put on. */
export type Moves = Readonly<Record<string, readonly (readonly [number, number])[]>>;

/** Numbers "as the channel" are meant for whole pixels and degrees; a factor gets a hundredth. */
export function fitted(
  words: RuleWords,
  settings: Readonly<Record<string, number | string>>,
  channel: ChannelWords,
): Settings {
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
}

/** Settings with keys from a frame on. */
export const moving = (moves: Moves, loops: boolean, from: number): Settings =>
  Object.fromEntries(
    Object.entries(moves).map(([name, keys]) => [
      name,
      {
        ...still(keys[0]?.[1] ?? 0),
        keys: keys.map(([frame, value]) => ({
          frame: from + frame,
          value,
          ease: loops ? "linear" : "slow-out-in",
        })),
        after: { mode: loops ? "loop" : "hold", times: null },
      },
    ]),
  ) as unknown as Settings;
