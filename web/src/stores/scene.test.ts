import { encode } from "@msgpack/msgpack";
import { createPinia, setActivePinia } from "pinia";
import { beforeEach, expect, it, vi } from "vitest";
import { api, type ChangedMotion, ServiceError, STOPPED } from "@/api/client";
import type { Edit } from "@/api/types";
import { useScene } from "@/stores/scene";
import { HEAD } from "@/testing/head";

const told = vi.hoisted(() => ({ warn: vi.fn(), error: vi.fn(), info: vi.fn() }));
vi.mock("@/stores/messages", () => ({ useMessages: () => told }));
vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: {
    scene: vi.fn(),
    motion: vi.fn(),
    look: vi.fn(),
    edit: vi.fn(),
    changes: vi.fn(),
    undo: vi.fn(),
    redo: vi.fn(),
    bringBack: vi.fn(),
  },
}));

const served = vi.mocked(api);
const EDIT = { edit: "rename-scene", name: "Canopy" } as Edit;
const MOVE = { edit: "set-key", object: "moth", channel: "x", frame: 0, value: 4 } as Edit;
const moth = { id: "moth", name: "Moth", kind: "shape", parent: null, channels: {}, rules: [] };

/** A message of motion in which nothing is painted. */
function motion(revision: number, whole = true): Uint8Array {
  const head = {
    revision,
    fps: 24,
    length: 48,
    size: [640, 360],
    background: "#FFFFFF",
    order: ["moth"],
    dials: [],
    copies: [],
  };
  return encode({ ...head, hidden: [], whole, objects: {}, steps: [] });
}

function changed(revision: number, objects: readonly object[] = []): ChangedMotion {
  const head = { ...HEAD, name: "Canopy" };
  const answer = { revision, history: { undo: "step", redo: null }, head, order: ["moth"], objects };
  return { changed: answer as never, motion: motion(revision, false) };
}

/** A promise that is settled from outside. */
function later<T>() {
  let resolve!: (value: T) => void;
  let reject!: (error: Error) => void;
  const promise = new Promise<T>((done, fail) => ((resolve = done), (reject = fail)));
  return { promise, resolve, reject };
}

async function opened() {
  const scene = useScene();
  await scene.open("s1");
  return scene;
}

beforeEach(() => {
  vi.clearAllMocks();
  setActivePinia(createPinia());
  served.scene.mockResolvedValue({
    id: "s1",
    revision: 3,
    history: { undo: null, redo: null },
    scene: { ...HEAD, objects: [moth] },
  } as never);
  served.motion.mockResolvedValue(motion(3));
});

it("makes one edit after the other, each against the revision the one before left", async () => {
  const scene = await opened();
  const first = later<ChangedMotion>();
  served.edit.mockReturnValueOnce(first.promise).mockResolvedValueOnce(changed(5));
  const both = [scene.edit([EDIT]), scene.edit([EDIT])];
  await Promise.resolve();
  expect(scene.state).toBe("saving");
  first.resolve(changed(4));
  expect(await Promise.all(both)).toEqual([true, true]);
  expect(served.edit.mock.calls.map((call) => call[1])).toEqual([3, 4]);
  expect([scene.revision, scene.state, scene.head?.name]).toEqual([5, "saved", "Canopy"]);
});

it("keeps objects that an edit did not touch as they were", async () => {
  const scene = await opened();
  const before = scene.objects[0];
  served.edit.mockResolvedValueOnce(changed(4));
  await scene.edit([EDIT]);
  expect(scene.objects[0]).toBe(before);
});

it("looks only at the newest of the edits asked for while a look is on its way", async () => {
  const scene = await opened();
  const slow = later<Uint8Array>();
  served.look.mockReturnValueOnce(slow.promise).mockResolvedValue(motion(4, false));
  const looks = [1, 2, 3].map((n) => scene.lookAt([{ ...EDIT, name: `Look ${n}` } as Edit]));
  slow.resolve(motion(4, false));
  await Promise.all(looks);
  expect(served.look.mock.calls.map((call) => (call[2][0] as { name: string }).name)).toEqual(["Look 1", "Look 3"]);
});

