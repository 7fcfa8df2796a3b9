/** The way along the outline that comes to a rule that draws a part of it, to take hold of its ends. */
import { computed, type Ref, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import type { Rule } from "@/api/types";
import { useNewest } from "@/composables/useNewest";
import { distance, type Point } from "@/geometry/matrix";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export interface OutlineWay {
  readonly at: (share: number) => Point;
  readonly nearest: (to: Point) => number;
}
/** Places that are tried to find the nearest. */
const PLACES = 240;

export function useOutlineWay(rules: Ref<readonly Rule[]>): Ref<ReadonlyMap<string, OutlineWay>> {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const found = shallowRef<ReadonlyMap<string, OutlineWay>>(new Map());
  const wanted = computed(() => rules.value.filter((rule) => rule.kind === "draw-on").map((rule) => rule.id));

  const beginAsking = useNewest();
  watch(
    () => [scene.id, scene.revision, selection.objectId, wanted.value.join(" "), playback.frame] as const,
    async ([id, , object, ids, frame]) => {
      const isNewest = beginAsking();
      if (!id || !object || !ids) {
        found.value = new Map();
        return;
      }
      const vine = await api.vine(id, object, "outline", frame).catch(() => null);
      if (!vine || !isNewest()) return;
      const ways = new Map<string, OutlineWay>();
      vine.steps.forEach((step, i) => {
        const before = vine.steps[i - 1]?.outline;
        if (step.rule && wanted.value.includes(step.rule) && before) ways.set(step.rule, wayOf(before));
      });
      found.value = ways;
    },
    { immediate: true },
  );
  return found;
}

/** Measured by the browser: an element that is not shown has lengths all the same. */
function wayOf(d: string): OutlineWay {
  const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
  path.setAttribute("d", d);
  const length = path.getTotalLength();
  const at = (share: number): Point => {
    const { x, y } = path.getPointAtLength(share * length);
    return { x, y };
  };
  const nearest = (to: Point): number => {
    let best = { share: 0, far: Infinity };
    for (let i = 0; i <= PLACES; i++) {
      const far = distance(at(i / PLACES), to);
      if (far < best.far) best = { share: i / PLACES, far };
    }
    return best.share;
  };
  return { at, nearest };
}
