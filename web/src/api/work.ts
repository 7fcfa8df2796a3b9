/** A request that may take long: it can be stopped, and its progress queried. */
import { newId } from "./ids";

export class Work {
  /** What the service knows it by. */
  readonly id = newId();
  /** When it was asked for, in ms of the page. */
  readonly since = performance.now();
  readonly #asked = new AbortController();

  get signal(): AbortSignal {
    return this.#asked.signal;
  }

  /** Give it up: its request ends as one that was stopped. */
  stop(): void {
    this.#asked.abort();
  }
}