it("forgets a look that comes back after it was let go", async () => {
  const scene = await opened();
  const slow = later<Uint8Array>();
  served.look.mockReturnValueOnce(slow.promise);
  const look = scene.lookAt([EDIT]);
  const kept = scene.motion;
  scene.letGo();
  slow.resolve(motion(9, false));
  await look;
  expect(scene.motion).toBe(kept);
});

it("says nothing of a look that the page's own edit has overtaken, and still shows the next", async () => {
  const scene = await opened();
  const refused = later<never>();
  const edited = later<ChangedMotion>();
  served.look.mockReturnValueOnce(refused.promise).mockResolvedValueOnce(motion(5, false));
  served.edit.mockReturnValueOnce(edited.promise);
  const look = scene.lookAt([EDIT]);
  const kept = scene.edit([EDIT]);
  edited.resolve(changed(4));
  await kept;
  const next = scene.lookAt([{ ...EDIT, name: "Next" } as Edit]);
  refused.reject(new ServiceError(409, "old"));
  await Promise.all([look, next]);
  expect(told.warn).not.toHaveBeenCalled();
  expect(served.scene).toHaveBeenCalledOnce();
  expect(served.look.mock.calls.map((call) => call[1])).toEqual([3, 4]);
});

it("says nothing of a look refused while the edit that overtook it is on its way", async () => {
  const scene = await opened();
  const edited = later<ChangedMotion>();
  served.look.mockRejectedValueOnce(new ServiceError(409, "old"));
  served.edit.mockReturnValueOnce(edited.promise);
  const look = scene.lookAt([EDIT]);
  const kept = scene.edit([EDIT]);
  await look;
  expect(told.warn).not.toHaveBeenCalled();
  edited.resolve(changed(4));
  expect([await kept, scene.revision]).toEqual([true, 4]);
});

it("takes up what others did where a look finds it out, and looks again", async () => {
  const scene = await opened();
  served.look.mockRejectedValueOnce(new ServiceError(409, "old")).mockResolvedValueOnce(motion(5, false));
  served.changes.mockResolvedValueOnce(changed(4));
  await scene.lookAt([MOVE]);
  expect(served.look.mock.calls.map((call) => call[1])).toEqual([3, 4]);
  expect([told.warn.mock.calls.length, scene.revision, scene.look?.edits]).toEqual([0, 4, [MOVE]]);
});

it("makes an edit after all where others were quicker with something else", async () => {
  const scene = await opened();
  served.edit.mockRejectedValueOnce(new ServiceError(409, "old")).mockResolvedValueOnce(changed(5));
  served.changes.mockResolvedValueOnce(changed(4));
  expect(await scene.edit([MOVE])).toBe(true);
  expect(served.edit.mock.calls.map((call) => call[1])).toEqual([3, 4]);
  expect([told.warn.mock.calls.length, scene.revision]).toEqual([0, 5]);
});

it("does not make an edit where others have changed the same object, and says so", async () => {
  const scene = await opened();
  served.edit.mockRejectedValueOnce(new ServiceError(409, "old"));
  served.changes.mockResolvedValueOnce(changed(4, [moth]));
  expect(await scene.edit([MOVE])).toBeUndefined();
  expect(served.edit).toHaveBeenCalledOnce();
  expect(served.scene).toHaveBeenCalledTimes(2);
  expect(told.warn).toHaveBeenCalledOnce();
  expect(scene.state).toBe("saved");
});

it("brings parts back after all where others were quicker with something else, but not the whole", async () => {
  const scene = await opened();
  const parts = [{ object: "moth", what: "motion" as const, channel: null }];
  served.bringBack.mockRejectedValueOnce(new ServiceError(409, "old")).mockResolvedValueOnce(changed(5));
  served.changes.mockResolvedValueOnce(changed(4));
  expect(await scene.bringBack("r1", parts)).toBe(true);
  expect(served.bringBack.mock.calls.map((call) => call[1])).toEqual([3, 4]);
  served.bringBack.mockRejectedValueOnce(new ServiceError(409, "old"));
  served.changes.mockResolvedValueOnce(changed(6));
  expect(await scene.bringBack("r1", null)).toBeUndefined();
  expect(served.bringBack).toHaveBeenCalledTimes(3);
});

