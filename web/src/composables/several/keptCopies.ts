/** Copied objects, kept in the browser so that another page can paste them. */
import type { CopiedObjects } from "@/api/types";

export interface KeptCopies extends CopiedObjects {
  /** The scene they were copied in, and what each of the topmost attached to there, by its id. */
  readonly from: string;
  readonly hung: Readonly<Record<string, string>>;
}

/** Where copies are kept, so that another page can paste them. */
const PLACE = "copied-objects";
/** For copies too large to be kept there: in this page alone. */
let large: KeptCopies | null = null;

/** Keep copies, in the place of those copied before. */
export function keepCopies(copied: KeptCopies): void {
  large = copied;
  try {
    localStorage.setItem(PLACE, JSON.stringify(copied));
  } catch {
    // There is no room for it; the earlier copy must not be mistaken for it.
    localStorage.removeItem(PLACE);
  }
}

/** What was copied last; null if nothing was. */
export function keptCopies(): KeptCopies | null {
  const text = localStorage.getItem(PLACE);
  return text ? (JSON.parse(text) as KeptCopies) : large;
}
