/** Entering inner scenes and leaving them: the trail to the current scene, and its surroundings. */
import { useLocalStorage, useSessionStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, shallowRef, watch } from "vue";
import { useRouter } from "vue-router";
import { api } from "@/api/client";
import { isInset } from "@/api/kinds";
import { type Motion, numberAt, readMotion } from "@/api/motion";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/** A scene on the trail: the inset it was left through, the frame, and the address of the inner scene. */
export interface Crumb {
  readonly from: string;
  readonly name: string;
  readonly use: string | null;
  readonly frame: number;
  readonly to: string;
}

/** The address of an inner scene, whose whole is that of an address. */
export const addressInside = (address: string, inner: string): string => `${address.split("~")[0]}~${inner}`;

export const useInside = defineStore("inside", () => {
  const scene = useScene();
  const playback = usePlayback();
  const router = useRouter();

  const gone = useSessionStorage<readonly Crumb[]>("inside", []);
  /** Where the page begins in a scene that it goes to: at which frame, with what picked. */
  let arrival: { readonly to: string; readonly frame: number; readonly pick: string | null } | null = null;

  /** The scenes around the current one, the outermost first; empty for an outermost scene. */
  const trail = computed<readonly Crumb[]>(() => {
    const whole = scene.whole;
    if (!scene.id || !whole) return [];
    const at = gone.value.findLastIndex((crumb) => crumb.to === scene.id);
    const found = gone.value.slice(0, at + 1);
    if (at >= 0 && found[0]?.from === whole.id && found.every((one, i) => i === 0 || one.from === found[i - 1]!.to))
      return found;
    return [{ from: whole.id, name: whole.name, use: null, frame: 0, to: scene.id }];
  });

  /** Go into the scene inside an inset, at the frame it shows; there something can be picked at once. */
  function enter(id: string, pick: string | null = null): void {
    const thing = scene.byId.get(id);
    if (!isInset(thing) || !scene.id || !scene.head) return;
    const to = addressInside(scene.id, thing.inset.scene);
    const shown = scene.motion?.objects.get(id)?.channels["inset.frame"];
    arrival = { to, frame: shown ? Math.round(numberAt(shown, playback.frame)) : 0, pick };
    gone.value = [...trail.value, { from: scene.id, name: scene.head.name, use: id, frame: playback.frame, to }];
    around.value = scene.kept;
    void router.push({ name: "workspace", params: { id: to } });
  }

  /** Go back out, to one of the trail; to the nearest unless told. */
  function leave(index = trail.value.length - 1): void {
    const crumb = trail.value[index];
    if (!crumb) return;
    arrival = { to: crumb.from, frame: crumb.frame, pick: crumb.use };
    void router.push({ name: "workspace", params: { id: crumb.from } });
  }

  /** The initial frame of an entered scene; null for a scene opened otherwise. */
  function arrived(address: string) {
    const found = arrival?.to === address ? arrival : null;
    arrival = null;
    return found;
  }

  /** Whether what lies around an inset is shown, dimmed, while its inside is worked on. */
  const showAround = useLocalStorage("show-around", true);
  const around = shallowRef<Motion | null>(null);
  const nearest = computed(() => trail.value.at(-1) ?? null);

  /** What is outside may change with what is inside: it is asked for again when the hand rests. */
  watch(
    () => [showAround.value, nearest.value?.from, nearest.value?.use, scene.revision] as const,
    async ([shown, from, use]) => {
      if (!shown || !from || !use) return;
      const known = around.value?.revision !== undefined && around.value.objects.has(use) ? around.value : null;
      const found = await api.motion(from, known?.revision).catch(() => null);
      if (found && nearest.value?.from === from) around.value = readMotion(found, known ?? undefined);
    },
    { immediate: true },
  );

  /** The motion around the inset through which one came in, and that inset. */
  const outside = computed(() => {
    const use = nearest.value?.use;
    return showAround.value && use && around.value?.objects.has(use) ? { motion: around.value, use } : null;
  });

  return { trail, enter, leave, arrived, showAround, outside };
});
