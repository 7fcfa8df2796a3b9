/** Doing one object after the other, so that each begins with what the one before left. */
import { ref } from "vue";

/** `failed` receives the error; `done` is called on success. */
export function useTurns(failed: (error: unknown) => Promise<void>, done: () => void) {
  /** How many of those that save something wait or are under way. */
  const waiting = ref(0);
  let queue: Promise<unknown> = Promise.resolve();

  /** Do some work in its turn; gives undefined where it failed. `saves` is 0 for work that saves nothing. */
  function inTurn<T>(work: () => Promise<T>, saves = 1): Promise<T | undefined> {
    waiting.value += saves;
    const next = queue.then(work).then(
      (value) => {
        done();
        return value;
      },
      async (error: unknown) => {
        await failed(error);
        return undefined;
      },
    );
    queue = next.finally(() => (waiting.value -= saves));
    return next;
  }

  return { waiting, inTurn };
}
