/** What there is to choose from, asked of the service once. */
import { defineStore } from "pinia";
import { shallowRef } from "vue";
import { api } from "@/api/client";
import type { ChannelWords, SceneObject, Vocabulary } from "@/api/types";

export type Family = ChannelWords["family"];

/** Channels that share a line of the values panel and a lane of the time sheet, as x and y do. */
export interface Row {
  readonly name: string;
  readonly family: Family;
  readonly channels: readonly ChannelWords[];
}

/** Nothing shows depth yet, so nobody is asked for it. */
const UNSHOWN = new Set(["depth"]);

export const useVocabulary = defineStore("vocabulary", () => {
  const words = shallowRef<Vocabulary | null>(null);
  const rowsByKind = new Map<string, readonly Row[]>();

  async function load(): Promise<void> {
    words.value ??= await api.vocabulary();
  }

  const kindOf = (thing: SceneObject): string => (thing.kind === "group" ? "group" : thing.shape.type);
  const channelsOf = (thing: SceneObject): readonly ChannelWords[] => words.value?.channels[kindOf(thing)] ?? [];

  /** The rows of an object, in the order the panel shows them. */
  function rowsOf(thing: SceneObject): readonly Row[] {
    const kind = kindOf(thing);
    let rows = rowsByKind.get(kind);
    if (!rows && words.value) {
      const byName = new Map<string, Row & { channels: ChannelWords[] }>();
      for (const channel of channelsOf(thing)) {
        if (UNSHOWN.has(channel.name)) continue;
        const row = byName.get(channel.row) ?? { name: channel.row, family: channel.family, channels: [] };
        row.channels.push(channel);
        byName.set(channel.row, row);
      }
      rows = [...byName.values()];
      rowsByKind.set(kind, rows);
    }
    return rows ?? [];
  }

  /** What a feel or ease is called. */
  function easeLabel(ease: unknown): string {
    if (ease === "hold") return "hold";
    if (ease === "linear") return "even";
    if (typeof ease === "string") return words.value?.feels.find((feel) => feel.name === ease)?.label.toLowerCase() ?? ease;
    return "own feel";
  }

  return { words, load, kindOf, channelsOf, rowsOf, easeLabel };
});
