import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import { roomIn, usePanels } from "./panels";

beforeEach(() => setActivePinia(createPinia()));

describe("the room of panels", () => {
  it("folds a panel to a strip and brings it back as it was", () => {
    const panels = usePanels();
    panels.sizes.troupe = 300;
    panels.fold("troupe");
    expect(panels.isOpen("troupe")).toBe(false);
    expect(panels.columns).toBe("14px minmax(0, 1fr) 300px");
    panels.fold("troupe");
    expect(panels.columns).toBe("300px minmax(0, 1fr) 300px");
  });

  it("leaves the picture more of a low window, but for sizes that somebody chose", () => {
    const rooms = (height: number): number[] => [roomIn(height, "sheet", 180), roomIn(height, "vine", 168)];
    expect(rooms(1400)).toEqual([180, 168]);
    expect(rooms(800)).toEqual([180, 168]);
    expect(rooms(620)).toEqual([140, 150]);
    expect(rooms(300)).toEqual([100, 150]);
    expect(roomIn(620, "sheet", 240)).toBe(240);
    expect(roomIn(620, "values", 300)).toBe(300);
  });

  it("has one thing at a time in the place of the values, and makes that seen", () => {
    const panels = usePanels();
    const [notes, sounds] = [panels.besideOf("notes"), panels.besideOf("sounds")];
    panels.folded = ["values"];
    notes.value = true;
    expect(panels.isOpen("values")).toBe(true);
    sounds.value = true;
    expect([notes.value, sounds.value]).toEqual([false, true]);
    notes.value = false;
    expect(panels.beside).toBe("sounds");
    sounds.value = false;
    expect(panels.beside).toBeNull();
  });

  it("gives the picture all of it, and leaves what was folded folded", () => {
    const panels = usePanels();
    panels.folded = ["vine"];
    panels.big = true;
    expect(panels.rows).toBe("48px minmax(200px, 1fr) 0px 0px");
    expect(panels.least).toBe(248);
    expect(panels.isOpen("sheet")).toBe(false);
    panels.big = false;
    expect(panels.rows).toBe("48px minmax(200px, 1fr) 180px 14px");
    expect(panels.least).toBe(442);
  });
});
