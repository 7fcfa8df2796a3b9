/** The label beside a dragged object: the values it would have. */
import { computed, type Ref, shallowRef, watch } from "vue";
import type { PathEdit } from "@/composables/path/usePathEdit";
import type { PictureDrag } from "@/composables/picture/usePictureDrag";
import type { PictureView } from "@/composables/picture/usePictureView";
import { readable } from "@/geometry/frames";
import type { Matrix } from "@/geometry/matrix";
import { type Box, corners } from "@/picture/boxes";

const LABELS: Record<string, string> = {
  x: "x",
  y: "y",
  rotation: "turn",
  "scale.x": "wide",
  "scale.y": "high",
  "pivot.x": "pivot x",
  "pivot.y": "pivot y",
};

/**
 * `matrix` and `box` are those of the picked object, from its own space to the picture. `looking` tells whether a new
 * picture is on its way for each change of what is dragged.
 */
export function useDragTag(
  drag: PictureDrag,
  path: PathEdit,
  view: PictureView,
  matrix: Ref<Matrix | null>,
  box: Ref<Box | null>,
  looking: () => boolean,
) {
  /** The values told: new ones come with the picture that shows them, so that both take one frame of the browser. */
  const values = shallowRef(drag.values.value);
  watch([drag.values, matrix], ([now, world], [, before]) => {
    if (!now || !values.value || !looking() || world !== before) values.value = now;
  });

  return computed(() => {
    const moving = path.moving.value;
    if (moving) {
      const key = path.keys.value.find((one) => one.frame === moving.frame);
      return key ? { text: moving.text, at: view.onStage(path.space.value, path.pointOf(key)) } : null;
    }
    const world = matrix.value;
    if (!values.value || !world || !box.value) return null;
    const told = Object.entries(values.value).map(([name, value]) =>
      name.startsWith("scale")
        ? `${LABELS[name]} ${readable(value * 100)} %`
        : `${LABELS[name] ?? name} ${readable(value)}${name === "rotation" ? "°" : ""}`,
    );
    const lowest = corners(box.value)
      .map((corner) => view.onStage(world, corner))
      .reduce((a, b) => (b.y > a.y ? b : a));
    return { text: told.join("   "), at: lowest };
  });
}
