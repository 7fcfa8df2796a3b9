/** Files that are brought into the scene: what they become, and what is informed of them. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { KeptPicture, TableWords } from "@/api/types";
import { bringsFiles, filesOf } from "@/composables/bringing/files";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { usePlayback } from "@/stores/playback";
import { staged, thing } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: {} }));
const service = api as unknown as Record<string, (file: File) => Promise<unknown>>;
const file = (name: string, content = "") => new File([content], name);
const page = (name: string): KeptPicture => ({ id: name, name, width: 40, height: 30 }) as unknown as KeptPicture;
const words = { columns: [] } as unknown as TableWords;

let bringing: ReturnType<typeof useBringIn>;
let stage: ReturnType<typeof staged>;
beforeEach(() => {
  stage = staged([thing("leaf")]);
  Object.assign(stage.scene, { edit: async (made: never) => (stage.edits.push(made), true) });
  bringing = useBringIn();
  bringing.forget();
  for (const name of Object.keys(service)) delete service[name];
  service.bringPicture = async (one) => {
    if (one.name.startsWith("torn")) throw new Error(`${one.name} breaks off: save it again.`);
    return {
      pictures: one.name.endsWith(".gif") ? [page("a"), page("b")] : [page(one.name)],
      seconds: one.name.endsWith(".gif") ? 0.25 : null,
    };
  };
});

describe("pictures", () => {
  it("become objects of their own, one a little beside the other, from the playhead on", async () => {
    usePlayback().goTo(6);
    await bringing.bring([file("parrot.png"), file("mail_bag.jpg")], { x: 100.4, y: 50 });
    expect(stage.edits).toHaveLength(1);
    expect(stage.edits[0]).toMatchObject([
      { edit: "add-picture", name: "parrot", x: 100, y: 50, first: 6, frames_a_page: 2 },
      { edit: "add-picture", name: "mail_bag", x: 124, y: 74, first: 6 },
    ]);
    expect(stage.selection.objectId).toBe((stage.edits[0]![0] as { id: string }).id);
  });

  it("that are numbered become the pages of one flipbook, in their order, and gaps are told", async () => {
    await bringing.bring(["run_10.png", "run_2.png", "run_1.png", "owl.png"].map((name) => file(name)));
    const [flipbook, owl] = stage.edits[0] as { name: string; pictures: KeptPicture[]; x: number }[];
    expect(flipbook!.pictures.map((one) => one.name)).toEqual(["run_1.png", "run_2.png", "run_10.png"]);
    expect([flipbook!.x, owl!.name], "in the middle of the picture").toEqual([320, "owl"]);
    expect(bringing.said.value).toEqual([
      "run: 3 pages, without 3–9.",
      "Not numbered like the others, so by itself: owl.png.",
    ]);
  });

  it("that move keep their pace", async () => {
    await bringing.bring([file("flap.gif")]);
    expect(stage.edits[0]).toMatchObject([{ frames_a_page: 6, pictures: [{ name: "a" }, { name: "b" }] }]);
  });

  it("that cannot be read are told of, and the others come all the same", async () => {
    await bringing.bring([file("torn.png"), file("owl.png")]);
    expect(bringing.said.value).toEqual(["torn.png breaks off: save it again."]);
    expect(stage.edits[0]).toMatchObject([{ name: "owl" }]);
    expect(bringing.progress.value, "nothing goes on any more").toBeNull();
  });
});

describe("drawings and scenes", () => {
  const parcel = {
    size: [200, 100],
    objects: [
      { id: "hut", name: "Hut", parent: null },
      { id: "door", name: "Door", parent: "hut" },
    ],
  };

  it("stand with their middle at the place, and what came of them is told", async () => {
    service.bringDrawing = async () => ({ scene: parcel, lost: ["a filter"] });
    await bringing.bring([file("hut.svg")], { x: 300, y: 200 });
    expect(stage.edits[0]).toMatchObject([{ edit: "place-parcel", x: 200, y: 150, frame: 0, hang: {} }]);
    expect(bringing.report.value).toMatchObject({ name: "hut.svg", lost: ["a filter"] });
    const [hut, door] = bringing.report.value!.parts;
    expect([hut!.depth, door!.depth]).toEqual([0, 1]);
    expect(stage.selection.objectId).toBe(hut!.id);
  });

  it("are no drawings if they are files of keys, whose keys go onto what is here", async () => {
    const tracks = [{ object: "leaf", channel: "x", keys: [] }];
    await bringing.bring([file("wave.json", JSON.stringify({ format: "vine-swing-keys", tracks }))]);
    expect(stage.edits[0]).toEqual([{ edit: "bring-keys", tracks }]);
    expect(bringing.said.value).toEqual(["wave.json: keys imported."]);
  });

  it("that the service refuses are told of, and nothing is changed", async () => {
    service.bringDrawing = () => Promise.reject(new Error("hut.svg has no size: give it a viewBox."));
    await bringing.bring([file("hut.svg")]);
    expect([stage.edits, bringing.said.value]).toEqual([[], ["hut.svg has no size: give it a viewBox."]]);
  });
});

describe("tables and sounds", () => {
  it("of numbers wait to be told which column goes where", async () => {
    service.bringTable = async () => words;
    await bringing.bring([file("tide.csv")]);
    expect(bringing.table.value).toEqual({ name: "tide.csv", words, sound: null });
    expect(stage.edits).toEqual([]);
  });

  it("are kept with the scene, and it is told if they are too long", async () => {
    service.bringSound = async () => ({ file: "abc", name: "rain", seconds: 1200, cut: true });
    service.peaks = async () => new Uint8Array();
    await bringing.bring([file("rain.wav")]);
    expect(stage.edits[0]).toMatchObject([{ edit: "add-sound", sound: { file: "abc" } }]);
    expect(bringing.said.value).toEqual(["rain.wav is very long: only its first 20 minutes are used."]);
  });
});

describe("a drag over the page", () => {
  it("brings files, or something else", () => {
    const dragged = (types: string[], files: File[]) => ({ dataTransfer: { types, files } }) as unknown as DragEvent;
    const owl = file("owl.png");
    expect(bringsFiles(dragged(["Files"], [owl]))).toBe(true);
    expect(filesOf(dragged(["Files"], [owl]))).toEqual([owl]);
    expect(bringsFiles(dragged(["text/plain"], []))).toBe(false);
    expect(filesOf({} as DragEvent)).toEqual([]);
  });
});
