import { beforeEach, describe, expect, it, vi } from "vitest";
import { effectScope, ref } from "vue";
import { thisPage } from "@/api/page";
import { useWatching } from "@/composables/useWatching";
import { useOthers } from "@/stores/others";
import { withWindow } from "@/testing/pointer";
import { said } from "@/testing/said";
import { staged } from "@/testing/stage";

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
