/**
 * Everything that can be found by its name: objects, dials, cues, values and settings of the picked object, and what
 * the keyboard does.
 */
import { computed } from "vue";
import { rulesWithSettings, takesRules } from "@/api/channels";
import { kindOf } from "@/api/kinds";
import type { Shortcut } from "@/composables/useShortcuts";
import { keyWords } from "@/geometry/keyWords";
import type { Findable } from "@/geometry/finding";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export interface Found extends Findable {
  readonly id: string;
  /** The keys that do the same, one by one. */
  readonly keys: readonly string[];
  readonly run: () => void;
}

/** What can be set for the whole scene and the page, where it is set, and by which keys. */
const SETTINGS = [
  ["Name of the scene", "settings"],
  ["Frames per second", "settings"],
  ["Length of the scene", "settings"],
  ["Size of the picture", "settings"],
  ["Background colour", "settings"],
  ["Motion blur of the scene", "settings"],
  ["Export format and size", "export"],
] as const;

export function useFindables(shortcuts: readonly Shortcut[], open: (what: "settings" | "export") => void) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  const objects = computed(() =>
    scene.objects.map((one): Found => {
      return { id: `object ${one.id}`, name: one.name, kind: kindOf(one), keys: [], run: () => selection.pick(one.id) };
    }),
  );
  const dials = computed(() =>
    scene.dials.map((one): Found => ({
      id: `dial ${one.id}`,
      name: one.name,
      kind: "dial",
      keys: [],
      run: () => selection.pick(one.id),
    })),
  );
  const cues = computed(() =>
    (scene.head?.cues ?? []).map((cue): Found => {
      const run = (): void => {
        playback.setRange(cue.first, cue.last);
        playback.goTo(cue.first);
      };
      return { id: `cue ${cue.id}`, name: cue.name, kind: "cue", keys: [], run };
    }),
  );
  const values = computed(() => {
    const thing = selection.thing;
    if (!thing) return [];
    const rows = selection.rows.map((row): Found => {
      const run = (): void => selection.pickRow(row.name);
      return { id: `value ${row.name}`, name: `${row.name} of ${thing.name}`, kind: "value", keys: [], run };
    });
    const settings = rulesWithSettings(thing, vocabulary.words?.rules ?? []).map(({ rule, words, setting }): Found => {
      const acted = vocabulary
        .rowsOf(thing)
        .find((row) =>
          row.channels.some((channel) =>
            rule.channels === "keyed" ? takesRules(channel) : rule.channels.includes(channel.name),
          ),
        );
      const name = `${words.label} ${setting.label} of ${thing.name}`;
      const run = (): void => void (acted && selection.pickRow(acted.name));
      return { id: `setting ${rule.id} ${setting.name}`, name, kind: "setting", keys: [], run };
    });
    return [...rows, ...settings];
  });
  const commands = computed(() =>
    shortcuts.flatMap((one) =>
      one.keys.map((key): Found => ({
        id: `command ${one.says} ${key}`,
        // Keys for both directions are listed separately.
        name: one.keys.length > 1 ? `${one.says}: ${keyWords(key).join(" ")}` : one.says,
        kind: one.group.toLowerCase(),
        keys: keyWords(key),
        run: () => one.run(key),
      })),
    ),
  );
  const settings = SETTINGS.map(([name, where]): Found => ({
    id: `scene ${name}`,
    name,
    kind: "setting",
    keys: where === "export" ? keyWords("Ctrl+e") : [],
    run: () => open(where),
  }));
  return computed(() => [
    ...objects.value,
    ...dials.value,
    ...cues.value,
    ...values.value,
    ...settings,
    ...commands.value,
  ]);
}
