/**
 * Copying objects, within a scene and from one to another: with their descendants, and the dials, pictures, fonts
 * and inner scenes they use.
 */
import { ref } from "vue";
import { api, ServiceError } from "@/api/client";
import { newId } from "@/api/ids";
import { isDial } from "@/api/kinds";
import type { Edit } from "@/api/types";
import { keepCopies, keptCopies, type KeptCopies } from "@/composables/several/keptCopies";
import { useSeveral } from "@/composables/several/useSeveral";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** What was copied last: objects, or keys. */
const last = ref<"objects" | "keys" | null>(null);
/** How far a copy is put beside what it is a copy of, px, so that both are seen. */
const ASIDE = 24;

export function useCopies() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const several = useSeveral();
  const messages = useMessages();

  /** Copy the picked objects. False where none is picked. */
  async function copy(): Promise<boolean> {
    const tops = several.tops().filter((one) => !isDial(one));
    if (!tops.length || !scene.id) return false;
    try {
      const found = await api.parcel(
        scene.id,
        tops.map((one) => one.id),
        playback.frame,
      );
      const hung = tops.flatMap((one) => (one.parent ? [[one.id, one.parent] as const] : []));
      keepCopies({ ...found, from: scene.id, hung: Object.fromEntries(hung) });
    } catch (error) {
      if (!(error instanceof ServiceError)) throw error;
      messages.error(error.message);
      return false;
    }
    last.value = "objects";
    messages.info(
      `${named(tops)} ${tops.length === 1 ? "is" : "are"} copied: paste here or in another scene (Ctrl+V).`,
    );
    return true;
  }

  async function cut(): Promise<void> {
    if (await copy()) await several.remove();
  }

  /** Paste the copied objects into this scene, and report their missing dependencies. */
  async function paste(): Promise<void> {
    const copied = keptCopies();
    if (!copied) {
      messages.info("Nothing copied yet. Select an object and press Ctrl+C.");
      return;
    }
    const prefix = newId().slice(0, 12);
    const here = copied.from === scene.id;
    const hang = Object.fromEntries(Object.entries(copied.hung).filter(([, parent]) => here && scene.byId.has(parent)));
    const tops = copied.scene.objects.filter((one) => !one.parent);
    const aside = here && tops.some((one) => !(one.id in hang)) ? ASIDE : 0;
    const edit: Edit = {
      ...{ edit: "place-parcel", parcel: copied.scene, prefix, hang },
      ...{ frame: playback.frame, x: aside, y: aside },
    };
    const wrong = await scene.attempt([edit]);
    if (wrong) {
      messages.error(wrong);
      return;
    }
    selection.pickAll(tops.map((one) => `${prefix}-${one.id}`.slice(0, 64)).reverse());
    tell(copied);
  }

  function tell(copied: KeptCopies): void {
    const missing = copied.behind.filter((one) => !scene.byId.has(one.id));
    const goesBy = missing.filter((one) => one.how === "goes by").map((one) => `${one.object} reads ${one.name}`);
    const hung = missing
      .filter((one) => one.how === "hangs on")
      .map((one) => `${one.object} was attached to ${one.name}`);
    if (goesBy.length)
      messages.warn(
        `${[...goesBy, ...hung].join(", ")}, which was not copied. Copy it too, or link to another object here.`,
      );
    else if (hung.length) messages.info(`${hung.join(", ")}, which was not copied. The pasted object is unattached.`);
  }

  const named = (all: readonly { name: string }[]): string =>
    all.length === 1 ? (all[0]?.name ?? "") : `${all.length} objects`;

  return { last, copy, cut, paste };
}
