/** Figures, ready elements, what is told beside a drag, and following what other pages do. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { effectScope, ref } from "vue";
import { api } from "@/api/client";
import { thisPage } from "@/api/page";
import { useDragTag } from "@/composables/useDragTag";
import { useElements } from "@/composables/useElements";
import { useFigure } from "@/composables/useFigure";
import { useWatching } from "@/composables/useWatching";
import { useOthers } from "@/stores/others";
import { useVocabulary } from "@/stores/vocabulary";
import { withWindow } from "@/testing/pointer";
import { said } from "@/testing/said";
import { keyed, staged, thing, VOCABULARY } from "@/testing/stage";
import { still } from "@/api/channels";

vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: {} }));
const push = vi.hoisted(() => vi.fn());
/** The connection that a page asked for: its address, and what it is told. */
interface Asked {
  readonly address: { readonly value: string | undefined };
  readonly onConnected: (socket: object) => void;
  readonly onMessage: (socket: object, event: object) => void;
}
const asked = vi.hoisted(() => ({ last: null as unknown }));
vi.mock("@vueuse/core", async (original) => ({
  ...(await original<object>()),
  useWebSocket: (address: object, options: object) => ((asked.last = { address, ...options }), { send: vi.fn() }),
}));
vi.mock("vue-router", () => ({ useRouter: () => ({ push }) }));

const limb = (id: string, kind: string) => ({ id, name: id, kind, side: "near" });
const walker = (legs: number, settings: object = {}) =>
  thing("postie", {}, {
    kind: "figure",
    figure: { spine: [], head: [], limbs: Array.from({ length: legs }, (_, n) => limb(`leg-${n}`, "leg")), chains: [] },
    rules: [{ id: "walk", kind: "gait", on: true, channels: "keyed", settings }],
  } as never);

describe("the picked figure", () => {
  it("is the figure itself, or the one that the picked part hangs on by a bone", () => {
    const { selection } = staged([
      walker(2),
      thing("hat", {}, { parent: "postie", bone: "head.1" }),
      thing("cart", {}, { parent: "postie" }),
    ]);
    const { figure } = useFigure();
    expect(figure.value).toBeNull();
    for (const id of ["postie", "hat"]) {
      selection.pick(id);
      expect(figure.value?.id).toBe("postie");
    }
    selection.pick("cart");
    expect(figure.value, "it hangs on the whole, and is no part of the body").toBeNull();
  });

  it("has the gaits for as many pairs of legs as it has, and a gait whose settings are read and set", async () => {
    const { selection, edits } = staged([walker(4, { stride: still(90), bob: keyed([0, 1]), order: "wave" })]);
    const gaits = [
      { name: "stroll", pairs: [1] },
      { name: "trot", pairs: [2] },
    ];
    useVocabulary().words = { ...VOCABULARY, gaits } as never;
    selection.pick("postie");
    const figure = useFigure();
    expect(figure.gaits.value.map((one) => one.name)).toEqual(["trot"]);
    expect([figure.number("stride"), figure.number("lift"), figure.word("order")]).toEqual([90, null, "wave"]);
    await figure.set("stride", 120);
    await figure.choose("trot");
    await figure.freeze(4, 12);
    expect(edits.map(([one]) => one)).toMatchObject([
      { edit: "set-setting", object: "postie", rule: "walk", setting: "stride", value: 120 },
      { edit: "set-gait", id: "postie", preset: "trot", frame: 0 },
      { edit: "freeze-walk", first: 4, last: 12 },
    ]);
  });
});

describe("a ready element", () => {
  it("is put into the middle of the picture, and what holds it together is picked with its parts shown", async () => {
    const { selection, edits } = staged([]);
    const objects = [
      { id: "bell", parent: null },
      { id: "clapper", parent: "bell" },
    ];
    Object.assign(api, { elementFile: async () => JSON.stringify({ objects }) });
    expect(await useElements().putIn({ name: "bell", width: 100, height: 60 } as never)).toBe(true);
    const [{ prefix, ...edit }] = edits[0] as unknown as [{ prefix: string }];
    expect(edit).toEqual({ edit: "add-objects", objects, x: 270, y: 150 });
    expect([selection.objectId, selection.unfolded.has(`${prefix}-bell`)]).toEqual([`${prefix}-bell`, true]);
  });
});

describe("what is told beside a drag", () => {
  it("are the values it would have, below the lowest corner of the thing", () => {
    const drag = { values: ref<Record<string, number> | null>({ x: 12.04, rotation: 30, "scale.x": 1.5 }) };
    const path = { moving: ref(null) };
    const view = { onStage: (_: unknown, p: { x: number; y: number }) => ({ x: p.x, y: p.y + 100 }) };
    const tag = useDragTag(
      drag as never,
      path as never,
      view as never,
      ref([1, 0, 0, 1, 0, 0]) as never,
      ref({ left: 0, top: 0, right: 8, bottom: 4 }),
    );
    expect(tag.value).toEqual({ text: "x 12.0   turn 30.0°   wide 150.0 %", at: { x: 8, y: 104 } });
    drag.values.value = null;
    expect(tag.value).toBeNull();
  });
});

describe("another page on the scene", () => {
  beforeEach(() => {
    withWindow();
    Object.assign(window, { location: { protocol: "http:", host: "here" } });
    push.mockReset();
  });

  function watching() {
    const stage = staged([]);
    const caught = vi.fn(async () => undefined);
    Object.assign(stage.scene, { catchUp: caught });
    const scope = effectScope();
    scope.run(() => useWatching(ref("s1")));
    const connection = asked.last as Asked;
    const hear = (news: object) => connection.onMessage({}, { data: JSON.stringify(news) });
    return { ...stage, caught, hear, scope, connection };
  }

  it("is heard of by the address of the scene and this page, and what it does is taken up", () => {
    const { caught, hear, scope, connection } = watching();
    expect(connection.address.value).toBe(`ws://here/api/scenes/s1/watch?page=${thisPage}`);
    connection.onConnected({ send: vi.fn() });
    expect(caught, "something may have been missed before").toHaveBeenCalledTimes(1);
    const tell = vi.spyOn(useOthers(), "tell");
    hear({ news: "changed", revision: 4, what: "move Leaf", how: "made", by: { id: "other", name: "Ada" } });
    expect(caught).toHaveBeenLastCalledWith(4, "Ada");
    expect(tell).toHaveBeenCalledOnce();
    hear({ news: "changed", revision: 5, what: "move Leaf", how: "made", by: { id: thisPage, name: "me" } });
    expect(tell, "one's own doing is no news").toHaveBeenCalledOnce();
    scope.stop();
  });

  it("that deletes it sends this one back to the Shelf", () => {
    const { hear, scope } = watching();
    hear({ news: "gone" });
    expect(push).toHaveBeenCalledWith("/");
    expect(said.warn[0]).toContain("deleted on another page");
    scope.stop();
  });
});
