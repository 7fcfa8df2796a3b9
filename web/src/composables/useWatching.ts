/** The line to the service by which a page learns at once what others do to the scene it has open. */
import { useEventListener, useWebSocket } from "@vueuse/core";
import { computed, onScopeDispose, watch, type Ref } from "vue";
import { useRouter } from "vue-router";
import { thisPage } from "@/api/page";
import type { News } from "@/api/types";
import { useOthers } from "@/stores/others";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";

/**
 * Watch a scene, given the id of the outermost one, for as long as the component lives; none while the id is not known.
 */
export function useWatching(sceneId: Ref<string | undefined>): void {
  const [scene, others, messages, router] = [useScene(), useOthers(), useMessages(), useRouter()];
  const address = computed(() => {
    if (sceneId.value === undefined) return undefined;
    const { protocol, host } = window.location;
    return `${protocol === "https:" ? "wss" : "ws"}://${host}/api/scenes/${sceneId.value}/watch?page=${thisPage}`;
  });
  const { send } = useWebSocket(address, {
    autoConnect: true,
    autoReconnect: { retries: () => true, delay: (tries) => Math.min(500 * 2 ** tries, 8000) },
    onConnected: (socket) => {
      if (others.name) socket.send(others.name);
      void scene.catchUp();
    },
    onMessage: (_, event: MessageEvent<string>) => take(JSON.parse(event.data) as News),
  });

  function take(news: News): void {
    if (news.news === "here") {
      // What undo takes back depends on who is there.
      if (others.here(news.pages)) void scene.catchUp();
    } else if (news.news === "changed") {
      if (news.by?.id !== thisPage) others.tell(news);
      void scene.catchUp(news.revision, news.by?.name);
    } else {
      messages.warn("This scene was deleted on another page. Restore it on the Shelf.");
      void router.push("/");
    }
  }

  const first = { capture: true, passive: true };
  useEventListener(window, "pointerdown", () => scene.press(true), first);
  // A drag ends with an edit made during this event: it still counts as pressed.
  useEventListener(window, ["pointerup", "pointercancel"], () => setTimeout(() => scene.press(false)), first);
  watch(
    () => others.name,
    (name) => void send(name),
  );
  watch(sceneId, others.leave);
  onScopeDispose(others.leave);
}
