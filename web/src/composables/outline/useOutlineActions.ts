/** What can be done to the points of the picked object's outline. */
import { computed } from "vue";
import type { Edit } from "@/api/types";
import { hasKeys } from "@/api/channels";
import type { OutlinePointsShown } from "@/composables/outline/useOutlinePoints";
import { whose } from "@/geometry/frames";
import { inverse, type Point, rounded, turned } from "@/geometry/matrix";
import { useOutline } from "@/stores/outline";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** What coordinates of points are rounded to, px. */
export const PIXEL = 0.01;

export function useOutlineActions({ thing, found, kept, space }: OutlinePointsShown) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const outline = useOutline();

  const keyed = computed(() => thing.value !== null && hasKeys(thing.value, "outline"));
  const onlyLooks = computed(() => keyed.value && !selection.keyAsIMove);
  /** Which outline a pose is given to: the one of the key at the playhead, or that of an outline without keys. */
  const pose = (): { object: string; frame: number | null } => ({
    object: thing.value?.id ?? "",
    frame: keyed.value || selection.keyAsIMove ? playback.frame : null,
  });
  /**
   * The same for what changes which points there are: that is no pose, so without keys it is done to the shape itself.
   */
  const form = (): { object: string; frame: number | null } => (keyed.value ? pose() : { ...pose(), frame: null });

  async function make(edits: readonly Edit[]): Promise<boolean> {
    if (!thing.value || !edits.length) return false;
    selection.pickRow("Outline");
    if (onlyLooks.value) {
      await scene.lookAt([...edits], `${whose(thing.value.name)} outline at frame ${playback.frame}`);
      return true;
    }
    return Boolean(await scene.edit([...edits]));
  }
  /** Make an edit after which other points have the numbers of the picked ones. */
  async function renumber(edit: Edit): Promise<void> {
    if (await make([edit])) outline.clear();
  }

  const movedBy = (by: Point): Edit => ({
    edit: "move-points",
    ...pose(),
    points: [...outline.picked],
    dx: rounded(by.x, PIXEL),
    dy: rounded(by.y, PIXEL),
  });
  const meets = (pair: [number, number] | null) =>
    scene.edit([{ edit: "meet-points", object: pose().object, frame: found.value?.meetings?.frame ?? 0, meets: pair }]);

  const list = computed(() => [...outline.picked].filter((number) => number < kept.value.length));
  const ends = computed(() => kept.value.filter((one) => one.end && outline.picked.has(one.number)));
  const actions = {
    corner: () => make([{ edit: "set-points", ...pose(), points: list.value, kind: "corner" }]),
    smooth: () => make([{ edit: "set-points", ...pose(), points: list.value, kind: "smooth" }]),
    remove: () => renumber({ edit: "remove-points", ...form(), points: list.value }),
    cut: () => renumber({ edit: "cut-outline", ...form(), point: list.value[0] ?? 0 }),
    join: async () => {
      const [one, other] = ends.value;
      if (one && other) await renumber({ edit: "join-ends", ...form(), one: one.number, other: other.number });
    },
    reverse: () => make([{ edit: "reverse-outline", ...form() }]),
    first: () => renumber({ edit: "first-point", ...form(), point: list.value[0] ?? 0 }),
    nudge: (by: Point) => {
      const home = inverse(space.value);
      return home ? make([movedBy(turned(home, by))]) : Promise.resolve(false);
    },
    pickAll: () => outline.pick(kept.value.map((one) => one.number)),
    refit: (tolerance: number) => scene.edit([{ edit: "refit-outline", object: pose().object, tolerance }]),
    meet: (mine: number, theirs: number) => meets([mine, theirs]),
    forgetMeeting: () => meets(null),
  };

  return { list, ends, onlyLooks, actions, make, movedBy, pose, form };
}

export type OutlineActions = ReturnType<typeof useOutlineActions>;
