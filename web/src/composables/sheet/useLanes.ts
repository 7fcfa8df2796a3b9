/** What the time sheet shows: a lane per object, and for opened ones a lane per row that has keys. */
import { computed, ref, type Ref } from "vue";
import { keysOf } from "@/api/channels";
import { isDial } from "@/api/kinds";
import { type Lane, useLaneMaking } from "@/composables/sheet/useLaneMaking";
import { useTroupeTree } from "@/composables/useTroupeTree";
import { toggled } from "@/geometry/sets";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export function useLanes(): {
  lanes: Ref<readonly Lane[]>;
  opened: Ref<ReadonlySet<string>>;
  open: (id: string) => void;
} {
  const scene = useScene();
  const selection = useSelection();
  const vocabulary = useVocabulary();
  const { entries } = useTroupeTree();
  const { objectLane, partLane, rowLane } = useLaneMaking();
  const opened = ref<ReadonlySet<string>>(new Set());

  const open = (id: string): void => void (opened.value = toggled(opened.value, id));

  const lanes = computed(() => {
    const list: Lane[] = [];
    // What is inside an inset has lines in the troupe, and lanes only where it is worked on.
    const own = entries.value.filter((entry) => !entry.inside);
    for (const { thing, depth } of [...own, ...scene.dials.map((thing) => ({ thing, depth: 0 }))]) {
      const baked = scene.calmMotion?.objects.get(thing.id);
      if (!baked) continue;
      const keyedRows = [...vocabulary.rowsOf(thing), ...vocabulary.settingRowsOf(thing)].filter((row) =>
        row.channels.some((channel) => keysOf(thing, channel.name).length > 0),
      );
      if (selection.onlyMoving && !keyedRows.length && !thing.rules.length && selection.objectId !== thing.id) continue;
      const from = [thing, depth, baked, scene.calmMotion?.length];
      list.push(kept(thing.id, from, () => objectLane(thing, depth, baked, keyedRows)));
      // The lane of a dial is that of its one value.
      if (isDial(thing)) continue;
      if (opened.value.has(thing.id) || selection.objectId === thing.id)
        for (const [part, rows] of Map.groupBy(keyedRows, (row) => row.part ?? null)) {
          // One row alone needs no fold.
          const folds = part !== null && rows.length > 1;
          if (folds) list.push(kept(`${thing.id} part ${part}`, from, () => partLane(thing, depth, baked, part, rows)));
          if (!folds || selection.isLimbOpen(thing.id, part))
            list.push(
              ...rows.map((row) => kept(`${thing.id} ${row.name}`, from, () => rowLane(thing, depth, baked, row))),
            );
        }
    }
    return list;
  });

  /** Lanes as last made, so that what has not changed is the same lane and is not drawn again. */
  const made = new Map<string, { from: readonly unknown[]; lane: Lane }>();

  function kept(key: string, from: readonly unknown[], make: () => Lane): Lane {
    const was = made.get(key);
    if (was && was.from.every((part, i) => part === from[i])) return was.lane;
    const lane = make();
    made.set(key, { from, lane });
    return lane;
  }

  return { lanes, opened, open };
}
