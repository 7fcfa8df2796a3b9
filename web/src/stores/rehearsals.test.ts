import { beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { DifferenceWords, RehearsalWords } from "@/api/types";
import { useRehearsals } from "@/stores/rehearsals";
import { said } from "@/testing/said";
import { staged } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: {
    rehearsals: vi.fn(),
    keepRehearsal: vi.fn(),
    removeRehearsal: vi.fn(),
    putBackRehearsal: vi.fn(),
    rehearsalMotion: vi.fn(),
    rehearsalDifferences: vi.fn(),
    beside: vi.fn(),
  },
}));
vi.mock("@/api/motion", async (original) => ({
  ...(await original<typeof import("@/api/motion")>()),
  readMotion: vi.fn((message: unknown) => ({ message })),
}));
const served = vi.mocked(api);
const take = (n: number, removed = false): RehearsalWords =>
  ({ id: `t${n}`, name: `Take ${n}`, removed }) as unknown as RehearsalWords;
const differences = [{ part: "channel", object: "leaf", channel: "x" }] as unknown as DifferenceWords[];

beforeEach(() => {
  vi.clearAllMocks();
  served.rehearsals.mockResolvedValue([take(1), take(2, true)]);
  served.keepRehearsal.mockResolvedValue(take(1));
  served.removeRehearsal.mockResolvedValue({} as never);
  served.putBackRehearsal.mockResolvedValue({} as never);
  served.rehearsalMotion.mockResolvedValue(new Uint8Array());
  served.rehearsalDifferences.mockResolvedValue({ differences } as never);
});

async function opened() {
  const all = staged([]);
  const brought: unknown[] = [];
  Object.assign(all.scene, { bringBack: async (...what: unknown[]) => (brought.push(what), true) });
  const rehearsals = useRehearsals();
  await vi.waitFor(() => expect(rehearsals.list.map((one) => one.name)).toEqual(["Take 1"]));
  return { ...all, rehearsals, brought };
}

describe("kept versions", () => {
  it("are read with the scene, and let go with it", async () => {
    const { scene, rehearsals } = await opened();
    served.rehearsals.mockResolvedValue([]);
    scene.id = "s2";
    await vi.waitFor(() => expect(rehearsals.list).toEqual([]));
  });

  it("are tried as variants, until one goes on with them or goes back", async () => {
    const { rehearsals, brought } = await opened();
    await rehearsals.tryVariant();
    expect([rehearsals.variantOf?.name, rehearsals.open]).toEqual(["Take 1", false]);
    expect(said.info[0]).toContain("Take 1 is kept");
    await rehearsals.leaveVariant();
    expect(brought).toEqual([["t1", null]]);
    expect(rehearsals.variantOf).toBeNull();
    await rehearsals.tryVariant();
    rehearsals.endVariant();
    expect([rehearsals.variantOf, brought.length]).toEqual([null, 1]);
  });

  it("are compared, and brought back whole or in parts", async () => {
    const { scene, rehearsals, brought } = await opened();
    await rehearsals.compare({ kind: "kept", id: "t1", name: "Take 1" });
    expect([rehearsals.differences.length, rehearsals.looking, rehearsals.motion]).toEqual([
      1,
      false,
      { message: new Uint8Array() },
    ]);
    // What is compared with stays the same when the scene changes; only what differs is asked for again.
    scene.revision += 1;
    await vi.waitFor(() => expect(served.rehearsalDifferences).toHaveBeenCalledTimes(2));
    expect(served.rehearsalMotion).toHaveBeenCalledTimes(1);
    await rehearsals.bringBack(null);
    await rehearsals.bringBack(differences);
    expect(brought[0]).toEqual(["t1", null]);
    expect(brought[1]).toMatchObject(["t1", [{ object: "leaf", channel: "x" }]]);
    rehearsals.close();
    expect([rehearsals.other, rehearsals.differences]).toEqual([null, []]);
  });

  it("close the comparison where they cannot be had", async () => {
    const { rehearsals } = await opened();
    served.rehearsalDifferences.mockRejectedValue(new Error("it is gone"));
    await rehearsals.compare({ kind: "kept", id: "t1", name: "Take 1" });
    expect([rehearsals.other, said.error]).toEqual([null, ["it is gone"]]);
  });

  it("can be put back after they were removed", async () => {
    const { rehearsals } = await opened();
    await rehearsals.remove(take(1));
    expect(said.info).toEqual(["Take 1 is removed."]);
    said.undo[0]!();
    await vi.waitFor(() => expect(served.putBackRehearsal).toHaveBeenCalledWith("s1", "t1"));
  });
});
