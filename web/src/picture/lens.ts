/** The camera: how the picture sees what is in the scene, and the whole stage with the camera's frame in it. */
import { knownIn, type Motion, numberAt, type Rows, valuesAt } from "@/api/motion";
import { resolved } from "@/api/paintList";
import { IDENTITY, inverse, type Matrix, times, toMatrix } from "@/geometry/matrix";

const LENS = "camera.lens";

/** From the scene to the picture, for an object at a frame. */
export function lensOf(motion: Motion | null, id: string, frame: number): Matrix {
  const lens = motion?.objects.get(id)?.channels[LENS];
  return lens ? toMatrix(valuesAt(lens, frame)) : IDENTITY;
}

/** What views are without a lens, by both: a look leaves most objects as they are. */
const homes = new WeakMap<Rows, { readonly lens: Rows; readonly home: Rows }>();
function homeOf(view: Rows, lens: Rows): Rows {
  const known = homes.get(view);
  if (known?.lens === lens) return known.home;
  const home = combined(view, lens, (one, seen) => times(inverse(seen) ?? IDENTITY, one));
  homes.set(view, { lens, home });
  return home;
}

/** Rows of matrices, each made from those of two arrays at the same frame. */
function combined(one: Rows, other: Rows, make: (a: Matrix, b: Matrix) => Matrix): Rows {
  const rows = Math.max(one.rows, other.rows);
  const data = new Float32Array(rows * 6);
  for (let row = 0; row < rows; row++)
    data.set(make(toMatrix(valuesAt(one, row)), toMatrix(valuesAt(other, row))), row * 6);
  return { width: 6, rows, data };
}

/** The motion without the camera: everything at its position in the scene. */
export function onStage(motion: Motion): Motion {
  const objects = new Map(motion.objects);
  for (const [id, thing] of motion.objects) {
    const lens = thing.channels[LENS];
    if (!lens) continue;
    const { [LENS]: _, ...channels } = thing.channels;
    const bones = Object.fromEntries(Object.entries(thing.bones).map(([name, bone]) => [name, homeOf(bone, lens)]));
    objects.set(id, { ...thing, channels, bones, view: homeOf(thing.view, lens) });
  }
  const steps = resolved(motion.stepData, knownIn(objects));
  return { ...motion, objects, steps };
}

/** The corners of what a camera sees, in its own space: the picture, as much smaller as it looks closer. */
export function frameOf(motion: Motion, camera: string, frame: number) {
  const zoom = motion.objects.get(camera)?.channels["zoom"];
  const closer = zoom ? Math.max(numberAt(zoom, frame), 0.01) : 1;
  const [x, y] = [motion.size[0] / 2 / closer, motion.size[1] / 2 / closer];
  return { left: -x, top: -y, right: x, bottom: y };
}
