/** Putting new rules on the picked objects, with settings that fit where they are put. */
import { still } from "@/api/channels";
import { isColourDial } from "@/api/dials";
import { newId } from "@/api/ids";
import { numberAt, valuesAt } from "@/api/motion";
import type { ChannelWords, Edit, Rule, RuleWords, SceneObject } from "@/api/types";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Row, useVocabulary } from "@/stores/vocabulary";

type Settings = Rule["settings"];
type Moves = Readonly<Record<string, readonly (readonly [number, number])[]>>;
export const newRuleId = (): string => `r${newId()}`;

export function useNewRules() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

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
  const moving = (moves: Moves, loops: boolean): Settings =>
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

  interface Wanted {
    readonly words: RuleWords;
    readonly settings: Readonly<Record<string, number | string>>;
    readonly moves: Moves;
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
    const meant = lead[1];
    if (meant.length && !meant.includes(channel.name))
      selection.pickRow(
        vocabulary.rowsOf(thing).find((one) => one.channels.some((other) => other.name === meant[0]))?.name ?? row.name,
        meant[0],
      );
  }

  return { add };
}
