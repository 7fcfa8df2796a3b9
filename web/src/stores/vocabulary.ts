/** What there is to choose from, asked of the service once. */
import { defineStore } from "pinia";
import { shallowRef } from "vue";
import { keyedSettings, takesRules } from "@/api/channels";
import { api } from "@/api/client";
import { dialWords } from "@/api/dials";
import { jointWords, partOf } from "@/api/figures";
import { isDial, isFigure, isShape, kindOf } from "@/api/kinds";
import type { ChannelWords, Ease, KeptFeel, KindWords, SceneObject, Vocabulary } from "@/api/types";

export type Family = ChannelWords["family"];

/** Channels that share a line of the values panel and a lane of the time sheet, as x and y do. */
export interface Row {
  readonly name: string;
  readonly family: Family;
  readonly channels: readonly ChannelWords[];
  /** The limb or other part of a figure it belongs to. */
  readonly part?: string | null;
}

/** The channels of a row, by name. */
export const namesOf = (row: Row): string[] => row.channels.map((channel) => channel.name);

export const useVocabulary = defineStore("vocabulary", () => {
  const words = shallowRef<Vocabulary | null>(null);
  const rowsByKind = new Map<string, readonly Row[]>();

  async function load(): Promise<void> {
    const [all, own] = await Promise.all([words.value ?? api.vocabulary(), api.feels()]);
    words.value = all;
    ownFeels.value = own;
  }

  /** The feels people have drawn, for all scenes. */
  const ownFeels = shallowRef<readonly KeptFeel[]>([]);
  async function readFeels(): Promise<void> {
    ownFeels.value = await api.feels();
  }

  /** What the service says of an object's kind; nothing for dials, which are no objects of the picture. */
  const kindWordsOf = (thing: SceneObject): KindWords | undefined =>
    words.value?.kinds.find((one) => one.name === thing.kind);
  const dialRows = new WeakMap<SceneObject, readonly Row[]>();
  const figureChannels = new WeakMap<object, readonly ChannelWords[]>();
  const channelsOf = (thing: SceneObject): readonly ChannelWords[] => {
    if (isDial(thing)) return [dialWords(thing.dial)];
    if (isShape(thing)) return shapeChannels(thing);
    if (!isFigure(thing) || !words.value) return words.value?.channels[kindOf(thing)] ?? [];
    if (!figureChannels.has(thing.figure))
      figureChannels.set(thing.figure, [
        ...(words.value.channels["group"] ?? []),
        ...jointWords(words.value.joints, thing.figure),
      ]);
    return figureChannels.get(thing.figure)!;
  };
  /** The channels of shapes by their type and how many stops their gradients have. */
  const byGradients = new Map<string, readonly ChannelWords[]>();
  const gradientsOf = (thing: SceneObject & { kind: "shape" }): string =>
    `${thing.shape.type} ${thing.paints.fill?.stops ?? 0} ${thing.paints.stroke?.stops ?? 0}`;
  function shapeChannels(thing: SceneObject & { kind: "shape" }): readonly ChannelWords[] {
    const plain = words.value?.channels[thing.shape.type] ?? [];
    if (!words.value || (!thing.paints.fill && !thing.paints.stroke)) return plain;
    const { gradients } = words.value;
    const key = gradientsOf(thing);
    if (!byGradients.has(key)) {
      const of = (part: "fill" | "stroke"): ChannelWords[] => {
        const stops = thing.paints[part]?.stops ?? 0;
        // The ends come first, then two channels a stop.
        return stops ? (gradients[part] ?? []).slice(0, 4 + 2 * stops) : [];
      };
      byGradients.set(key, [...plain, ...of("fill"), ...of("stroke")]);
    }
    return byGradients.get(key)!;
  }
  const figureRows = new WeakMap<object, readonly Row[]>();

  /** The rows of an object, in the order the panel shows them. */
  function rowsOf(thing: SceneObject): readonly Row[] {
    if (isDial(thing)) {
      if (!dialRows.has(thing)) dialRows.set(thing, [{ name: "Value", family: "look", channels: channelsOf(thing) }]);
      return dialRows.get(thing)!;
    }
    const kind = isShape(thing) ? gradientsOf(thing) : kindOf(thing);
    let rows = isFigure(thing) ? figureRows.get(thing.figure) : rowsByKind.get(kind);
    if (!rows && words.value) {
      const byName = new Map<string, Row & { channels: ChannelWords[] }>();
      for (const channel of channelsOf(thing)) {
        const part = isFigure(thing) ? partOf(thing.figure, channel.name) : null;
        const row = byName.get(channel.row) ?? { name: channel.row, family: channel.family, channels: [], part };
        row.channels.push(channel);
        byName.set(channel.row, row);
      }
      rows = [...byName.values()];
      if (isFigure(thing)) figureRows.set(thing.figure, rows);
      else rowsByKind.set(kind, rows);
    }
    return rows ?? [];
  }

  /** The drawn feel that an ease comes from, if it is kept. */
  function ownFeelOf(ease: Ease): KeptFeel | undefined {
    if (typeof ease !== "object" || !("points" in ease)) return undefined;
    const text = JSON.stringify(ease.points);
    return ownFeels.value.find((feel) => JSON.stringify(feel.ease.points) === text);
  }

  /** A row for every keyed setting of an object's rules, in the colour of what its rule acts on. */
  function settingRowsOf(thing: SceneObject): readonly Row[] {
    const kinds = new Map<string, number>();
    return keyedSettings(thing).flatMap(({ rule, setting, name }): Row[] => {
      const found = words.value?.rules.find((one) => one.kind === rule.kind);
      const spec = found?.settings.find((one) => one.name === setting);
      if (!found || !spec) return [];
      const acted = channelsOf(thing).find((one) =>
        found.of === "outline" || found.of === "look"
          ? one.name === found.of
          : rule.channels === "keyed"
            ? takesRules(one)
            : rule.channels.includes(one.name),
      );
      const same = spec.unit === "as the channel";
      const label = `${found.label} ${spec.label}`;
      const count = (kinds.get(label) ?? 0) + 1;
      kinds.set(label, count);
      const row = count > 1 ? `${label} ${count}` : label;
      const family = acted?.family ?? "look";
      const [unit, shown, step] = same
        ? [acted?.unit ?? "", acted?.shown ?? 1, acted?.step ?? 1]
        : spec.holds === "colour"
          ? ["colour" as const, 1, 1]
          : [(spec.unit === "°" ? "°" : "") as ChannelWords["unit"], 1, 0.05];
      return [
        {
          name: row,
          family,
          channels: [
            {
              name,
              label: spec.label,
              row,
              family,
              unit,
              default:
                spec.holds === "colour" ? String(spec.default) : typeof spec.default === "number" ? spec.default : 0,
              low: spec.low,
              high: spec.high,
              step,
              shown,
              about: spec.about,
            },
          ],
        },
      ];
    });
  }

  /** What a feel or ease is called. */
  function easeLabel(ease: unknown): string {
    if (ease === "hold") return "hold";
    if (ease === "linear") return "even";
    if (typeof ease === "string")
      return words.value?.feels.find((feel) => feel.name === ease)?.label.toLowerCase() ?? ease;
    return ownFeelOf(ease as Ease)?.name ?? "own feel";
  }

  return {
    kindWordsOf,
    words,
    load,
    channelsOf,
    rowsOf,
    settingRowsOf,
    easeLabel,
    ownFeels,
    readFeels,
    ownFeelOf,
  };
});
