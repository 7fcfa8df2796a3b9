/** What a new cue begins with: the play range or the keys of the picked object, and a key that is still free. */
import { newId } from "@/api/ids";
import { keyedNames, keysOf } from "@/api/channels";
import type { Cue } from "@/api/types";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useCues() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  function fresh(): Cue {
    const cues = scene.head?.cues ?? [];
    const thing = selection.object;
    const frames = thing
      ? withParts(thing.id, scene.parts).flatMap((id) => {
          const part = scene.byId.get(id)!;
          return keyedNames(part).flatMap((name) => keysOf(part, name).map((key) => key.frame));
        })
      : [];
    const [first, last] = playback.range
      ? [playback.range.from, playback.range.to]
      : frames.length
        ? [Math.min(...frames), Math.max(...frames)]
        : [0, playback.last];
    const name = thing
      ? `${thing.name} ${cues.filter((one) => one.objects?.includes(thing.id)).length + 1}`
      : `Cue ${cues.length + 1}`;
    const taken = new Set(cues.map((one) => one.key));
    const key =
      [...name.toLowerCase(), ..."abcdefghijklmnopqrstuvwxyz"].find(
        (letter) => /[a-z]/.test(letter) && !taken.has(letter),
      ) ?? null;
    return {
      id: newId(),
      name,
      first: Math.max(0, Math.round(first)),
      last: Math.round(last),
      objects: thing ? [thing.id] : [],
      key,
      click: null,
      plays: "once",
    };
  }

  return { fresh };
}
