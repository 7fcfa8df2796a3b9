/** For all unit tests: record the page's messages instead of showing them. */
import { beforeEach, vi } from "vitest";
import { hush } from "./said";

vi.mock("@/stores/messages", async () => {
  const { said } = await import("./said");
  const messages = {
    info: (message: string) => said.info.push(message),
    warn: (message: string) => said.warn.push(message),
    error: (message: string) => said.error.push(message),
    attempt: <T>(work: () => Promise<T>): Promise<T | null> =>
      work().catch((refusal: Error) => (said.error.push(refusal.message), null)),
    withUndo: (message: string, _label: string, undo: () => void) => (said.info.push(message), said.undo.push(undo)),
  };
  return { useMessages: () => messages };
});

beforeEach(hush);

// Browsers have it; the Node.js that runs these tests may not.
Map.groupBy ??= <K, T>(list: Iterable<T>, keyOf: (one: T, index: number) => K): Map<K, T[]> => {
  const groups = new Map<K, T[]>();
  let index = 0;
  for (const one of list) {
    const key = keyOf(one, index++);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return groups;
};
