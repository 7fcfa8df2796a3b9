import { describe, expect, it } from "vitest";
import type { ChannelWords, RuleWords } from "@/api/types";
import { fitted, moving } from "@/composables/rules/newSettings";

const WORDS = {
  settings: [
    { name: "amplitude", unit: "as the channel", default: 20 },
    { name: "frequency", unit: "Hz", default: 1 },
    { name: "wave", unit: "", default: "sine" },
  ],
} as unknown as RuleWords;
const channel = (step: number): ChannelWords => ({ step }) as unknown as ChannelWords;

describe("settings of a new rule", () => {
  it("take amounts as they are for pixels and degrees, and a hundredth for factors", () => {
    expect(fitted(WORDS, {}, channel(1))).toMatchObject({ amplitude: { base: 20 } });
    expect(fitted(WORDS, {}, channel(0.01))).toMatchObject({ amplitude: { base: 0.2 } });
  });

  it("leave other numbers and words as they are given", () => {
    const given = fitted(WORDS, { frequency: 3, wave: "square", amplitude: 8 }, channel(0.01));
    expect(given).toMatchObject({ frequency: { base: 3 }, wave: "square", amplitude: { base: 0.08 } });
  });

  it("are keyed from a frame on; those that loop go on evenly", () => {
    const stops = {
      shift: [
        [0, 0],
        [24, 1],
      ],
    } as never;
    const { shift } = moving(stops, true, 10) as unknown as Record<string, never>;
    expect(shift).toMatchObject({
      base: 0,
      keys: [
        { frame: 10, value: 0, ease: "linear" },
        { frame: 34, value: 1, ease: "linear" },
      ],
      after: { mode: "loop", times: null },
    });
    const once = moving({ from: [[0, 1], [12, 0]] }, false, 0) as unknown as Record<string, never>; // prettier-ignore
    expect(once["from"]).toMatchObject({ keys: [{ ease: "slow-out-in" }, {}], after: { mode: "hold" } });
  });
});
