/** Stored versions of the current scene, and the one it is compared with. */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import { type Motion, readMotion } from "@/api/motion";
import type { DifferenceWords, Edit, RehearsalWords } from "@/api/types";
import { partsOf } from "@/geometry/differences";
import { usePanels } from "@/stores/panels";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";

/** The other side of a comparison: a stored version, or the result of some edits. */
export type Other =
  | { readonly kind: "kept"; readonly id: string; readonly name: string }
  | { readonly kind: "edits"; readonly edits: Edit[]; readonly now: string; readonly name: string };

export const useRehearsals = defineStore("rehearsals", () => {
  const scene = useScene();
  const messages = useMessages();
  const panels = usePanels();
  const all = shallowRef<readonly RehearsalWords[]>([]);
  const open = panels.besideOf("rehearsals");
  const other = shallowRef<Other | null>(null);
  const motion = shallowRef<Motion | null>(null);
  const differences = shallowRef<readonly DifferenceWords[]>([]);
  const looking = ref(false);
  /** The version that a variant is tried of, by scene; remembered, for a variant may take days. */
  const tried = useLocalStorage<Record<string, string>>("vine-swing.variants", {});

  let asked = 0;

  const list = computed(() => all.value.filter((one) => !one.removed));
  const variantOf = computed(() => list.value.find((one) => one.id === tried.value[scene.id ?? ""]) ?? null);

  const read = async (): Promise<void> => {
    const id = scene.id;
    if (!id) return;
    const found = await messages.attempt(() => api.rehearsals(id));
    if (found && id === scene.id) all.value = found;
  };
  watch(
    () => scene.id,
    (id) => {
      all.value = [];
      close();
      if (id) void read();
    },
    { immediate: true },
  );

  function toggle(): void {
    open.value = !open.value;
  }

  /** Keep the scene in its current state. */
  async function keep(name: string | null = null): Promise<RehearsalWords | null> {
    const kept = scene.id ? await messages.attempt(() => api.keepRehearsal(scene.id!, name)) : null;
    await read();
    return kept;
  }

  /** Store the scene as a rehearsal, and continue with a variant. */
  async function tryVariant(): Promise<void> {
    const kept = await keep();
    if (!kept) return;
    tried.value = { ...tried.value, [scene.id!]: kept.id };
    open.value = false;
    messages.info(`${kept.name} is kept. Change what you like, then compare the two.`);
  }

  /** Continue with the variant as the scene. The original stays among the rehearsals. */
  function endVariant(): void {
    tried.value = Object.fromEntries(Object.entries(tried.value).filter(([id]) => id !== scene.id));
  }

  async function rename(one: RehearsalWords, name: string): Promise<void> {
    await messages.attempt(() => api.renameRehearsal(scene.id!, one.id, name));
    await read();
  }

  async function remove(one: RehearsalWords): Promise<void> {
    const id = scene.id!;
    if (!(await messages.attempt(() => api.removeRehearsal(id, one.id)))) return;
    await read();
    messages.withUndo(`${one.name} is removed.`, "Put it back", async () => {
      await messages.attempt(() => api.putBackRehearsal(id, one.id));
      await read();
    });
  }

  /** Compare with a kept version, or with what some edits would make. */
  async function compare(one: Other): Promise<void> {
    [other.value, motion.value, differences.value, open.value] = [one, null, [], false];
    await look();
  }

  async function look(): Promise<void> {
    const [one, id, number] = [other.value, scene.id, ++asked];
    if (!one || !id) return;
    looking.value = true;
    const found = await messages.attempt(async () => {
      if (one.kind === "edits") return api.beside(id, scene.revision, one.edits);
      const [kept, told] = await Promise.all([
        motion.value ? null : api.rehearsalMotion(id, one.id),
        api.rehearsalDifferences(id, one.id),
      ]);
      return { motion: kept, differences: told };
    });
    if (number !== asked) return;
    looking.value = false;
    if (!found) return close();
    if (found.motion) motion.value = readMotion(found.motion);
    differences.value = found.differences.differences;
  }
  watch(
    () => scene.revision,
    () => void look(),
  );

  function close(): void {
    asked += 1;
    [other.value, motion.value, differences.value, looking.value] = [null, null, [], false];
  }

  /** Restore the stored version, or some of its differences. */
  async function bringBack(chosen: readonly DifferenceWords[] | null): Promise<void> {
    const one = other.value;
    if (one?.kind === "kept") await scene.bringBack(one.id, chosen && partsOf(chosen));
  }

  /** Go back to what a variant was built from. */
  async function leaveVariant(): Promise<void> {
    const kept = variantOf.value;
    if (!kept || !(await scene.bringBack(kept.id, null))) return;
    endVariant();
    messages.withUndo(`The scene was restored to ${kept.name}.`, "Undo", () => void scene.undo());
  }

  return {
    list,
    open,
    other,
    motion,
    differences,
    looking,
    variantOf,
    keep,
    tryVariant,
    endVariant,
    leaveVariant,
    rename,
    remove,
    compare,
    close,
    bringBack,
    toggle,
  };
});
