/** Making insets of what there is, adding them, and opening them again. */
import { computed } from "vue";
import { newId } from "@/api/ids";
import { isDial, isGroup } from "@/api/kinds";
import type { Edit } from "@/api/types";
import { useInside } from "@/stores/inside";
import { usePlayback } from "@/stores/playback";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useInsets() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const messages = useMessages();
  const inside = useInside();

  /** Inner scenes that an inset here can show: any but those that this scene is inside of, which would be a ring. */
  const offered = computed(() => {
    const around = new Set([scene.id, ...inside.trail.map((crumb) => crumb.to)].map((at) => at?.split("~")[1]));
    return (scene.head?.inner ?? []).filter((one) => !around.has(one.id));
  });

  /** Put an object, with its descendants, into a scene of its own; a group becomes the inset itself. */
  async function makeOf(id: string): Promise<void> {
    const thing = scene.byId.get(id);
    if (!thing || isDial(thing)) return;
    const made = newId();
    const { name } = thing;
    const edit: Edit = { edit: "make-inset", id: made, scene: newId(), name, parts: [id], frame: playback.frame };
    if (!(await scene.edit([edit]))) return;
    selection.pick(isGroup(thing) ? id : made);
    messages.info(`${name} is an inset now: double click it in the picture to go inside.`);
  }

  /** Put an inset into the middle of the picture: of an inner scene there is, or of a new empty one. */
  async function add(name: string, inner: string | null, length: number, fps: number): Promise<string | null> {
    if (!scene.head) return null;
    const [width, height] = scene.head.size;
    const id = newId();
    const place = { x: width / 2, y: height / 2 };
    const head = { edit: "add-inset", id, name, scene: inner ?? newId(), ...place } as const;
    if (!(await scene.edit([{ ...head, fps: inner ? null : fps, length: inner ? null : length }]))) return null;
    selection.pick(id);
    return id;
  }

  const openUp = (id: string) => scene.edit([{ edit: "open-inset", id }]);
  /** Make its scene unique, where it shares one. */
  const ownInside = (id: string) => scene.edit([{ edit: "own-inset", id, scene: newId() }]);

  return { offered, makeOf, add, openUp, ownInside };
}
