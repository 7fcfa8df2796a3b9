import { nextTick } from "vue";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { BeatWords, KeptSound } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useSounds } from "@/stores/sounds";
import { said } from "@/testing/said";
import { staged } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { beats: vi.fn(), peaks: vi.fn(), readySounds: vi.fn() },
}));
const drum = {
  id: "drum",
  name: "Drum",
  file: "sound-1",
  seconds: 2,
  first: 0,
  begin: 0,
  end: null,
  on: true,
  gain: 1,
} as unknown as KeptSound;
const beats = (minute: number | null, ...frames: number[]): BeatWords => ({ minute, frames }) as unknown as BeatWords;

beforeEach(() => {
  vi.mocked(api.peaks).mockResolvedValue(new Uint8Array([255, 1]));
  vi.mocked(api.beats).mockResolvedValue(beats(120, 0, 12.4, 24));
});

describe("the even beat", () => {
  it("has a beat every so many frames, and a bar every so many of them, also before its first", () => {
    staged([], { beat: { minute: 120, first: 6, bar: 4 } as never });
    const frames = useSounds().beatFrames;
    expect(frames.map((one) => one.frame)).toEqual([6, 18, 30, 42]);
    expect(frames.map((one) => one.bar)).toEqual([true, false, false, false]);
    staged([], { beat: { minute: 60, first: 30, bar: 2 } as never });
    expect(useSounds().beatFrames).toEqual([
      { frame: 6, bar: false },
      { frame: 30, bar: true },
    ]);
  });
});

describe("what motion can be timed by", () => {
  it("are the beat, markers and sounds, in this order", async () => {
    staged([], { sounds: [drum], markers: [{ frame: 9, name: "" }], beat: { minute: 120, first: 0, bar: 4 } } as never);
    const sounds = useSounds();
    await vi.waitFor(() => expect(sounds.beats.size).toBe(1));
    expect(sounds.timers.map((one) => [one.by, one.frames.length])).toEqual([
      ["beat", 4],
      ["markers", 1],
      ["sound:drum", 3],
    ]);
    expect(sounds.snaps.filter((one) => one.to !== "the beat")).toEqual([
      { frame: 9, to: "a marker" },
      { frame: 0, to: "a beat of Drum" },
      { frame: 12, to: "a beat of Drum" },
      { frame: 24, to: "a beat of Drum" },
    ]);
    sounds.lay();
    expect(sounds.laying).toBe("beat");
  });

  it("can take its pace from a sound, if that has any", async () => {
    const { edits } = staged([], { sounds: [drum] } as never);
    const sounds = useSounds();
    await vi.waitFor(() => expect(sounds.beats.size).toBe(1));
    sounds.takeBeat(drum);
    expect(edits).toEqual([[{ edit: "set-beat", beat: { minute: 120, first: 0, bar: 4 } }]]);
    sounds.beats.set("drum", beats(null));
    sounds.takeBeat(drum);
    expect([edits.length, said.warn.length]).toEqual([1, 1]);
  });
});

describe("markers", () => {
  it("are laid and taken away where the playhead is", async () => {
    const { scene, edits } = staged([], { markers: [{ frame: 3, name: "a" }] } as never);
    usePlayback().goTo(8);
    await useSounds().tap();
    expect(edits[0]).toEqual([
      {
        edit: "set-markers",
        markers: [
          { frame: 3, name: "a" },
          { frame: 8, name: "" },
        ],
      },
    ]);
    scene.head = {
      ...scene.head!,
      markers: [
        { frame: 3, name: "a" },
        { frame: 8, name: "" },
      ],
    };
    await nextTick();
    await useSounds().tap();
    expect(edits[1]).toEqual([{ edit: "set-markers", markers: [{ frame: 3, name: "a" }] }]);
  });
});

describe("a sound", () => {
  it("comes in from the beginning, a short one where the playhead is; the first one may set the beat", async () => {
    const { edits } = staged([]);
    usePlayback().goTo(20);
    const sounds = useSounds();
    await sounds.add({ file: "sound-2", name: "drum loop", seconds: 2 }, 120);
    await sounds.add({ file: "sound-3", name: "knock", seconds: 0.2 });
    expect(edits[0]).toMatchObject([
      { edit: "add-sound", sound: { name: "drum loop", first: 0 } },
      { edit: "set-beat", beat: { minute: 120, first: 0, bar: 4 } },
    ]);
    expect(edits[1]).toMatchObject([{ edit: "add-sound", sound: { name: "knock", first: 20 } }]);
    expect(sounds.over(drum)).toBe(48);
  });
});
