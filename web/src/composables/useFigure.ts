/** The picked figure: its gait, what it walks on, its parts, and freezing what it does. */
import { computed } from "vue";
import { gaitOf, pairsOf } from "@/api/figures";
import { isDial, isFigure } from "@/api/kinds";
import type { Channel, Edit, FigureObject, GaitWords } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

export function useFigure() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  /** The picked figure, or the one that the picked part is attached to. */
  const figure = computed<FigureObject | null>(() => {
    const picked = selection.thing;
    if (isFigure(picked)) return picked;
    const parent = picked && !isDial(picked) && picked.bone && picked.parent ? scene.byId.get(picked.parent) : null;
    return isFigure(parent) ? parent : null;
  });
  const gait = computed(() => (figure.value ? gaitOf(figure.value) : undefined));
  const gaits = computed<readonly GaitWords[]>(() => {
    const pairs = figure.value ? pairsOf(figure.value.figure) : 0;
    return (vocabulary.words?.gaits ?? []).filter(
      (one) => one.pairs.includes(pairs) || (pairs > 3 && !one.pairs.includes(1)),
    );
  });

  const word = (name: string): string => String(gait.value?.settings?.[name] ?? "");
  /** A stored number setting of the gait; null where it is omitted. */
  const number = (name: string): number | null => {
    const setting = gait.value?.settings?.[name] as Channel | string | undefined;
    return typeof setting === "object" && typeof setting.base === "number" ? setting.base : null;
  };

  const make = (edit: Edit): Promise<string | null | undefined> => scene.attempt([edit]);
  const choose = (preset: string) => make({ edit: "set-gait", id: figure.value!.id, preset, frame: playback.frame });
  const set = (setting: string, value: number | string | null) =>
    make({ edit: "set-setting", object: figure.value!.id, rule: gait.value!.id, setting, value });
  const travel = (frames: number, back: boolean) => make({ edit: "travel-cycle", id: figure.value!.id, frames, back });
  const freeze = (first: number, last: number) =>
    make({ edit: "freeze-walk", id: figure.value!.id, first, last, tolerance: 0.05 });
  const hang = (parts: Record<string, string | null>) =>
    make({ edit: "hang-on-bones", figure: figure.value!.id, parts, frame: playback.frame });

  return { figure, gait, gaits, word, number, choose, set, travel, freeze, hang };
}
