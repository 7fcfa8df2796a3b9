/** Changing when the picked keys come, and what happens between and after those of the picked row. */
import type { Edit } from "@/api/types";
import type { useKeyScopes } from "@/composables/keys/useKeyScopes";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useKeyTiming({ frames, keyedChannels }: ReturnType<typeof useKeyScopes>) {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();

  const make = (edit: Edit): Promise<boolean | undefined> => scene.edit([edit]);
  const reverse = () => make({ edit: "reverse-keys", keys: picks.keys });

  async function spread(): Promise<void> {
    const all = frames.value;
    const [first, last] = [all[0]!, all.at(-1)!];
    const places = new Map(all.map((frame, i) => [frame, first + ((last - first) * i) / (all.length - 1)]));
    const next = picks.moved((frame) => places.get(frame) ?? frame);
    if (await make({ edit: "spread-keys", keys: picks.keys })) picks.set(next);
  }

  /** The edit that stretches the picked keys in time about a frame. */
  const stretchEdit = (about: number, factor: number): Edit => ({
    edit: "stretch-keys",
    keys: picks.keys,
    about,
    factor,
  });

  async function stretch(about: number, factor: number): Promise<void> {
    const next = picks.moved((frame) => about + (frame - about) * factor);
    if (await make(stretchEdit(about, factor))) picks.set(next);
  }

  const evenSpeed = async (): Promise<void> => {
    if (
      selection.thing &&
      (await make({ edit: "even-speed", object: selection.thing.id, channels: keyedChannels.value }))
    )
      picks.clear();
  };
  const closeLoop = async (): Promise<void> => {
    if (selection.thing) await make({ edit: "close-loop", object: selection.thing.id, channels: keyedChannels.value });
  };
  const hold = async (frame: number, count: number, push: boolean): Promise<void> => {
    if (selection.thing)
      await make({
        edit: "hold-here",
        object: selection.thing.id,
        channels: keyedChannels.value,
        frame,
        frames: count,
        push,
      });
  };

  const turn = async (times: number, clockwise: boolean): Promise<void> => {
    if (selection.thing && frames.value.length)
      await make({ edit: "turn-times", object: selection.thing.id, frame: frames.value[0]!, times, clockwise });
  };

  return { reverse, spread, stretch, stretchEdit, evenSpeed, closeLoop, hold, turn };
}
