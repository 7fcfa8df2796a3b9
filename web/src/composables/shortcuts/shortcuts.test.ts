/** The workspace's keyboard: how a press is written, and what the keys of time, keys and picked objects do. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useKeyShortcuts } from "@/composables/shortcuts/useKeyShortcuts";
import { usePageShortcuts } from "@/composables/shortcuts/usePageShortcuts";
import { usePickedShortcuts } from "@/composables/shortcuts/usePickedShortcuts";
import { useTimeShortcuts } from "@/composables/shortcuts/useTimeShortcuts";
import { keyOf } from "@/composables/useShortcuts";
import { usePanels } from "@/stores/panels";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useTimeView } from "@/stores/timeView";
import { withWindow } from "@/testing/pointer";
import { baked, keyed, staged, thing } from "@/testing/stage";

// What opens dialogs and goes to other pages is not looked at here.
vi.mock("vue-router", () => ({ useRouter: () => ({ push: vi.fn() }), useRoute: () => ({ params: {}, query: {} }) }));

function keyboard() {
  withWindow();
  const stage = staged([
    thing("post", { x: keyed([4, 0], [20, 9]) }),
    thing("arm", {}, { parent: "post" }),
    thing("leaf", { x: keyed([10, 0]) }),
  ]);
  baked({ post: {}, arm: {}, leaf: {} });
  const actions = {
    nudge: vi.fn(),
    drawing: vi.fn((_: string) => false),
    points: vi.fn((_: string) => false),
    ...{
      shortcuts: vi.fn(),
      help: vi.fn(),
      find: vi.fn(),
      export: vi.fn(),
      add: vi.fn(),
      live: vi.fn(),
      zoom: vi.fn(),
    },
  };
  const all = [
    ...useTimeShortcuts(),
    ...useKeyShortcuts(actions),
    ...usePickedShortcuts(actions),
    ...usePageShortcuts(actions),
  ];
  const press = (key: string): void => all.find((one) => one.keys.includes(key))!.run(key);
  return { ...stage, all, actions, press, playback: usePlayback(), picks: usePicks() };
}
let one: ReturnType<typeof keyboard>;
beforeEach(() => (one = keyboard()));

describe("a press", () => {
  const key = (name: string, held: object = {}) => keyOf({ key: name, ...held } as KeyboardEvent);

  it("is written with what is held, in one order", () => {
    expect([key(" "), key("a"), key("A", { shiftKey: true }), key("ArrowUp", { altKey: true })]).toEqual([
      "Space",
      "a",
      "Shift+a",
      "Alt+ArrowUp",
    ]);
    expect(key("Z", { ctrlKey: true, shiftKey: true })).toBe("Ctrl+Shift+z");
    expect(key("z", { metaKey: true }), "of another machine").toBe("Ctrl+z");
  });

  it("of a character is that character, however it comes about", () => {
    expect([key("?", { shiftKey: true }), key("<", { shiftKey: true }), key("{", { shiftKey: true })]).toEqual([
      "?",
      "<",
      "{",
    ]);
  });
});

describe("the table", () => {
  it("has no key twice, and says what each does", () => {
    const keys = one.all.flatMap((each) => each.keys);
    expect(new Set(keys).size).toBe(keys.length);
    expect(one.all.every((each) => each.says && each.group)).toBe(true);
  });
});

describe("keys of time", () => {
  it("go from frame to frame, to the ends of the range, and from key to key", () => {
    one.selection.pick("post");
    one.playback.goTo(10);
    one.press(".");
    expect(one.playback.frame).toBe(11);
    one.press(",");
    one.press(">");
    expect(one.playback.frame).toBe(20);
    one.press("<");
    expect(one.playback.frame, "the key before, of the picked row or of any").toBeLessThan(20);
    one.playback.setRange(6, 30);
    one.press("End");
    expect(one.playback.frame).toBe(30);
    one.press("Home");
    expect(one.playback.frame).toBe(6);
  });

  it("zoom the time sheet, and bring all of it back", () => {
    const time = useTimeView();
    const before = time.perFrame;
    one.press("i");
    expect(time.perFrame).toBeGreaterThan(before);
    one.press("u");
    expect(time.perFrame).toBe(before);
    const loops = one.playback.loop;
    one.press("l");
    expect(one.playback.loop).toBe(!loops);
  });
});

describe("keys of keys", () => {
  it("set a key on the picked row, and take it away again", async () => {
    one.selection.pick("leaf");
    one.playback.goTo(10);
    one.press("k");
    await vi.waitFor(() => expect(one.edits).toHaveLength(1));
    expect(one.edits[0]).toMatchObject([{ edit: "set-key", channel: "y", frame: 10 }]);
    one.playback.goTo(12);
    one.press("k");
    await vi.waitFor(() => expect(one.edits).toHaveLength(2));
    expect(one.edits[1]!.map((edit) => (edit as { channel: string }).channel)).toEqual(["x", "y"]);
  });

  it("let go of one thing after the other: what is drawn, a look, points, leaves, the object", () => {
    one.selection.pick("post");
    one.press("Ctrl+Shift+a");
    expect(one.picks.count).toBe(2);
    one.actions.drawing.mockReturnValueOnce(true);
    one.press("Escape");
    one.actions.points.mockReturnValueOnce(true);
    one.press("Escape");
    expect([one.picks.count, one.selection.objectId]).toEqual([2, "post"]);
    one.press("Escape");
    expect([one.picks.count, one.selection.objectId]).toEqual([0, "post"]);
    one.press("Escape");
    expect(one.selection.objectId).toBeNull();
  });
});

describe("keys of picked objects", () => {
  it("pick all that hangs on nothing, and all others instead", () => {
    one.press("Ctrl+Alt+a");
    expect(one.selection.picked).toEqual(["post", "leaf"]);
    one.selection.pick("leaf");
    one.press("Ctrl+Alt+i");
    expect(one.selection.picked).toEqual(["post"]);
  });

  it("delete leaves before points, and points before the object", async () => {
    one.selection.pick("leaf");
    one.press("Ctrl+Shift+a");
    one.press("Delete");
    await vi.waitFor(() => expect(one.edits[0]).toMatchObject([{ edit: "delete-keys", object: "leaf" }]));
    one.picks.clear();
    one.actions.points.mockReturnValueOnce(true);
    one.press("Delete");
    expect([one.actions.points.mock.lastCall, one.edits.length]).toEqual([["remove"], 1]);
  });

  it("do nothing where nothing is picked", () => {
    for (const key of ["r", "Ctrl+d", "Delete", "h"]) one.press(key);
    expect([one.edits, one.selection.renaming]).toEqual([[], null]);
  });
});

describe("keys of the page", () => {
  it("take up tools, fold panels and ask for what only the page can do", () => {
    one.press("w");
    expect(one.selection.tool).toBe("path");
    const panels = usePanels();
    const shown = panels.big;
    one.press("q");
    expect(panels.big).toBe(!shown);
    one.press("q");
    for (const [key, done] of [
      ["Ctrl+e", "export"],
      ["Ctrl+k", "find"],
      ["?", "shortcuts"],
      ["Shift+F1", "help"],
      ["x", "live"],
      ["n", "add"],
    ] as const) {
      one.press(key);
      expect(one.actions[done]).toHaveBeenCalledOnce();
    }
    one.press("6");
    expect(one.actions.zoom).toHaveBeenCalledWith("picked");
    one.press("Backspace");
    expect(one.actions.drawing).toHaveBeenCalledWith("back");
  });
});
