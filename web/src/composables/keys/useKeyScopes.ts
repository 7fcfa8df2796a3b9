/** Which keys are meant: the picked ones, those of a row, of an object, of the scene, or of a frame. */
import { computed } from "vue";
import { keyedNames } from "@/api/channels";
import { allKeysOf, keysAt, type Picked, usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { namesOf } from "@/stores/vocabulary";

export type Scope = "row" | "object" | "scene" | "frame";

export function useKeyScopes() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();

  const rowChannels = computed(() => (selection.row ? namesOf(selection.row) : []));
  const keyedChannels = computed(() => rowChannels.value.filter((name) => selection.keysOf(name).length > 0));
  const frames = computed(() => picks.frames);
  const rowFrames = computed(() =>
    [...new Set(keyedChannels.value.flatMap((name) => selection.keysOf(name).map((key) => key.frame)))].sort(
      (a, b) => a - b,
    ),
  );

  /** All keys of the picked row, the picked object, the scene, or all at the playhead. */
  function within(scope: Scope): Picked[] {
    if (scope === "scene") return scene.objects.flatMap(allKeysOf);
    if (scope === "frame")
      return scene.objects.flatMap((thing) => keysAt(thing, keyedNames(thing), new Set([playback.frame])));
    // Of all that are picked together.
    const things = selection.thing ? [selection.thing, ...selection.others] : [];
    return things.flatMap((thing) => (scope === "object" ? allKeysOf(thing) : keysAt(thing, rowChannels.value, null)));
  }
  const pickAll = (scope: Scope = "row"): void => picks.set(within(scope));

  return { keyedChannels, frames, rowFrames, within, pickAll };
}
