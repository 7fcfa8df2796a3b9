/** The initial numbers of a link, read from the current scene. */
import { numberAt } from "@/api/motion";
import type { How, Place } from "@/api/types";
import type { Numbers } from "@/components/links/LinkHow.vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

export function useLinkNumbers() {
  const scene = useScene();
  const playback = usePlayback();

  const rowsOf = (place: Place) => scene.motion?.objects.get(place.object)?.channels[place.channel];
  const round = (value: number): number => Number(value.toPrecision(6));

  /** How far a value goes in the scene, and what it is now. */
  function reach(place: Place): { least: number; most: number; now: number } {
    const rows = rowsOf(place);
    if (!rows || rows.width !== 1) return { least: 0, most: 1, now: 0 };
    let [least, most] = [Infinity, -Infinity];
    for (const value of rows.data) [least, most] = [Math.min(least, value), Math.max(most, value)];
    return { least: round(least), most: round(most), now: round(numberAt(rows, playback.frame)) };
  }

  /** Half the width something is drawn with: the radius of a wheel. */
  function radius(id: string): number {
    const baked = scene.motion?.objects.get(id);
    const bounds = baked?.outline?.outline(0)?.bounds;
    if (!baked || !bounds) return 1;
    const width = baked.channels.width ? numberAt(baked.channels.width, playback.frame) : bounds[2] - bounds[0];
    const scale = baked.channels["scale.x"] ? Math.abs(numberAt(baked.channels["scale.x"], playback.frame)) : 1;
    return round((width / 2) * scale) || 1;
  }

  function begun(driver: Place, driven: Place | null, step: number): Numbers {
    const { least, most } = reach(driver);
    const dial = scene.dials.find((one) => one.id === driver.object)?.dial;
    const now = driven ? reach(driven).now : 0;
    const [low, high] =
      dial && dial.low != null && dial.high != null
        ? [dial.low, dial.high]
        : least < most
          ? [least, most]
          : [least, least + 1];
    return {
      factor: 1,
      driver_size: radius(driver.object),
      own_size: driven ? radius(driven.object) : 1,
      same_way: false,
      about: 0,
      frames: 6,
      low,
      high,
      to_low: now,
      to_high: round(now + 100 * step),
      go_on: false,
    };
  }

  /** A way with its numbers, as the service takes it. */
  function howOf(way: How["how"], n: Numbers): How {
    switch (way) {
      case "times":
      case "added":
        return { how: way, factor: n.factor };
      case "geared":
        return { how: way, driver_size: n.driver_size, own_size: n.own_size, same_way: n.same_way };
      case "mirrored":
        return { how: way, about: n.about };
      case "remapped":
        return { how: way, low: n.low, high: n.high, to_low: n.to_low, to_high: n.to_high, go_on: n.go_on };
      case "later":
        return { how: way, frames: n.frames };
      case "envelope":
        return { how: way, low: n.low, high: n.high };
      default:
        return { how: way } as How;
    }
  }

  return { reach, begun, howOf };
}
