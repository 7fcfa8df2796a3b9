/** Edits with everything the service wants filled in. */
import type { Edit } from "./types";

export type Keep = "first" | "frame" | "base";

/** Delete keys; if none is left, `keep` says which value stays ("frame" means that at the frame `at`). */
export const deleteKeys = (object: string, channel: string, frames: number[], keep: Keep = "first", at = 0): Edit => ({
  edit: "delete-keys",
  object,
  channel,
  frames,
  keep,
  at,
});
