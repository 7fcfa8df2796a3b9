/** Deleting objects and dials. What others read is not taken away before it is said who they are. */
import { defineStore } from "pinia";
import { shallowRef } from "vue";
import { isDial } from "@/api/kinds";
import type { Drive, Edit, SceneObject } from "@/api/types";
import { withParts } from "@/picture/boxes";
import { useDrives } from "@/stores/drives";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export const useDeleting = defineStore("deleting", () => {
  const scene = useScene();
  const selection = useSelection();
  const drives = useDrives();
  const vocabulary = useVocabulary();
  const messages = useMessages();
  /** What waits for an answer, and who reads it. */
  const asked = shallowRef<{ readonly thing: SceneObject; readonly readers: readonly Drive[] } | null>(null);

  /** Delete something at once, or ask first if others read it. */
  async function ask(thing: SceneObject): Promise<void> {
    const readers = drives.readersOf(thing.id);
    if (readers.length) asked.value = { thing, readers };
    else await remove(thing, []);
  }

  /** Edits that turn what reads it into keys of its own. */
  function freezing(readers: readonly Drive[]): Edit[] {
    const frozen = new Map<string, Edit>();
    for (const { driven, rule, setting, kind } of readers) {
      if (kind === "gait" && !setting) {
        frozen.set(`${driven.object} gait`, {
          edit: "freeze-walk",
          id: driven.object,
          first: 0,
          last: (scene.head?.length ?? 1) - 1,
          tolerance: 0.05,
        });
        continue;
      }
      if (kind === "hold-on" && !setting) {
        const limb = driven.channel.split(".")[0];
        for (const part of ["x", "y", "reach"])
          frozen.set(`${driven.object} ${limb}.${part}`, {
            edit: "freeze-channel",
            object: driven.object,
            channel: `${limb}.${part}`,
            tolerance: part === "reach" ? 0.005 : 0.1,
          });
        continue;
      }
      const channel = setting ? `${rule}:${setting}` : driven.channel;
      const words =
        scene.byId.get(driven.object) &&
        vocabulary.channelsOf(scene.byId.get(driven.object)!).find((one) => one.name === driven.channel);
      const tolerance = words?.unit === "colour" ? 0.01 : (words?.step ?? 0.01) / 2;
      frozen.set(`${driven.object} ${channel}`, { edit: "freeze-channel", object: driven.object, channel, tolerance });
    }
    return [...frozen.values()];
  }

  /** Take it out, with its descendants, after some other edits; the message offers to bring it back. */
  async function remove(thing: SceneObject, first: Edit[]): Promise<void> {
    asked.value = null;
    const parts = withParts(thing.id, scene.parts).length - 1;
    const last: Edit = isDial(thing)
      ? { edit: "delete-dial", id: thing.dial.id }
      : { edit: "delete-object", id: thing.id };
    if (!(await scene.edit([...first, last]))) return;
    if (selection.objectId === thing.id) selection.pick(null);
    messages.withUndo(
      `${thing.name} is deleted${parts ? `, with ${parts} on it` : ""}.`,
      "Undo",
      () => void scene.undo(),
    );
  }

  const letBe = (): void => void (asked.value = null);
  return {
    asked,
    ask,
    letBe,
    leaveThem: () => asked.value && remove(asked.value.thing, []),
    freezeThem: () => asked.value && remove(asked.value.thing, freezing(asked.value.readers)),
  };
});
