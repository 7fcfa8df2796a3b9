import { nextTick } from "vue";
import { expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { Drive, Rule } from "@/api/types";
import { useDrives } from "@/stores/drives";
import { staged, thing } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({
  ...(await original<typeof import("@/api/client")>()),
  api: { drives: vi.fn() },
}));
const drive = (driver: string, driven: string, more: Partial<Drive> = {}): Drive =>
  ({
    driver: { object: driver, channel: "x" },
    driven: { object: driven, channel: "x" },
    rule: "r",
    setting: null,
    kind: "link",
    ...more,
  }) as Drive;
const rule = { id: "r", kind: "link", on: true, channels: ["x"], mode: "replace", settings: {} } as unknown as Rule;

it("is asked for where there are rules, and tells who reads whom from outside", async () => {
  const all = [
    drive("post", "leaf"),
    drive("arm", "post"),
    drive("arm", "leaf"),
    drive("leaf", "post"),
    drive("ground", "leaf", { kind: "gait" }),
  ];
  vi.mocked(api.drives).mockResolvedValue({ revision: 0, drives: all });
  staged([thing("post"), thing("arm", {}, { parent: "post" }), thing("leaf", {}, { rules: [rule] })]);
  const drives = useDrives();
  await vi.waitFor(() => expect(drives.all).toHaveLength(5));
  expect(drives.readersOf("post")).toEqual([all[0], all[2]]);
  expect(drives.readersOf("arm")).toEqual([all[1], all[2]]);
  // The ground moves nobody.
  expect(drives.moving).toHaveLength(4);
});

it("is not asked for where no rules are", async () => {
  vi.mocked(api.drives).mockClear();
  staged([thing("post")]);
  const drives = useDrives();
  await nextTick();
  expect(api.drives).not.toHaveBeenCalled();
  expect(drives.all).toEqual([]);
});
