import { nextTick } from "vue";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, ServiceError } from "@/api/client";
import type { NotesState, NoteWords } from "@/api/types";
import { useNotes } from "@/stores/notes";
import { usePlayback } from "@/stores/playback";
import { keyed, staged, thing } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { notes: vi.fn() },
}));
const served = vi.mocked(api);
const note = (more: Partial<NoteWords> = {}): NoteWords =>
  ({
    kind: "seam",
    object: "leaf",
    channel: "rotation",
    frames: [12, 20],
    label: "A seam",
    text: "",
    mends: [],
    ...more,
  }) as unknown as NoteWords;
const state = (...notes: NoteWords[]): NotesState =>
  ({ notes, hushed: [], silent: 0, revision: 1 }) as unknown as NotesState;

beforeEach(() => {
  vi.useFakeTimers();
  vi.clearAllMocks();
});
afterEach(() => vi.useRealTimers());

function scene() {
  const all = staged([thing("leaf", { rotation: keyed([0, 1], [9, 2]) })]);
  return { ...all, notes: useNotes() };
}

describe("notes", () => {
  it("are asked for once nothing has changed for a moment", async () => {
    const { scene: store, notes } = scene();
    served.notes.mockResolvedValue(state(note()));
    for (let n = 1; n < 4; n++) {
      store.revision = n;
      await vi.advanceTimersByTimeAsync(100);
    }
    expect([served.notes.mock.calls.length, notes.looking]).toEqual([0, true]);
    await vi.advanceTimersByTimeAsync(400);
    expect([served.notes.mock.calls.length, notes.looking, notes.list.length]).toEqual([1, false, 1]);
  });

  it("are let go with their scene, and pass over what cannot be had", async () => {
    const { scene: store, notes } = scene();
    served.notes.mockRejectedValue(new ServiceError(0, "no server"));
    notes.state = state(note());
    notes.pointed = note();
    store.id = "s2";
    await vi.advanceTimersByTimeAsync(400);
    expect([notes.list, notes.pointed, notes.looking]).toEqual([[], null, false]);
  });

  it("point at nothing that was mended", async () => {
    const { notes } = scene();
    notes.state = state(note(), note({ kind: "pop" }));
    notes.pointed = note();
    notes.state = state(note({ kind: "pop" }));
    await nextTick();
    expect(notes.pointed).toBeNull();
  });

  it("lead to their object, row and frame", () => {
    const { notes, selection } = scene();
    notes.goTo(note());
    expect([selection.objectId, selection.row?.name, usePlayback().frame]).toEqual(["leaf", "Rotation", 12]);
    notes.goTo(note({ frames: [900, 901] }));
    expect(usePlayback().frame).toBe(47);
  });

  it("are hushed one by one or by their kind, and heard again", async () => {
    const { notes, edits } = scene();
    await notes.hush(note(), false);
    await notes.hush(note(), true);
    notes.state = { ...state(), hushed: [{ kind: "seam", object: null, channel: null }] } as unknown as NotesState;
    await notes.hear();
    const hushed = { edit: "hush-note", kind: "seam" };
    expect(edits).toEqual([
      [{ ...hushed, object: "leaf", channel: "rotation", hushed: true }],
      [{ ...hushed, object: null, channel: null, hushed: true }],
      [{ ...hushed, object: null, channel: null, hushed: false }],
    ]);
  });
});
