/** Moving pictures of cards: fetched when first seen, and played while seen. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick, ref, type Ref } from "vue";
import { useMotionInView } from "@/composables/useMotionInView";

const browser = vi.hoisted(() => ({ seen: null as Ref<boolean> | null, motion: null as Ref<string> | null }));
vi.mock("@vueuse/core", () => ({
  useElementVisibility: () => (browser.seen = ref(false)),
  usePreferredReducedMotion: () => (browser.motion = ref("no-preference")),
}));
vi.mock("@/api/motion", () => ({ readMotion: (message: Uint8Array) => ({ bytes: message.length }) }));

const fetched = vi.fn(async () => new Uint8Array(3));
beforeEach(() => fetched.mockClear());

describe("the moving picture of a card", () => {
  it("is fetched once, when it is first seen", async () => {
    const { motion } = useMotionInView(ref(), fetched);
    await nextTick();
    expect(fetched).not.toHaveBeenCalled();
    for (const seen of [true, false, true]) {
      browser.seen!.value = seen;
      await vi.waitFor(() => expect(motion.value).toEqual({ bytes: 3 }));
    }
    expect(fetched).toHaveBeenCalledTimes(1);
  });

  it("plays while it is seen; for who asked for little motion only under the pointer", () => {
    const { playing, pointed } = useMotionInView(ref(), fetched);
    expect(playing.value).toBe(false);
    browser.seen!.value = true;
    expect(playing.value).toBe(true);
    browser.motion!.value = "reduce";
    expect(playing.value).toBe(false);
    pointed.value = true;
    expect(playing.value).toBe(true);
    browser.seen!.value = false;
    expect(playing.value).toBe(false);
  });

  it("stays empty where it cannot be had, and is asked for again when it is seen again", async () => {
    fetched.mockRejectedValueOnce(new Error("gone"));
    const { motion } = useMotionInView(ref(), fetched);
    browser.seen!.value = true;
    await nextTick();
    await nextTick();
    expect(motion.value).toBeNull();
    browser.seen!.value = false;
    await nextTick();
    browser.seen!.value = true;
    await vi.waitFor(() => expect(motion.value).not.toBeNull());
  });
});
