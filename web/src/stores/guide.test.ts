import { beforeEach, describe, expect, it } from "vitest";
import { nextTick } from "vue";
import { still } from "@/api/channels";
import { FIRST_SCENE } from "@/guide/firstScene";
import { useGuide } from "@/stores/guide";
import { usePlayback } from "@/stores/playback";
import { keyed, staged, thing } from "@/testing/stage";

let stage: ReturnType<typeof staged>;
let guide: ReturnType<typeof useGuide>;
beforeEach(() => {
  stage = staged([]);
  guide = useGuide();
  guide.leave();
});

describe("the guided first scene", () => {
  it("is off until it is begun, and then asks for the first thing", () => {
    expect([guide.on, guide.step]).toEqual([false, null]);
    guide.begin();
    expect(guide.step).toBe(FIRST_SCENE[0]);
    expect(guide.finished).toBe(false);
  });

  it("goes on by itself as things are done", async () => {
    guide.begin();
    stage.scene.objects = [thing("mango", { y: still(40) })];
    await nextTick();
    expect(guide.step?.title).toBe("First position");
    stage.scene.objects = [thing("mango", { y: keyed([0, 40]) })];
    await nextTick();
    expect(guide.step?.title, "a second place needs another frame").toBe("Another time");
    usePlayback().goTo(18);
    await nextTick();
    expect(guide.step?.title).toBe("Where it lands");
  });

  it("does not go on while it is off", async () => {
    stage.scene.objects = [thing("mango")];
    await nextTick();
    expect(guide.at).toBe(0);
  });

  it("is left and taken up again where one was, and from the beginning once it is over", () => {
    guide.begin();
    guide.skip();
    guide.skip();
    guide.leave();
    expect([guide.on, guide.begun, guide.at]).toEqual([false, true, 2]);
    guide.begin();
    expect(guide.at).toBe(2);
    while (!guide.finished) guide.skip();
    expect(guide.step).toBeNull();
    guide.leave();
    expect([guide.begun, guide.at]).toEqual([false, 0]);
  });
});
