/** The workspace's keyboard, as one table. */
import type { WorkspaceActions } from "@/composables/shortcuts/table";
import { useKeyShortcuts } from "@/composables/shortcuts/useKeyShortcuts";
import { usePageShortcuts } from "@/composables/shortcuts/usePageShortcuts";
import { usePickedShortcuts } from "@/composables/shortcuts/usePickedShortcuts";
import { useTimeShortcuts } from "@/composables/shortcuts/useTimeShortcuts";
import type { Shortcut } from "@/composables/useShortcuts";

export const useWorkspaceShortcuts = (actions: WorkspaceActions): readonly Shortcut[] => [
  ...useTimeShortcuts(),
  ...useKeyShortcuts(actions),
  ...usePickedShortcuts(actions),
  ...usePageShortcuts(actions),
];
