/** What the page said in a unit test, in place of messages that are shown. */
export const said = { info: [] as string[], warn: [] as string[], error: [] as string[], undo: [] as (() => void)[] };

/** Forget what was said. */
export function hush(): void {
  for (const list of Object.values(said)) list.length = 0;
}
