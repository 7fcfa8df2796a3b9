/** Putting new objects into the scene. */
import { newId } from "@/api/ids";
import { newObject } from "@/composables/troupe/kinds";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useAdding() {
  const scene = useScene();
  const selection = useSelection();

  /** Add a new object in the middle of the picture and begin to name it. */
  async function add(kind: string, pathData = ""): Promise<void> {
    if (kind === "camera") return addCamera();
    if (!scene.head) return;
    const id = newId();
    const [width, height] = scene.head.size;
    const object = newObject(kind, id, { x: width / 2, y: height / 2 }, scene.objects.length, pathData);
    if (!(await scene.edit([{ edit: "add-object", object }]))) return;
    selection.pick(id);
    // A text is written first; its name follows what is written.
    if (kind === "text") selection.writing = id;
    else selection.renaming = id;
  }

  /** Pick the camera; where it is missing, add one. */
  async function addCamera(): Promise<void> {
    if (scene.camera) return selection.pick(scene.camera.id);
    const id = newId();
    if (!(await scene.edit([{ edit: "add-camera", id, name: "Camera" }]))) return;
    scene.wholeStage = true;
    selection.pick(id);
  }

  /** Begin a figure in the lower part of the picture, standing on its origin. */
  async function addFigure(starter: string, name: string, height: number, drawn: boolean): Promise<void> {
    if (!scene.head) return;
    const id = newId();
    const [wide, high] = scene.head.size;
    const place = { x: Math.round(wide * 0.25), y: Math.round(high * 0.82) };
    if (await scene.edit([{ edit: "add-figure", id, name, starter, ...place, height, drawn }])) selection.pick(id);
  }

  return { add, addFigure };
}
