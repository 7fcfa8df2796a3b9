/** Rules of the picked object: reading, telling, changing and adding them. */
import { describe, expect, it } from "vitest";
import { still } from "@/api/channels";
import type { Edit, Rule } from "@/api/types";
import { useRules } from "@/composables/rules/useRules";
import { usePlayback } from "@/stores/playback";
import { useVocabulary } from "@/stores/vocabulary";
import { baked, dial, keyed, rows, staged, thing } from "@/testing/stage";

const rule = (id: string, more: Partial<Rule> = {}): Rule =>
  ({
    id,
    kind: "oscillator",
    on: true,
    channels: ["x"],
    mode: "add",
    settings: { amplitude: still(12) },
    ...more,
  }) as unknown as Rule;

function scene(...rules: Rule[]) {
  const all = staged([thing("leaf", { rotation: keyed([0, 1], [9, 2]) }, { rules }), thing("moth")], {
    dials: [dial("dusk", 1)],
  });
  all.selection.pick("leaf");
  return { ...all, leaf: all.scene.byId.get("leaf")!, rules: useRules(), words: useVocabulary().words!.rules };
}
const added = (edit: Edit | undefined): Rule => (edit as unknown as { rule: Rule }).rule;

describe("rules", () => {
  it("act on channels they name, or on all that are keyed", () => {
    const [named, all] = [rule("a"), rule("b", { channels: "keyed" })];
    const { rules, leaf } = scene(named, all);
    expect(rules.onChannel(leaf, "x")).toEqual([named]);
    expect(rules.onChannel(leaf, "rotation")).toEqual([all]);
    expect(rules.onChannel(leaf, "y")).toEqual([]);
  });

  it("have settings as they are written, or as they are at the playhead", () => {
    const amplitude = keyed([0, 1], [9, 30]);
    const { rules, words } = scene(rule("a", { settings: { amplitude } as never }));
    baked({ leaf: { "a:amplitude": rows(1, 7) } });
    const [mine, [amount, frequency]] = [rule("a", { settings: { amplitude } as never }), words[0]!.settings];
    usePlayback().goTo(1);
    expect([rules.numberOf(mine, amount!), rules.numberOf(mine, frequency!)]).toEqual([7, 1]);
    expect([rules.plainOf(mine, "frequency"), rules.formulaOf(mine, "amplitude")]).toEqual([1, null]);
  });

  it("are told in a line, in the measure of what they act on, without what is not known", () => {
    const { rules } = scene(rule("a"));
    const [x, size] = ["x", "scale.x"].map((name) =>
      useVocabulary()
        .channelsOf(thing("leaf"))
        .find((one) => one.name === name)!,
    );
    expect(rules.summaryOf(rule("a"), x!)).toBe("12 px · 1 Hz · every 1 Hz");
    expect(rules.summaryOf(rule("a", { settings: { amplitude: still(0.12) } as never }), size!)).toBe(
      "12 % · 1 Hz · every 1 Hz",
    );
    expect(rules.summaryOf(rule("t", { kind: "tint", settings: { dial: "dusk" } }), x!)).toBe("to Dusk");
    expect(rules.summaryOf(rule("t", { kind: "tint", settings: {} }), x!)).toBe("to no dial yet");
  });

  it("are given values, as keys where a setting has some", async () => {
    const { rules, words, edits } = scene();
    usePlayback().goTo(5);
    const plain = rule("a");
    const moving = rule("a", { settings: { amplitude: keyed([5, 1], [9, 2]) } as never });
    expect(rules.settingEdits(plain, "amplitude", 4)).toEqual([
      { edit: "set-setting", object: "leaf", rule: "a", setting: "amplitude", value: 4 },
    ]);
    expect(rules.settingEdits(moving, "amplitude", 4)).toEqual([
      { edit: "set-key", object: "leaf", channel: "a:amplitude", frame: 5, value: 4 },
    ]);
    await rules.toggleKey(plain, words[0]!.settings[0]!);
    await rules.toggleKey(moving, words[0]!.settings[0]!);
    expect(edits).toMatchObject([
      [{ edit: "set-key", channel: "a:amplitude", frame: 5, value: 12 }],
      [{ edit: "delete-keys", channel: "a:amplitude", frames: [5] }],
    ]);
  });

  it("are moved past their neighbours on the same channel", async () => {
    const [a, other, b] = [rule("a"), rule("o", { channels: ["y"] }), rule("b")];
    const { rules, leaf, edits } = scene(a, other, b);
    await rules.move(leaf, a, "x", 1);
    await rules.move(leaf, a, "x", -1);
    expect(edits).toEqual([[{ edit: "move-rule", object: "leaf", rule: "a", index: 2 }]]);
  });

  it("are copied to others, each with chance of its own", () => {
    const { rules } = scene();
    const copies = rules.copyEdits(rule("a"), ["leaf", "moth"], "y", true);
    expect(copies.map((one) => (one as { object: string }).object)).toEqual(["leaf", "moth"]);
    const seeds = copies.map((one) => added(one).settings as unknown as { seed: { base: number } });
    expect(seeds.map((one) => one.seed.base)).toEqual([1, 2]);
    expect(added(copies[0]).channels).toEqual(["y"]);
    expect(added(copies[0]).id).not.toBe(added(copies[1]).id);
  });
});

describe("new rules", () => {
  it("act on both ways of a place, on one channel of other rows, and on the same row of all that are picked", async () => {
    const { rules, words, selection, edits } = scene();
    await rules.add(words[0]!, { amplitude: 8 });
    expect(added(edits[0]![0])).toMatchObject({
      kind: "oscillator",
      channels: ["x", "y"],
      mode: "add",
      settings: { amplitude: { base: 8 } },
    });
    selection.pickAll(["leaf", "moth"]);
    selection.pickRow("Rotation");
    await rules.add(words[0]!);
    expect(edits[1]!.map((one) => [(one as { object: string }).object, added(one).channels])).toEqual([
      ["leaf", ["rotation"]],
      ["moth", ["rotation"]],
    ]);
  });

  it("on colours act on colours alone", async () => {
    const { rules, words, selection, edits } = scene();
    selection.pickRow("Fill");
    await rules.add(words[1]!);
    expect(added(edits[0]![0]).channels).toEqual(["fill"]);
    selection.pickRow("Travel");
    await rules.add(words[1]!);
    expect(edits).toHaveLength(1);
  });
});
