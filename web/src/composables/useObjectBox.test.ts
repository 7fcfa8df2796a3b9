import { describe, expect, it } from "vitest";
import { useObjectBox } from "@/composables/useObjectBox";
import { handAt, withWindow } from "@/testing/pointer";
import { laid, staged, thing } from "@/testing/stage";

describe("objects in a box", () => {
  it("are picked where they lie wholly in it, but for what is locked", () => {
    withWindow();
    const { selection } = staged([thing("leaf"), thing("stone"), thing("post", {}, { locked: true })]);
    laid({ leaf: [50, 50, 20, 20], stone: [150, 50, 20, 20], post: [80, 50, 20, 20] });
    const box = useObjectBox(((event: PointerEvent) => ({ x: event.clientX, y: event.clientY })) as never);
    const hand = handAt(box.begin, [30, 30]).move([32, 31]);
    expect(box.shown.value, "a shaky click draws none").toBeNull();
    hand.move([145, 70]);
    expect(selection.picked).toEqual(["leaf"]);
    hand.move([170, 70]).drop();
    expect([...selection.picked].sort()).toEqual(["leaf", "stone"]);
    expect(box.shown.value).toBeNull();
    selection.pick("leaf");
    handAt(box.begin, [130, 30], { shiftKey: true }).move([170, 70]).drop();
    expect([...selection.picked].sort(), "besides what is picked").toEqual(["leaf", "stone"]);
  });
});
