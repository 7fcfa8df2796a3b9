/** Dials as objects with one channel, so that all that keys, eases and curves do works on them. */
import { plainObject } from "./plainObject";
import type { ChannelWords, Dial, DialThing, Follow } from "./types";

/** Prefix of a dial's id where an object's id is expected. */
const DIAL = "dial:";
export const isDial = (id: string | null | undefined): boolean => id?.startsWith(DIAL) ?? false;
export const dialOwner = (dial: Dial): string => DIAL + dial.id;

/** How a dial follows a sound unless told otherwise. */
export const FOLLOWS = { band: "all", attack: 0.02, release: 0.15 } satisfies Omit<Follow, "sound">;

export const dialThing = (dial: Dial): DialThing => ({
  ...plainObject(),
  kind: "dial",
  id: dialOwner(dial),
  name: dial.name,
  channels: { value: dial.channel ?? {} } as DialThing["channels"],
  dial,
});

/** Whether a dial holds colours. */
export const isColourDial = (dial: Dial): boolean =>
  typeof (dial.channel?.keys[0]?.value ?? dial.channel?.base) === "string";

/** Its value, told as a channel; steps fit its range, as the service's do. */
export function dialWords(dial: Dial): ChannelWords {
  const [low, high] = [dial.low ?? null, dial.high ?? null];
  const span = low !== null && high !== null ? high - low : 0;
  const colour = isColourDial(dial);
  const step = dial.unit === "%" || (span > 0 && span <= 5) ? 0.01 : span > 0 && span <= 50 ? 0.1 : 1;
  return {
    name: "value",
    label: "value",
    row: "Value",
    family: "look",
    unit: colour ? "colour" : (dial.unit ?? ""),
    default: colour ? "#FFFFFF" : (low ?? 0),
    low,
    high,
    step,
    shown: dial.unit === "%" ? 100 : 1,
    about: "The value that all linked channels read.",
  };
}
