/**
 * The guided first scene: whether it is on, and how far one has come. It can be left and adopted again, also on
 * another day.
 */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, watch } from "vue";
import { FIRST_SCENE, nextStep } from "@/guide/firstScene";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export const useGuide = defineStore("guide", () => {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const kept = useLocalStorage("first-scene", { on: false, step: 0 });
  const on = computed(() => kept.value.on);
  const at = computed(() => kept.value.step);
  const step = computed(() => (on.value ? (FIRST_SCENE[at.value] ?? null) : null));
  const finished = computed(() => on.value && at.value >= FIRST_SCENE.length);
  /** Whether it was begun and left before its end. */
  const begun = computed(() => !on.value && at.value > 0 && at.value < FIRST_SCENE.length);

  const go = (to: number): void => void (kept.value = { on: true, step: to });
  const begin = (): void => go(begun.value ? at.value : 0);
  const skip = (): void => go(at.value + 1);
  function leave(): void {
    kept.value = { on: false, step: finished.value ? 0 : at.value };
  }

  watch(
    () => [on.value, scene.objects, playback.frame, playback.playing] as const,
    () => {
      if (!on.value || !scene.id) return;
      const seen = {
        objects: scene.objects,
        picked: selection.object,
        frame: playback.frame,
        playing: playback.playing,
      };
      const next = nextStep(at.value, seen);
      if (next !== at.value) go(next);
    },
  );

  return { on, at, step, finished, begun, begin, skip, leave };
});
