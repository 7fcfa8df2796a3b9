/** What is about to be exported: formats that are chosen, and a look at it that follows every change. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { effectScope, nextTick, ref } from "vue";
import { api, ServiceError } from "@/api/client";
import { useExportOptions } from "@/composables/useExportOptions";
import { useVocabulary } from "@/stores/vocabulary";
import { staged, VOCABULARY } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: {} }));
const service = api as unknown as Record<string, ReturnType<typeof vi.fn>>;
const format = (name: string, family: string, takes: string[], single = false) => ({ name, family, takes, single });
const FORMATS = [
  format("mp4", "film", ["quality", "blur"]),
  format("gif", "film", ["loops", "dither"]),
  format("png", "picture", [], true),
  format("wav", "sound", []),
];

const shown = ref(false);
/** The dialog's own time: what it watches ends with it. */
let open = effectScope();
function options(sounds: object[] = []) {
  const stage = staged([], { sounds } as never);
  useVocabulary().words = { ...VOCABULARY, formats: FORMATS } as never;
  return { ...stage, exported: open.run(() => useExportOptions(() => shown.value))! };
}
beforeEach(() => {
  vi.useFakeTimers();
  shown.value = false;
  service.lookAtExport = vi.fn(async () => ({ frames: 48 }));
  service.exportSize = vi.fn(async () => ({ size: 70_000 }));
  open = effectScope();
  return () => {
    open.stop();
    vi.useRealTimers();
  };
});
const rest = async () => {
  await nextTick();
  await vi.advanceTimersByTimeAsync(300);
};

describe("formats", () => {
  it("of sound alone are there where something is heard", () => {
    expect(options().exported.formats.value.map((one) => one.name)).toEqual(["mp4", "gif", "png"]);
    expect(options([{ on: true, gain: 1 }]).exported.formats.value.at(-1)!.name).toBe("wav");
    expect(options([{ on: true, gain: 0 }]).exported.formats.value).toHaveLength(3);
  });

  it("are chosen one alone, or several at once, and never none", () => {
    const { exported } = options();
    exported.choose("gif");
    exported.choose("mp4", true);
    expect(exported.chosen.value).toEqual(["gif", "mp4"]);
    expect([exported.looked.value!.name, [...exported.takes.value]]).toEqual([
      "gif",
      ["quality", "blur", "loops", "dither"],
    ]);
    exported.choose("gif", true);
    exported.choose("mp4", true);
    expect(exported.chosen.value).toEqual(["mp4"]);
    exported.choose("png");
    expect(exported.single.value).toBe(true);
  });

  it("that are gone are not chosen any more", async () => {
    const { exported, scene } = options([{ on: true, gain: 1 }]);
    exported.choose("wav");
    expect(exported.formats.value).toHaveLength(4);
    scene.head = { ...scene.head!, sounds: [] };
    await nextTick();
    expect(exported.chosen.value).toEqual(["mp4"]);
  });
});

describe("the look", () => {
  it("is asked for once things are quiet, while the dialog is open", async () => {
    const { exported } = options();
    exported.choose("gif");
    await rest();
    expect(service.lookAtExport).not.toHaveBeenCalled();
    shown.value = true;
    await nextTick();
    for (const loops of [1, 2, 3]) {
      exported.options.loops = loops;
      await nextTick();
    }
    expect([exported.looking.value, exported.look.value]).toEqual([true, null]);
    await rest();
    expect(service.lookAtExport).toHaveBeenCalledOnce();
    expect(service.lookAtExport!.mock.calls[0]![1]).toMatchObject({ format: "gif", loops: 3 });
    expect([exported.look.value, exported.size.value, exported.looking.value]).toEqual([{ frames: 48 }, 70_000, false]);
    exported.options.loops = 0;
  });

  it("says what is wrong instead, if it cannot be had", async () => {
    service.lookAtExport = vi.fn(() => Promise.reject(new ServiceError(422, "That is too large: take half the size.")));
    const { exported } = options();
    shown.value = true;
    await rest();
    expect([exported.look.value, exported.problem.value]).toEqual([null, "That is too large: take half the size."]);
  });

  it("that comes late counts no more", async () => {
    let first = (_: object): void => {};
    service.lookAtExport = vi.fn(() => new Promise((done) => (first = done)));
    const { exported } = options();
    shown.value = true;
    await rest();
    const late = first;
    service.lookAtExport = vi.fn(async () => ({ frames: 24 }));
    exported.options.first = 24;
    await rest();
    late({ frames: 48 });
    await rest();
    expect(exported.look.value).toEqual({ frames: 24 });
    exported.options.first = 0;
  });
});
