/** Rows of the table of shortcuts, and what the page around them does when they are pressed. */
import type { Grip } from "@/composables/picture/useGrips";
import type { Shortcut } from "@/composables/useShortcuts";

/** What only the page that shows the workspace can do. */
export interface WorkspaceActions {
  readonly nudge: (kind: Grip["kind"], by: Record<string, number>) => void;
  readonly shortcuts: () => void;
  readonly help: () => void;
  readonly find: () => void;
  readonly export: () => void;
  readonly add: () => void;
  readonly live: () => void;
  readonly zoom: (what: "fit" | "picked" | "whole") => void;
  /** Something done to what is being drawn; false where nothing is. */
  readonly drawing: (what: "finish" | "back" | "drop") => boolean;
  /** Something done to the picked points of an outline; false where none are. */
  readonly points: (what: "remove" | "clear") => boolean;
}

/** Makes the shortcuts of one group. */
export const inGroup =
  (group: string) =>
  (keys: readonly string[], says: string, run: (key: string) => void): Shortcut => ({ group, keys, says, run });
