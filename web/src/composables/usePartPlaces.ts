/** What of the parts of a parade can differ from copy to copy. */
import { computed } from "vue";
import { hasField, titleOf, WORDS } from "@/api/channels";
import type { ChannelWords, SceneObject } from "@/api/types";
import { textOf } from "@/composables/useText";
import { useVocabulary } from "@/stores/vocabulary";

export interface PartPlace {
  readonly object: string;
  readonly channel: string;
  readonly says: string;
}

/** What a channel is called within a sentence. That a rotation turns goes without saying. */
const saidOf = (channel: ChannelWords): string =>
  (channel.row === "Rotation" ? channel.row : titleOf(channel)).toLowerCase();

/** The words and channels of some parts; of each part the words first, then the channels in `first`, in their order. */
export function usePartPlaces(parts: () => readonly SceneObject[], first: readonly string[]) {
  const vocabulary = useVocabulary();
  const rank = (name: string): number => (first.includes(name) ? first.indexOf(name) : first.length);
  return computed(() =>
    parts().flatMap((part): PartPlace[] => {
      const channels = vocabulary
        .channelsOf(part)
        .filter(hasField)
        .map((channel) => ({ object: part.id, channel: channel.name, says: `${part.name}: ${saidOf(channel)}` }))
        .sort((a, b) => rank(a.channel) - rank(b.channel));
      return textOf(part) ? [{ object: part.id, channel: WORDS, says: `${part.name}: words` }, ...channels] : channels;
    }),
  );
}
