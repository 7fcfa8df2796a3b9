/** Going from key to key: those of the picked object, or of the whole troupe if none is picked. */
import { keyedNames, keysOf } from "@/api/channels";
import { computed } from "vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useKeyTravel() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  const frames = computed(() => {
    const things = selection.thing ? [selection.thing] : scene.objects;
    const all = things.flatMap((thing) =>
      keyedNames(thing).flatMap((name) => keysOf(thing, name).map((key) => key.frame)),
    );
    return [...new Set(all)].sort((a, b) => a - b);
  });

  /**
   * Go to the next key (1) or the previous one (−1); with `row` only to those of the chosen row. Stay if there is
   * none.
   */
  function toKey(direction: 1 | -1, row = false): void {
    const at = playback.frame;
    const own = (selection.row?.channels ?? []).flatMap((channel) =>
      selection.keysOf(channel.name).map((key) => key.frame),
    );
    // The playhead is on whole frames: a key between two counts as on the nearer one.
    const list = (row ? [...new Set(own)].sort((a, b) => a - b) : frames.value).map(Math.round);
    const target = direction > 0 ? list.find((frame) => frame > at) : list.findLast((frame) => frame < at);
    if (target !== undefined) playback.goTo(target);
  }

  return { frames, toKey };
}
