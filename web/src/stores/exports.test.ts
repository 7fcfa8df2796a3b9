import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { ExportOptions, ExportReport } from "@/api/types";
import { fileOf, goesOn, useExports } from "@/stores/exports";
import { said } from "@/testing/said";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { exports: vi.fn(), startExports: vi.fn(), cancelExport: vi.fn() },
}));
const served = vi.mocked(api);
const report = (id: string, state: ExportReport["state"]): ExportReport =>
  ({ id, state, name: `${id}.gif`, scene: "s1", format: "gif", options: {} }) as unknown as ExportReport;

beforeEach(() => {
  vi.useFakeTimers();
  vi.clearAllMocks();
  setActivePinia(createPinia());
  vi.stubGlobal("document", { createElement: () => ({ click: clicked }) });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const clicked = vi.fn();

describe("exports", () => {
  it("go on while they wait or run", () => {
    expect((["waiting", "running", "done", "failed"] as const).map((state) => goesOn(report("a", state)))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(fileOf(report("a", "done"))).toBe("/api/exports/a/file");
  });

  it("are watched until all are done, and fetched by the page that asked for them", async () => {
    const exports = useExports();
    served.startExports.mockResolvedValue([report("a", "waiting"), report("b", "waiting")]);
    served.exports.mockResolvedValue([report("b", "running"), report("a", "running"), report("old", "done")]);
    await exports.start("s1", ["gif", "webm"], {} as ExportOptions, null);
    expect(exports.latest.map((one) => one.id)).toEqual(["a", "b"]);
    expect(exports.active).toHaveLength(2);
    served.exports.mockResolvedValue([report("b", "failed"), report("a", "done"), report("old", "done")]);
    await vi.advanceTimersByTimeAsync(250);
    expect(clicked).toHaveBeenCalledTimes(1);
    expect(exports.active).toEqual([]);
    const asked = served.exports.mock.calls.length;
    await vi.advanceTimersByTimeAsync(2000);
    expect(served.exports.mock.calls).toHaveLength(asked);
  });

  it("are saved one after the other where many are done at once, as browsers leave out what comes at once", async () => {
    const exports = useExports();
    const ids = Array.from({ length: 15 }, (_, n) => `e${n}`);
    served.startExports.mockResolvedValue(ids.map((id) => report(id, "waiting")));
    served.exports.mockResolvedValue(ids.map((id) => report(id, "done")));
    await exports.start("s1", ids, {} as ExportOptions, null);
    expect(clicked).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(1000);
    expect(clicked.mock.calls.length).toBeLessThanOrEqual(10);
    await vi.advanceTimersByTimeAsync(2000);
    expect(clicked).toHaveBeenCalledTimes(15);
  });

  it("are not asked after where the server does not answer", async () => {
    const exports = useExports();
    served.exports.mockRejectedValue(new Error("no server"));
    await exports.look();
    expect(said.error).toEqual(["no server"]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(served.exports).toHaveBeenCalledTimes(1);
  });

  it("are looked at again after one was stopped", async () => {
    const exports = useExports();
    served.cancelExport.mockResolvedValue(report("a", "cancelled"));
    served.exports.mockResolvedValue([report("a", "cancelled")]);
    await exports.cancel(report("a", "running"));
    expect(exports.list.map((one) => one.state)).toEqual(["cancelled"]);
  });
});
