/** What new rules begin with where the object and what is around it say it. */
import { still } from "@/api/channels";
import { isColourDial } from "@/api/dials";
import { isCamera, isDial } from "@/api/kinds";
import { numberAt, valuesAt } from "@/api/motion";
import type { RuleWords, SceneObject } from "@/api/types";
import type { Settings } from "@/composables/rules/newSettings";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

export function useRuleBeginnings() {
  const scene = useScene();
  const playback = usePlayback();

  /** A tint begins with the first colour dial, in its current state: so nothing changes until the dial does. */
  function begunTint(): Settings {
    const dial = scene.dials.find((one) => isColourDial(one.dial));
    const rows = dial && scene.motion?.objects.get(dial.id)?.channels.value;
    const neutral = rows ? hexOf(valuesAt(rows, playback.frame)) : "";
    return (dial ? { dial: dial.dial.id, neutral } : {}) as Settings;
  }

  /**
   * What a rule begins with where the object itself says it: its floor is in the picture below it, its radius is its
   * own.
   */
  function begun(words: RuleWords, thing: SceneObject): Settings {
    const baked = scene.motion?.objects.get(thing.id)?.channels;
    const now = (name: string): number => (baked?.[name] ? numberAt(baked[name], playback.frame) : 0);
    const height = scene.motion?.size[1] ?? 720;
    switch (words.kind) {
      case "tint":
        return begunTint();
      case "bounce":
        return {
          floor: still(Math.round(Math.max(height * 0.85, now("y") + 60))),
          start: still(playback.frame),
        } as Settings;
      case "mask": {
        // Most often something is masked by what lies right over it.
        const at = scene.objects.findIndex((one) => one.id === thing.id);
        const over = scene.objects.slice(at + 1).find((one) => !isDial(thing) && one.parent === thing.parent);
        return (over && !isCamera(over) ? { by: over.id } : {}) as Settings;
      }
      case "roll":
        return baked?.["width"]
          ? ({ radius: still(Math.max(1, Math.round((now("width") * Math.abs(now("scale.x"))) / 2))) } as Settings)
          : {};
      default:
        return {};
    }
  }

  return { begun };
}
