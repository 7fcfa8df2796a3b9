/** Several picked objects, and what is done to all of them at once. */
import { isDial, kindOf } from "@/api/kinds";
import type { Edit, SceneObject } from "@/api/types";
import { useArranging } from "@/composables/several/useArranging";
import { useGrouping } from "@/composables/several/useGrouping";
import { usePicked } from "@/composables/several/usePicked";
import { useSharedKeys } from "@/composables/several/useSharedKeys";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { colourAt } from "@/picture/boxes";
import { useDeleting } from "@/stores/deleting";
import { useDrives } from "@/stores/drives";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useSeveral() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const troupe = useTroupe();
  const deleting = useDeleting();
  const drives = useDrives();
  const messages = useMessages();
  const { tops, free } = usePicked();

  const duplicate = () => troupe.duplicate(tops().map((one) => one.id));

  /** Take them out together, but for those that others read: the first of these is picked and asked about. */
  async function remove(): Promise<void> {
    const all = tops();
    const read = all.filter((one) => drives.readersOf(one.id).length);
    const free = all.filter((one) => !read.includes(one));
    if (free.length) {
      const done = await scene.edit(free.map((one): Edit => ({ edit: "delete-object", id: one.id })));
      if (!done) return;
      const what = free.length === 1 ? `${free[0]!.name} is` : `${free.length} objects are`;
      messages.withUndo(`${what} deleted.`, "Undo", () => void scene.undo());
    }
    selection.pick(read[0]?.id ?? null);
    if (read[0]) await deleting.ask(read[0]);
  }

  const show = (shown: boolean) => scene.edit(selection.picked.map((id): Edit => ({ edit: "show-object", id, shown })));
  const lock = (locked: boolean) => troupe.lock(selection.picked, locked);
  const tag = (colour: string | null) => troupe.tag(selection.picked, colour);

  /** Pick all objects that are like the first picked one. */
  function pickAlike(what: "kind" | "colour" | "tag"): void {
    const lead = selection.object;
    if (!lead) return;
    const like = (one: SceneObject): string =>
      what === "kind"
        ? kindOf(one)
        : what === "tag"
          ? String(isDial(one) ? null : one.tag)
          : colourAt(scene.motion, one, playback.frame);
    const wanted = like(lead);
    const found = scene.objects.filter((one) => like(one) === wanted && !scene.locked.has(one.id));
    selection.pickAll([lead.id, ...found.map((one) => one.id).filter((id) => id !== lead.id)]);
  }

  return {
    ...{ tops, free, duplicate, remove, show, lock, tag, pickAlike },
    ...useArranging(),
    ...useGrouping(),
    ...useSharedKeys(),
  };
}
