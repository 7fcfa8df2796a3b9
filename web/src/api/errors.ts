/** What goes wrong between the page and the service. */
import type { Problem } from "./types";

/** The status of a request that was stopped here, before it was answered. */
export const STOPPED = 499;

/** What the service refused, or that it could not be reached (status 0). */
export class ServiceError extends Error {
  readonly status: number;
  readonly problem: Problem | null;

  constructor(status: number, message: string, problem: Problem | null = null) {
    super(message);
    this.status = status;
    this.problem = problem;
  }
}
