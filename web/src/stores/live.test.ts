import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Cue } from "@/api/types";
import { said } from "@/testing/said";
import { staged, thing } from "@/testing/stage";

// The store listens to the window's keys from its first moment.
const pages = vi.hoisted(() => ({ window: new EventTarget() }));
vi.stubGlobal("window", pages.window);
const { cueKey, useLive } = await import("@/stores/live");

const hop = {
  id: "hop",
  name: "Hop",
  first: 10,
  last: 33,
  objects: ["frog"],
  key: "r",
  click: "frog",
  plays: "once",
} as unknown as Cue;
const sway = {
  ...hop,
  id: "sway",
  name: "Sway",
  first: 0,
  last: 11,
  objects: ["leaf"],
  key: "l",
  click: null,
  plays: "loop",
} as unknown as Cue;
const press = (name: "keydown" | "keyup", key: string): void => {
  const event = Object.assign(new Event(name), { key });
  pages.window.dispatchEvent(event);
};

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["performance"] });
  vi.stubGlobal("window", pages.window);
});
afterEach(() => vi.useRealTimers());

function played() {
  staged([thing("frog"), thing("tongue", {}, { parent: "frog" }), thing("leaf")], { cues: [hop, sway] } as never);
  const live = useLive();
  live.begin();
  return live;
}

describe("playing live", () => {
  it("needs a cue", () => {
    staged([]);
    useLive().begin();
    expect([useLive().on, said.warn.length]).toEqual([false, 1]);
  });

  it("lets what a cue moves run from its first frame, with all that hangs on it; the rest waits", () => {
    const live = played();
    press("keydown", "r");
    expect([live.frameOf("frog"), live.frameOf("tongue"), live.frameOf("leaf")]).toEqual([10, 10, 0]);
    expect([live.pressed, [...live.running]]).toEqual([1, ["hop"]]);
    live.end();
  });

  it("records what was pressed and when, in frames", () => {
    const live = played();
    press("keydown", "r");
    vi.advanceTimersByTime(500);
    press("keydown", "l");
    vi.advanceTimersByTime(1000);
    press("keydown", "Escape");
    expect(live.on).toBe(false);
    expect(live.recorded).toMatchObject([{ cue: "hop", at: 0 }, { cue: "sway", at: 12 }]); // prettier-ignore
  });

  it("hears clicks on what a cue is for, and on what hangs on it", () => {
    const live = played();
    live.click("tongue");
    expect([...live.running]).toEqual(["hop"]);
    live.end();
    live.click("leaf");
    expect(live.pressed).toBe(1);
  });

  it("calls keys by their name, whatever their case", () => {
    expect([cueKey({ key: " " } as KeyboardEvent), cueKey({ key: "R" } as KeyboardEvent)]).toEqual(["space", "r"]);
  });
});
