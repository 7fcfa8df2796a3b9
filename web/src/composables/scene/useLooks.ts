/** Looks: the picture as it would be after edits that are shown but not made, until they are kept or released. */
import { shallowRef } from "vue";
import { api, ServiceError } from "@/api/client";
import { type Motion, readMotion } from "@/api/motion";
import type { Edit } from "@/api/types";
import type { KeptScene } from "@/composables/scene/useKeptScene";

export interface Look {
  readonly edits: Edit[];
  /** What is being looked at, for the line that offers to keep it; none while dragging. */
  readonly said: string | null;
}

export interface LooksOptions {
  /** True if others have changed the objects of some edits, so that no preview is possible. */
  readonly isOvertaken: (edits: Edit[]) => boolean;
  /** Whether an edit of this page is on its way. */
  readonly isSaving: () => boolean;
  /** Takes up what others changed. */
  readonly takeNews: () => Promise<unknown>;
  /** Tells what goes wrong. */
  readonly failed: (error: unknown) => Promise<void>;
}

export function useLooks(
  { id, revision, kept }: Pick<KeptScene, "id" | "revision" | "kept">,
  { isOvertaken, isSaving, takeNews, failed }: LooksOptions,
) {
  const look = shallowRef<Look | null>(null);
  const looked = shallowRef<Motion | null>(null);
  let lookNumber = 0;
  let lookRunning = false;

  /**
   * Show the picture as it would be after some edits. While one look is on its way, only the newest of the others
   * waits. `refused` receives the reason why no preview is possible.
   */
  async function lookAt(
    edits: Edit[],
    words: string | null = null,
    refused?: (message: string) => void,
  ): Promise<void> {
    if (isOvertaken(edits)) return;
    look.value = { edits, said: words };
    lookNumber += 1;
    if (lookRunning) return;
    lookRunning = true;
    try {
      let shown = 0;
      while (look.value && shown !== lookNumber && id.value) {
        shown = lookNumber;
        await showMotion(id.value, look.value.edits);
      }
    } catch (error) {
      letGo();
      if (refused && error instanceof ServiceError && error.status === 422) refused(error.message);
      else await failed(error);
    } finally {
      lookRunning = false;
    }
  }

  async function showMotion(scene: string, edits: Edit[]): Promise<void> {
    const [against, asked] = [kept.value, revision.value];
    const message = await api.look(scene, asked, edits).catch(async (error: unknown) => {
      if (!(error instanceof ServiceError) || error.status !== 409) throw error;
      if (!ownEditSince(asked)) await takeNews();
      return null;
    });
    if (message && look.value && against === kept.value && against) looked.value = readMotion(message, against);
  }

  /**
   * Whether an edit of this page reached the service before a look: what it changed is known, or will be in a moment.
   */
  const ownEditSince = (asked: number): boolean => isSaving() || revision.value !== asked;

  /** Return to the stored state of the picture. */
  function letGo(): void {
    look.value = null;
    looked.value = null;
    lookNumber += 1;
  }

  return { look, looked, lookAt, letGo };
}