it("does not bring a part back that others have changed", async () => {
  const scene = await opened();
  served.bringBack.mockRejectedValueOnce(new ServiceError(409, "old"));
  served.changes.mockResolvedValueOnce(changed(4, [{ ...moth, name: "Owl" }]));
  expect(await scene.bringBack("r1", [{ object: "moth", what: "motion", channel: null }])).toBeUndefined();
  expect(served.bringBack).toHaveBeenCalledTimes(1);
});

it("takes up what others do, and nothing twice", async () => {
  const scene = await opened();
  served.changes.mockResolvedValueOnce(changed(4));
  await Promise.all([scene.catchUp(4), scene.catchUp(4)]);
  expect(served.changes.mock.calls).toEqual([["s1", 3]]);
  expect([scene.revision, scene.state, scene.head?.name]).toEqual([4, "saved", "Canopy"]);
});

it("does not end a drag in the place of what another page did to the same object meanwhile", async () => {
  const scene = await opened();
  served.look.mockResolvedValue(motion(4, false));
  served.changes.mockResolvedValueOnce(changed(4, [moth]));
  scene.press(true);
  await scene.lookAt([MOVE]);
  await scene.catchUp(4, "Page 2");
  await scene.lookAt([MOVE]);
  expect(scene.look).toBeNull();
  expect(await scene.edit([MOVE])).toBe(false);
  expect(served.edit).not.toHaveBeenCalled();
  expect(told.warn.mock.calls[0]![0]).toContain("Page 2 changed the same value while you were dragging");
  // The next one is made.
  served.edit.mockResolvedValueOnce(changed(5));
  scene.press(true);
  expect(await scene.edit([MOVE])).toBe(true);
});

it("goes on with a drag where another page did something else", async () => {
  const scene = await opened();
  served.look.mockResolvedValue(motion(4, false));
  served.changes.mockResolvedValueOnce(changed(4));
  served.edit.mockResolvedValueOnce(changed(5));
  scene.press(true);
  await scene.lookAt([MOVE]);
  await scene.catchUp(4, "Page 2");
  expect(scene.look?.edits).toEqual([MOVE]);
  expect(await scene.edit([MOVE])).toBe(true);
});

it("gives up what takes long, says so, and shows what is kept", async () => {
  const scene = await opened();
  let signal: AbortSignal | undefined;
  served.edit.mockImplementationOnce((_, __, ___, given) => {
    signal = given!.signal;
    return new Promise((_done, fail) =>
      signal!.addEventListener("abort", () => fail(new ServiceError(STOPPED, "Stopped."))),
    );
  });
  served.changes.mockResolvedValueOnce(changed(3));
  const edit = scene.edit([MOVE]);
  await Promise.resolve();
  await vi.waitFor(() => expect(scene.working).not.toBeNull());
  scene.working!.stop();
  expect(await edit).toBeUndefined();
  expect([signal?.aborted, scene.working, scene.revision, scene.state]).toEqual([true, null, 3, "saved"]);
  expect(told.info).toHaveBeenCalledWith("Stopped.");
});

it("says that nothing is saved while the server does not answer", async () => {
  const scene = await opened();
  served.edit.mockRejectedValueOnce(new ServiceError(0, "no answer")).mockResolvedValueOnce(changed(4));
  await scene.edit([EDIT]);
  expect(scene.state).toBe("not saved");
  expect(told.error).toHaveBeenCalledWith("no answer");
  await scene.edit([EDIT]);
  expect(scene.state).toBe("saved");
});

it("hands back what the service says against an attempt", async () => {
  const scene = await opened();
  served.edit.mockRejectedValueOnce(new ServiceError(422, "there is no 'Wnid'"));
  expect(await scene.attempt([EDIT])).toBe("there is no 'Wnid'");
  expect(told.error).not.toHaveBeenCalled();
  served.edit.mockResolvedValueOnce(changed(4));
  expect(await scene.attempt([EDIT])).toBeNull();
});

it("is false for a scene that is not there", async () => {
  served.scene.mockRejectedValueOnce(new ServiceError(404, "none"));
  expect(await useScene().open("gone")).toBe(false);
});
