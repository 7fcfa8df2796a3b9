import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import { useRoom } from "./room";

beforeEach(() => setActivePinia(createPinia()));

describe("the room of panels", () => {
  it("folds a panel to a strip and brings it back as it was", () => {
    const room = useRoom();
    room.sizes.troupe = 300;
    room.fold("troupe");
    expect(room.isOpen("troupe")).toBe(false);
    expect(room.columns).toBe("14px minmax(0, 1fr) 300px");
    room.fold("troupe");
    expect(room.columns).toBe("300px minmax(0, 1fr) 300px");
  });

  it("has one thing at a time in the place of the values, and makes that seen", () => {
    const room = useRoom();
    const [notes, sounds] = [room.besideOf("notes"), room.besideOf("sounds")];
    room.folded = ["values"];
    notes.value = true;
    expect(room.isOpen("values")).toBe(true);
    sounds.value = true;
    expect([notes.value, sounds.value]).toEqual([false, true]);
    notes.value = false;
    expect(room.beside).toBe("sounds");
    sounds.value = false;
    expect(room.beside).toBeNull();
  });

  it("gives the picture all of it, and leaves what was folded folded", () => {
    const room = useRoom();
    room.folded = ["vine"];
    room.big = true;
    expect(room.rows).toBe("48px minmax(200px, 1fr) 0px 0px");
    expect(room.isOpen("sheet")).toBe(false);
    room.big = false;
    expect(room.rows).toBe("48px minmax(200px, 1fr) 180px 14px");
  });
});
