/** The open scene: the server's state, its baked motion, and the edits on their way. */
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import { api, type ChangedMotion, ServiceError, STOPPED } from "@/api/client";
import { endLooks } from "@/api/looks";
import type { BroughtPart, Edit } from "@/api/types";
import { Work } from "@/api/work";
import { concern, touchedBy } from "@/geometry/touched";
import { useCalm } from "@/composables/scene/useCalm";
import { useKeptScene } from "@/composables/scene/useKeptScene";
import { useLooks } from "@/composables/scene/useLooks";
import { useOvertaking } from "@/composables/scene/useOvertaking";
import { useServerReturn } from "@/composables/scene/useServerReturn";
import { useTurns } from "@/composables/scene/useTurns";
import { onStage } from "@/picture/lens";
import { useMessages } from "@/stores/messages";

/** Who did what nobody put a name to. */
const ANOTHER = "Another page";
/** How often a change is asked for again because others were quicker. */
const MOST_TRIES = 20;

export const useScene = defineStore("scene", () => {
  const messages = useMessages();
  const scene = useKeptScene();
  const { id, revision, history, head, objects, kept, whole, camera } = scene;
  /** What the service is computing, if anything. */
  const working = shallowRef<Work | null>(null);
  /** The scene to leave to once the current one was deleted, by undo or by another page. */
  const goOutTo = ref<string | null>(null);

  const { unreachable, lost, answered } = useServerReturn(
    () => read(id.value!),
    () => id.value !== null,
    () => messages.info("The server is back. This is the last saved state; repeat your last change if it is missing."),
  );
  /** Each edit is made against the revision that the one before left. */
  const { waiting, inTurn } = useTurns(failed, answered);
  const state = computed(() => (unreachable.value ? "not saved" : waiting.value > 0 ? "saving" : "saved"));

  const { press, note, whoOvertook, forget } = useOvertaking(() => scene.ids.value);
  const { look, looked, lookAt, letGo } = useLooks(scene, {
    isOvertaken: (edits) => whoOvertook(edits) !== null,
    isSaving: () => waiting.value > 0,
    takeNews,
    failed,
  });

  /** Whether the whole stage is seen, and the camera's frame in it, instead of what the camera sees. */
  const wholeStage = ref(false);
  const seen = computed(() => looked.value ?? kept.value);
  const motion = computed(() => (seen.value && wholeStage.value && camera.value ? onStage(seen.value) : seen.value));
  /** The same for what is read beside the picture: while one look follows the other, it comes more rarely. */
  const calmMotion = useCalm(motion, () => looked.value !== null);

  async function failed(error: unknown): Promise<void> {
    if (!(error instanceof ServiceError)) throw error;
    if (error.status === 404 && whole.value) {
      goOutTo.value = whole.value.id;
      return;
    }
    if (error.status === STOPPED) {
      messages.info(error.message);
      // It may have been kept just before it was stopped.
      await takeNews();
      return;
    }
    if (error.status === 409 && id.value) {
      await read(id.value);
      messages.warn(
        "Your last change was not made: the scene was changed on another page. This is the newest version; repeat your change if you still want it.",
      );
      return;
    }
    if (error.status === 0) lost();
    messages.error(error.message);
  }

  async function read(sceneId: string): Promise<void> {
    const [found, message] = await stoppable((work) =>
      Promise.all([api.scene(sceneId, work), api.motion(sceneId, undefined, work)]),
    );
    scene.show(sceneId, found, message);
    goOutTo.value = null;
    letGo();
  }

  function take(change: ChangedMotion): void {
    if (scene.take(change)) letGo();
  }

  /** Apply the changes of others, and report them. Previews are requested again. */
  function takeOthers(change: ChangedMotion, who: string): ReadonlySet<string> {
    if (!head.value || change.changed.revision === revision.value) {
      history.value = change.changed.history;
      return new Set();
    }
    const touched = touchedBy({ head: head.value, objects: objects.value }, change.changed);
    const held = look.value;
    take(change);
    if (held && concern(held.edits, touched, scene.ids.value)) note(who, touched);
    else if (held) void lookAt(held.edits, held.said);
    return touched;
  }

  /** Fetch and apply the changes of others since the current revision; returns the ids they touched. */
  async function takeNews(who = ANOTHER): Promise<ReadonlySet<string>> {
    return id.value ? takeOthers(await api.changes(id.value, revision.value), who) : new Set();
  }

  /** See what others did: up to a revision, or, without one, whatever there is. */
  function catchUp(to = Infinity, who = ANOTHER): Promise<unknown> {
    return inTurn(async () => {
      if (revision.value < to) await takeNews(who);
    }, 0);
  }

  /** Do what the service may take long over. */
  async function stoppable<T>(ask: (work: Work) => Promise<T>): Promise<T> {
    const mine = (working.value = new Work());
    try {
      return await ask(mine);
    } finally {
      if (working.value === mine) working.value = null;
    }
  }

  /**
   * Ask for a change at the revision at hand. Where others were quicker, it is asked for again, as long as what they
   * did has nothing to do with what it is `of`; null is all of the scene.
   */
  async function ask(
    call: (id: string, revision: number, work: Work) => Promise<ChangedMotion>,
    of: readonly object[] | null = [],
  ): Promise<void> {
    for (let tries = 0; id.value; tries++) {
      try {
        const sceneId = id.value;
        return take(await stoppable((work) => call(sceneId, revision.value, work)));
      } catch (error) {
        if (!(error instanceof ServiceError) || error.status !== 409 || tries === MOST_TRIES) throw error;
        const touched = await takeNews();
        if (!of || concern(of, touched, scene.ids.value)) throw error;
      }
    }
  }

  /** Ask for edits to be kept. If they are not, the picture goes back to what is. */
  async function keep(edits: Edit[]): Promise<void> {
    try {
      await ask((sceneId, at, work) => api.edit(sceneId, at, edits, work), edits);
    } catch (error) {
      letGo();
      throw error;
    }
  }

  /** Make edits as one step of undo. Resolves when they are kept and the picture shows them. */
  function edit(edits: Edit[]): Promise<boolean | undefined> {
    return inTurn(async () => {
      if (!id.value || edits.length === 0) return false;
      const changedBy = whoOvertook(edits);
      forget();
      if (changedBy) {
        letGo();
        messages.warn(
          `${changedBy} changed the same value while you were dragging. Your change was not made; repeat it if you still want it.`,
        );
        return false;
      }
      await keep(edits);
      return true;
    });
  }

  /**
   * As `edit`, but hands back what the service says against the edits, to be shown where they were asked for. Null if
   * they are kept.
   */
  function attempt(edits: Edit[]): Promise<string | null | undefined> {
    return inTurn(async () => {
      if (!id.value) return null;
      try {
        await keep(edits);
        return null;
      } catch (error) {
        if (error instanceof ServiceError && (error.status === 422 || error.status === 400)) return error.message;
        throw error;
      }
    });
  }

  /** Make the scene, or parts of it, unchanged in a rehearsal, as one step of undo. */
  function bringBack(rehearsal: string, parts: readonly BroughtPart[] | null): Promise<boolean | undefined> {
    return inTurn(async () => {
      if (!id.value) return false;
      await ask((sceneId, at, work) => api.bringBack(sceneId, at, rehearsal, parts, work), parts);
      return true;
    });
  }

  /** Keep what is being looked at. */
  async function keepLook(): Promise<void> {
    if (look.value) await edit(look.value.edits);
  }

  const undo = () => inTurn(() => ask(api.undo));
  const redo = () => inTurn(() => ask(api.redo));

  /** Open a scene; false if it is missing of this id. */
  async function open(sceneId: string): Promise<boolean> {
    close();
    try {
      await read(sceneId);
      return true;
    } catch (error) {
      if (error instanceof ServiceError && error.status === 404) return false;
      await failed(error);
      return false;
    }
  }

  /** Close the scene on the page; pending work for it is cancelled. */
  function close(): void {
    if (!id.value) working.value?.stop();
    scene.clear();
    wholeStage.value = false;
    letGo();
    endLooks();
  }

  return {
    id,
    revision,
    history,
    head,
    objects,
    dials: scene.dials,
    byId: scene.byId,
    parentOf: scene.parentOf,
    parts: scene.parts,
    wholes: scene.wholes,
    locked: scene.locked,
    kept,
    motion,
    calmMotion,
    camera,
    wholeStage,
    look,
    whole,
    goOutTo,
    state,
    working,
    open,
    close,
    edit,
    attempt,
    bringBack,
    catchUp,
    press,
    undo,
    redo,
    lookAt,
    letGo,
    keepLook,
  };
});
