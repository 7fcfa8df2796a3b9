/** The scene at work: what the server keeps, its baked motion, and the edits on their way. */
import { useIntervalFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import { api, type ChangedMotion, ServiceError, STOPPED } from "@/api/client";
import { endLooks } from "@/api/looks";
import { type Motion, readMotion } from "@/api/motion";
import type { BroughtPart, TroupeObject, Edit, HistoryState, SceneHead, SceneState } from "@/api/types";
import { Work } from "@/api/work";
import { concern, touchedBy } from "@/geometry/touched";
import { useCalm } from "@/composables/useCalm";
import { useSceneParts } from "@/composables/useSceneParts";
import { useTurns } from "@/composables/useTurns";
import { onStage } from "@/picture/lens";
import { useMessages } from "@/stores/messages";

/** Edits shown but not made: the picture as it would be, until they are kept or let go. */
export interface Look {
  readonly edits: Edit[];
  /** What is being looked at, for the line that offers to keep it; none while dragging. */
  readonly said: string | null;
}

/** Who did what nobody put a name to. */
const ANOTHER = "Another page";
/** How often a change is asked for again because others were quicker. */
const MOST_TRIES = 20;

export const useScene = defineStore("scene", () => {
  const messages = useMessages();
  const id = ref<string | null>(null);
  const revision = ref(0);
  const history = ref<HistoryState>({ undo: null, redo: null });
  const head = shallowRef<SceneHead | null>(null);
  const objects = shallowRef<readonly TroupeObject[]>([]);
  const kept = shallowRef<Motion | null>(null);
  const looked = shallowRef<Motion | null>(null);
  const look = shallowRef<Look | null>(null);
  /** What the service is working out, if anything. */
  const working = shallowRef<Work | null>(null);
  const unreachable = ref(false);
  /** The scene that this one is inside of, if it is. */
  const whole = shallowRef<SceneState["whole"]>(null);
  /** The scene to go out to, once the one at hand is no more: undo took it away, or somebody else did. */
  const goOutTo = ref<string | null>(null);

  /** Whether the whole stage is seen, and the camera's frame in it, instead of what the camera sees. */
  const wholeStage = ref(false);
  const seen = computed(() => looked.value ?? kept.value);
  const { camera, dials, byId, parentOf, parts, wholes, locked } = useSceneParts(head, objects);
  const motion = computed(() => (seen.value && wholeStage.value && camera.value ? onStage(seen.value) : seen.value));
  /** The same for what is read beside the picture: while one look follows the other, it comes at 10 Hz. */
  const calmMotion = useCalm(motion, () => looked.value !== null);

  /** Each edit is made against the revision that the one before left. */
  const { waiting, inTurn } = useTurns(failed, () => (unreachable.value = false));
  const state = computed(() => (unreachable.value ? "not saved" : waiting.value > 0 ? "saving" : "saved"));

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
        "This scene was changed elsewhere, so your last change was not made. You now see the newest version; repeat the change if you still want it.",
      );
      return;
    }
    if (error.status === 0) {
      unreachable.value = true;
      asking.resume();
    }
    messages.error(error.message);
  }

  /**
   * While the server does not answer, it is asked every now and then; once it is back, the page shows what it keeps.
   */
  const asking = useIntervalFn(
    async () => {
      if (!unreachable.value || !id.value) return asking.pause();
      try {
        await read(id.value);
      } catch {
        return;
      }
      unreachable.value = false;
      asking.pause();
      messages.info(
        "Vine Swing's server is back. You see the scene as it was last saved; repeat your last change if it is missing.",
      );
    },
    2000,
    { immediate: false },
  );

  async function read(sceneId: string): Promise<void> {
    const [found, message] = await stoppable((work) =>
      Promise.all([api.scene(sceneId, work), api.motion(sceneId, undefined, work)]),
    );
    id.value = sceneId;
    revision.value = found.revision;
    history.value = found.history;
    head.value = {
      ...found.scene,
      own_fonts: found.own_fonts ?? [],
      inner: found.inner ?? [],
      blur: found.scene.blur ?? null,
      beat: found.scene.beat ?? null,
      pictures_shown: found.pictures_shown ?? {},
    };
    whole.value = found.whole ?? null;
    goOutTo.value = null;
    objects.value = found.scene.objects;
    kept.value = readMotion(message);
    letGo();
  }

  function take({ changed, motion: message }: ChangedMotion): void {
    if (!id.value || changed.revision === revision.value) return;
    const fresh = new Map(changed.objects.map((thing) => [thing.id, thing]));
    const before = new Map(objects.value.map((thing) => [thing.id, thing]));
    head.value = changed.head;
    objects.value = changed.order.flatMap((object) => fresh.get(object) ?? before.get(object) ?? []);
    revision.value = changed.revision;
    history.value = changed.history;
    kept.value = readMotion(message, kept.value ?? undefined);
    letGo();
  }

  /**
   * What others changed while something was being dragged, and who: the drag began with what it was before, so it must
   * not end in their place.
   */
  let overtaking: { readonly who: string; readonly touched: ReadonlySet<string> } | null = null;
  let dragging = false;
  /** A button of the pointer is pressed, or not any more. */
  function press(down: boolean): void {
    dragging = down;
    if (down) overtaking = null;
  }

  /** Take up what others changed, and tell what that was. What is looked at is looked at again. */
  function takeOthers(change: ChangedMotion, who: string): ReadonlySet<string> {
    if (!head.value || change.changed.revision === revision.value) {
      history.value = change.changed.history;
      return new Set();
    }
    const touched = touchedBy({ head: head.value, objects: objects.value }, change.changed);
    const held = look.value;
    take(change);
    if (held && concern(held.edits, touched, ids())) {
      if (dragging) overtaking = { who, touched };
    } else if (held) void lookAt(held.edits, held.said);
    return touched;
  }

  /** Ask what others changed after the revision at hand, and take it up; the ids of what they touched. */
  async function takeNews(who = ANOTHER): Promise<ReadonlySet<string>> {
    return id.value ? takeOthers(await api.changes(id.value, revision.value), who) : new Set();
  }

  const ids = (): ReadonlySet<string> => new Set(byId.value.keys());

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
        const scene = id.value;
        return take(await stoppable((work) => call(scene, revision.value, work)));
      } catch (error) {
        if (!(error instanceof ServiceError) || error.status !== 409 || tries === MOST_TRIES) throw error;
        const touched = await takeNews();
        if (!of || concern(of, touched, ids())) throw error;
      }
    }
  }

  let lookNumber = 0;
  let lookRunning = false;

  /**
   * Show the picture as it would be after some edits. While one look is on its way, only the newest of the others
   * waits. `refused` is told why there is nothing to see, in place of everybody.
   */
  async function lookAt(
    edits: Edit[],
    words: string | null = null,
    refused?: (message: string) => void,
  ): Promise<void> {
    if (overtaking && concern(edits, overtaking.touched, ids())) return;
    look.value = { edits, said: words };
    lookNumber += 1;
    if (lookRunning) return;
    lookRunning = true;
    try {
      let shown = 0;
      while (look.value && shown !== lookNumber && id.value) {
        shown = lookNumber;
        const [against, asked] = [kept.value, revision.value];
        const message = await api.look(id.value, asked, look.value.edits).catch(async (error: unknown) => {
          if (!(error instanceof ServiceError) || error.status !== 409) throw error;
          if (!ownEditSince(asked)) await takeNews();
          return null;
        });
        if (message && look.value && against === kept.value && against) looked.value = readMotion(message, against);
      }
    } catch (error) {
      letGo();
      if (refused && error instanceof ServiceError && error.status === 422) refused(error.message);
      else await failed(error);
    } finally {
      lookRunning = false;
    }
  }

  /**
   * Whether an edit of this page reached the service before a look: what it changed is known, or will be in a moment.
   */
  const ownEditSince = (asked: number): boolean => waiting.value > 0 || revision.value !== asked;

  /** Go back to the picture as it is kept. */
  function letGo(): void {
    look.value = null;
    looked.value = null;
    lookNumber += 1;
  }

  /** Ask for edits to be kept. If they are not, the picture goes back to what is. */
  async function keep(edits: Edit[]): Promise<void> {
    try {
      await ask((scene, at, work) => api.edit(scene, at, edits, work), edits);
    } catch (error) {
      letGo();
      throw error;
    }
  }

  /** Make edits as one step of undo. Resolves when they are kept and the picture shows them. */
  function edit(edits: Edit[]): Promise<boolean | undefined> {
    return inTurn(async () => {
      if (!id.value || edits.length === 0) return false;
      const changedBy = overtaking && concern(edits, overtaking.touched, ids()) ? overtaking.who : null;
      overtaking = null;
      if (changedBy) {
        letGo();
        messages.warn(
          `${changedBy} changed this while you were dragging, so your change was not made. You see theirs; repeat yours if you still want it.`,
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

  /** Make the scene, or parts of it, as it was in a rehearsal, as one step of undo. */
  function bringBack(rehearsal: string, parts: readonly BroughtPart[] | null): Promise<boolean | undefined> {
    return inTurn(async () => {
      if (!id.value) return false;
      await ask((scene, at, work) => api.bringBack(scene, at, rehearsal, parts, work), parts);
      return true;
    });
  }

  /** Keep what is being looked at. */
  async function keepLook(): Promise<void> {
    if (look.value) await edit(look.value.edits);
  }

  const undo = () => inTurn(() => ask(api.undo));
  const redo = () => inTurn(() => ask(api.redo));

  /** Open a scene; false if there is none of this id. */
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

  /** Let the scene go from the page; what is still being worked out for it is given up. */
  function close(): void {
    if (!id.value) working.value?.stop();
    id.value = null;
    head.value = null;
    whole.value = null;
    wholeStage.value = false;
    objects.value = [];
    kept.value = null;
    letGo();
    endLooks();
  }

  return {
    id,
    revision,
    history,
    head,
    objects,
    dials,
    byId,
    parentOf,
    parts,
    wholes,
    locked,
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
