/** Bringing drawings and scenes in as objects of this scene, and keys onto the objects that are here. */
import { api } from "@/api/client";
import { newId } from "@/api/ids";
import type { Edit } from "@/api/types";
import type { Work } from "@/api/work";
import { report, say } from "@/composables/bringing/state";
import type { Point } from "@/geometry/matrix";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useBringScenes() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** Put a drawing, or all objects of a scene, into this one; or take keys over from a file of keys. */
  async function bringScene(file: File, middle: Point, work: Work): Promise<void> {
    const keys = /\.json$/i.test(file.name) ? keysIn(await file.text()) : null;
    if (keys) {
      if (await scene.edit([{ edit: "bring-keys", tracks: keys }])) say(`${file.name}: keys imported.`);
      return;
    }
    const { scene: parcel, lost } = await api.bringDrawing(file, work);
    const prefix = newId().slice(0, 12);
    const place = { x: Math.round(middle.x - parcel.size[0] / 2), y: Math.round(middle.y - parcel.size[1] / 2) };
    if (!(await scene.edit([{ edit: "place-parcel", parcel, prefix, hang: {}, frame: playback.frame, ...place }])))
      return;
    const depths = new Map<string, number>();
    const parts = parcel.objects.map((one) => {
      depths.set(one.id, one.parent ? (depths.get(one.parent) ?? 0) + 1 : 0);
      return { id: `${prefix}-${one.id}`.slice(0, 64), name: one.name, depth: depths.get(one.id)! };
    });
    selection.pick(parts[0]!.id);
    report.value = { name: file.name, parts, lost };
  }

  return { bringScene };
}

/** The tracks in a file of keys; null where it is none. */
function keysIn(text: string): Extract<Edit, { edit: "bring-keys" }>["tracks"] | null {
  try {
    const data = JSON.parse(text) as { format?: unknown; tracks?: unknown };
    return data.format === "vine-swing-keys" && Array.isArray(data.tracks) ? data.tracks : null;
  } catch {
    return null;
  }
}
