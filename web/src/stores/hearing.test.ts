import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick } from "vue";
import type { KeptSound } from "@/api/types";
import { useHearing } from "@/stores/hearing";
import { baked, dial, rows, staged } from "@/testing/stage";

/** What was asked to be heard: when by the clock, from which second of its file, and how long. */
interface Asked {
  when: number;
  offset: number;
  duration: number;
  stopped: boolean;
  gain: number;
  curve: number[] | null;
}
let asked: Asked[];
let context: { currentTime: number; state: string; outputLatency: number };

beforeEach(() => {
  asked = [];
  context = { currentTime: 10, state: "running", outputLatency: 0.02 };
  class Node {
    own: Asked = { when: 0, offset: 0, duration: 0, stopped: false, gain: 1, curve: null };
    gain = { setValueCurveAtTime: (values: Float32Array) => (this.own.curve = [...values]) };
    constructor(_at: unknown, { gain }: { gain?: number }) {
      if (gain !== undefined) this.own.gain = gain;
    }
    connect(next: Node | string): Node | string {
      if (next instanceof Node) [this.own.gain, this.own.curve] = [next.own.gain, next.own.curve];
      return next;
    }
    start(when: number, offset: number, duration: number): void {
      asked.push(Object.assign(this.own, { when, offset, duration }));
    }
    stop = (): void => void (this.own.stopped = true);
    disconnect(): void {}
  }
  vi.stubGlobal("AudioContext", function () {
    return Object.assign(context, { destination: "out", resume: vi.fn() });
  });
  vi.stubGlobal("AudioBufferSourceNode", Node);
  vi.stubGlobal("GainNode", Node);
  vi.stubGlobal(
    "OfflineAudioContext",
    class {
      decodeAudioData = async (data: ArrayBuffer) => {
        if (data.byteLength === 0) throw new DOMException("no such kind");
        return { bytes: data.byteLength };
      };
    },
  );
});

const answer = (bytes: number) => ({ ok: true, arrayBuffer: async () => new ArrayBuffer(bytes) });
const fetched = vi.fn();
const sound = (id: string, first: number, seconds: number, more: Partial<KeptSound> = {}): KeptSound =>
  ({ id, name: id, file: `${id}.wav`, seconds, first, begin: 0, end: null, on: true, gain: 1, ...more }) as KeptSound;

/** The page with some sounds, all of them read. */
async function hearing(...sounds: KeptSound[]) {
  fetched
    .mockReset()
    .mockImplementation(async (path: string) => answer(path.includes("odd") && !path.includes("plain") ? 0 : 8));
  vi.stubGlobal("fetch", fetched);
  const stage = staged([], { sounds });
  const heard = useHearing();
  await vi.waitFor(() => expect(heard.buffers.size).toBe(new Set(sounds.map((one) => one.file)).size));
  heard.muted = false;
  return { ...stage, heard };
}
const RUN = { frame: 12, from: 0, to: 47, loop: false, fps: 24 };

describe("sounds in step with the playhead", () => {
  it("begin where the playhead is: inside those that have begun, later those that come", async () => {
    const { heard } = await hearing(sound("rain", 0, 4), sound("bell", 36, 0.5));
    heard.start(RUN);
    expect(
      asked.map(({ when, offset, duration }) => [when - 10.06, offset, duration].map((n) => +n.toFixed(6))),
    ).toEqual([
      [0, 0.5, 1.5],
      [1, 0, 0.5],
    ]);
  });

  it("are asked for round after round while they loop, a little ahead", async () => {
    const { heard } = await hearing(sound("bell", 0, 0.25));
    heard.start({ ...RUN, loop: true });
    // The first round has half a second left of two, without the bell; the next ones begin with it.
    expect(asked.map((one) => +(one.when - 10.06).toFixed(6))).toEqual([]);
    context.currentTime = 11;
    expect(heard.heard()).toBeCloseTo(0.92);
    expect(asked.map((one) => +(one.when - 10.06).toFixed(6))).toEqual([1.5]);
    context.currentTime = 13;
    heard.heard();
    expect(asked.map((one) => +(one.when - 10.06).toFixed(6))).toEqual([1.5, 3.5]);
  });

  it("fall silent when it stops, and nothing is gone by then", async () => {
    const { heard } = await hearing(sound("rain", 0, 4));
    heard.start(RUN);
    heard.stop();
    expect(asked.every((one) => one.stopped)).toBe(true);
    expect(heard.heard()).toBeNull();
  });

  it("are not heard where they are muted, off or without loudness", async () => {
    const { heard } = await hearing(
      sound("rain", 0, 4, { on: false }),
      sound("bell", 0, 1, { gain: 0 }),
      sound("drum", 0, 1),
    );
    heard.muted = true;
    heard.start(RUN);
    expect(asked).toEqual([]);
    heard.muted = false;
    heard.start({ ...RUN, frame: 0 });
    expect(asked.map((one) => one.duration)).toEqual([1]);
  });

  it("are as loud as their gain says, and as a dial says frame by frame", async () => {
    const { heard } = await hearing(
      sound("rain", 0, 4, { gain: 0.5, dial: "wind" }),
      sound("bell", 0, 1, { gain: 0.25 }),
    );
    baked({ "dial:wind": { value: rows(...Array.from({ length: 48 }, (_, frame) => frame / 47)) } });
    useHearing().start({ ...RUN, frame: 46 });
    expect(asked).toHaveLength(1);
    expect(asked[0]!.curve!.map((one) => +one.toFixed(4))).toEqual([0.4894, 0.5, 0.5]);
    heard.start({ ...RUN, frame: 0 });
    expect(asked.at(-1)).toMatchObject({ gain: 0.25, curve: null });
  });

  it("are heard for a moment at a frame that is gone to, and not while it plays", async () => {
    const { heard } = await hearing(sound("rain", 0, 4));
    heard.hearFrame(24, 24);
    expect(asked).toHaveLength(1);
    expect(asked[0]).toMatchObject({ offset: 1, stopped: false });
    expect(asked[0]!.duration).toBeCloseTo(0.09);
    heard.hearFrame(25, 24);
    expect(asked[0]!.stopped, "the next frame takes its place").toBe(true);
    heard.start(RUN);
    const count = asked.length;
    heard.hearFrame(3, 24);
    expect(asked).toHaveLength(count);
  });
});

describe("files of sounds", () => {
  it("come as plain samples where the browser does not know their kind", async () => {
    await hearing(sound("odd", 0, 1));
    expect(fetched.mock.calls.map(([path]) => path)).toEqual(["/api/sounds/odd.wav", "/api/sounds/odd.wav?plain=true"]);
  });

  it("are read once, and forgotten with their sound", async () => {
    const { scene, heard } = await hearing(sound("rain", 0, 1), sound("again", 9, 1, { file: "rain.wav" }));
    expect(fetched).toHaveBeenCalledOnce();
    scene.head = { ...scene.head!, dials: [dial("wind", 1)] };
    await nextTick();
    expect(fetched, "edits of anything else change nothing").toHaveBeenCalledOnce();
    scene.head = { ...scene.head!, sounds: [] };
    await nextTick();
    expect(heard.buffers.size).toBe(0);
  });
});
