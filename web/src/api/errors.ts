/** What goes wrong between the page and the service. */
import type { Problem } from "./types";

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
