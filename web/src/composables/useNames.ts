/** What channels, settings and dials are called in sentences. */
import { isDial } from "@/api/kinds";
import type { Drive, Place } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

export function useNames() {
  const scene = useScene();
  const vocabulary = useVocabulary();

  const objectName = (id: string): string => scene.byId.get(id)?.name ?? "someone gone";

  /** A channel without its object, such as `rotation`, `travel x` or `noise amplitude`. */
  function channelName({ object, channel }: Place): string {
    const thing = scene.byId.get(object);
    if (!thing || isDial(thing)) return "";
    if (channel.includes(":")) {
      const [id, setting = ""] = channel.split(":");
      const rule = vocabulary.words?.rules.find((one) => one.kind === thing.rules.find((own) => own.id === id)?.kind);
      const label = rule?.settings.find((one) => one.name === setting)?.label ?? setting;
      return `${rule?.label.toLowerCase() ?? "rule"} ${label}`;
    }
    const words = vocabulary.channelsOf(thing).find((one) => one.name === channel);
    if (!words) return channel;
    const row = words.row.toLowerCase();
    return words.label.toLowerCase() === row || row === "rotation" ? row : `${row} ${words.label}`;
  }

  const placeName = (place: Place): string => `${objectName(place.object)} ${channelName(place)}`.trim();
  /** What drives: a channel, or the whole of an object where a figure walks on it, looks at it or holds on to it. */
  const driverWords = (one: Drive): string => (ofJoints(one) ? objectName(one.driver.object) : placeName(one.driver));
  const ruleWords = (kind: string) => vocabulary.words?.rules.find((one) => one.kind === kind);
  const ofJoints = (one: Drive): boolean => ruleWords(one.kind)?.joints === true;
  /** Who is driven, and by which setting if it is one: `Gear rotation`, `Leaf rotation (noise amplitude)`. */
  const drivenWords = (one: Drive): string =>
    (ofJoints(one)
      ? `${objectName(one.driven.object)} ${ruleWords(one.kind)!.label.toLowerCase()}`
      : placeName(one.driven)) +
    (one.setting ? ` (${channelName({ object: one.driven.object, channel: `${one.rule}:${one.setting}` })})` : "");

  return { objectName, channelName, placeName, driverWords, drivenWords };
}
