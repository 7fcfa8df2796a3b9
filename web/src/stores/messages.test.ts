import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { VNode } from "vue";
import { ServiceError, STOPPED } from "@/api/client";
import { useMessages } from "@/stores/messages";

vi.unmock("@/stores/messages");
const shown = vi.hoisted(() => ({ all: [] as Record<string, unknown>[], closed: 0 }));
vi.mock("element-plus/es/components/message/style/css", () => ({}));
vi.mock("element-plus", () => ({
  ElMessage: (message: Record<string, unknown>) => (shown.all.push(message), { close: () => (shown.closed += 1) }),
}));

let messages: ReturnType<typeof useMessages>;
beforeEach(() => {
  setActivePinia(createPinia());
  messages = useMessages();
  [shown.all, shown.closed] = [[], 0];
});
const refuse = (status: number) => () => Promise.reject(new ServiceError(status, "The rope is too short: take 40 px."));

describe("messages", () => {
  it("go by themselves if they only tell, and stay if they say what to do", () => {
    messages.info("Kept.");
    messages.warn("Nothing moves yet.");
    messages.error("It cannot be read.");
    expect(shown.all.map(({ type, duration }) => [type, duration])).toEqual([
      ["success", 3500],
      ["warning", 8000],
      ["error", 0],
    ]);
  });

  it("tell what the service refuses, and hand on what it answers", async () => {
    expect(await messages.attempt(async () => 7)).toBe(7);
    expect(shown.all).toEqual([]);
    expect(await messages.attempt(refuse(422))).toBeNull();
    expect(shown.all[0]).toMatchObject({ type: "error", message: "The rope is too short: take 40 px." });
  });

  it("do not take what somebody stopped for a fault, nor hide a fault of the page", async () => {
    expect(await messages.attempt(refuse(STOPPED))).toBeNull();
    expect(shown.all[0]).toMatchObject({ type: "success" });
    await expect(messages.attempt(() => Promise.reject(new TypeError("no such thing")))).rejects.toThrow(TypeError);
  });

  it("offer to take back what they tell of, once", () => {
    const undo = vi.fn();
    messages.withUndo("Leaf is gone.", "Bring it back", undo);
    const [text, , button] = (shown.all[0]!.message as VNode).children as [string, string, VNode];
    expect(text).toBe("Leaf is gone.");
    expect(button.children).toBe("Bring it back");
    (button.props as { onClick: () => void }).onClick();
    expect(undo).toHaveBeenCalledOnce();
    expect(shown.closed).toBe(1);
  });
});
