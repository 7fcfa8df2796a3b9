/** What is picked on the page, and how the page is set. Nothing of this is kept with the scene. */
import { defineStore } from "pinia";
import { ref } from "vue";
import { usePickedRow } from "@/composables/picking/usePickedRow";
import { usePickedThings } from "@/composables/picking/usePickedThings";
import { useUnfolded } from "@/composables/picking/useUnfolded";
import { useWorkspaceSettings } from "@/composables/picking/useWorkspaceSettings";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

export type { SheetTab } from "@/composables/picking/useWorkspaceSettings";
export type Tool = "pick" | "pivot" | "path" | "draw" | "points" | "link" | "joints";

export const useSelection = defineStore("selection", () => {
  const scene = useScene();
  const vocabulary = useVocabulary();
  const picks = usePicks();

  const { pickNothing, ...things } = usePickedThings(scene, beforePick);
  const row = usePickedRow(things.thing, vocabulary, picks);
  const { unfold, foldAll, ...folds } = useUnfolded(
    (id, limb) => things.objectId.value === id && row.row.value?.part === limb,
    () => row.pickRow("Travel", null, true),
  );

  const tool = ref<Tool>("pick");
  const renaming = ref<string | null>(null);
  /** What a parade is being built from. */
  const parading = ref<string | null>(null);
  /** The copy of a parade that is meant by "this one", from 0. */
  const copy = ref(0);
  /** The text that is being written in the picture. */
  const writing = ref<string | null>(null);

  /** Let go of what was picked of another object, and show the one that is picked next in the troupe. */
  function beforePick(id: string | null, keepKeys: boolean): void {
    if (id !== things.objectId.value) {
      if (!keepKeys) picks.clear();
      copy.value = 0;
    }
    const above: string[] = [];
    for (let at = id ? scene.byId.get(id)?.parent : null; at; at = scene.byId.get(at)?.parent) above.push(at);
    unfold(above);
  }

  function reset(): void {
    pickNothing();
    picks.clear();
    foldAll();
    renaming.value = null;
    writing.value = null;
    parading.value = null;
    tool.value = "pick";
  }

  return { ...things, ...row, ...folds, ...useWorkspaceSettings(), tool, renaming, parading, copy, writing, reset };
});
