/** What is about to be exported: formats and options, as they were left, and a look at it that follows every change. */
import { useDebounceFn } from "@vueuse/core";
import { computed, reactive, ref, shallowRef, watch } from "vue";
import { api, ServiceError } from "@/api/client";
import type { ExportLook, ExportOptions } from "@/api/types";
import { isAudible } from "@/geometry/hearing";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

/** How long options must rest before they are looked at, ms. */
const QUIET = 250;
/** As they were left the last time, for as long as the page is open. */
const options = reactive<ExportOptions>({
  format: "mp4",
  scale: 1,
  first: 0,
  last: null,
  fps: null,
  background: "usual",
  under: "#FFFFFF",
  loops: 0,
  blur: "own",
  quality: "good",
  dither: "diffused",
  columns: 4,
  every: 1,
  tolerance: 0.1,
  sound: true,
});
/** The formats, the one that is looked at first. */
const chosen = ref<readonly string[]>(["mp4"]);

export function useExportOptions(shown: () => boolean) {
  const scene = useScene();
  const playback = usePlayback();
  const vocabulary = useVocabulary();

  /** What is heard alone can go out only where something is. */
  const heard = computed(() => (scene.head?.sounds ?? []).some(isAudible));
  const formats = computed(() =>
    (vocabulary.words?.formats ?? []).filter((one) => one.family !== "sound" || heard.value),
  );
  watch(formats, (all) => {
    const left = chosen.value.filter((name) => all.some((one) => one.name === name));
    if (all.length && left.length < chosen.value.length) chosen.value = left.length ? left : ["mp4"];
  });
  const looked = computed(() => formats.value.find((one) => one.name === chosen.value[0]));
  const takes = computed(
    () => new Set(formats.value.filter((one) => chosen.value.includes(one.name)).flatMap((one) => one.takes)),
  );
  /** Whether all that is chosen is one picture each. */
  const single = computed(() => chosen.value.every((name) => formats.value.find((one) => one.name === name)?.single));

  const look = shallowRef<ExportLook | null>(null);
  /** About how many bytes there will be, which takes longer to tell than how it looks. */
  const size = ref<number | null>(null);
  const problem = ref<string | null>(null);
  const looking = ref(false);
  let asked = 0;
  const ask = useDebounceFn(async () => {
    const number = ++asked;
    if (!shown() || !scene.id || !chosen.value[0]) return;
    try {
      const frame = single.value ? (options.first ?? 0) : playback.frame;
      const wanted = { ...options, format: chosen.value[0] };
      const found = await api.lookAtExport(scene.id, wanted, frame);
      if (number !== asked) return;
      [look.value, problem.value, size.value, looking.value] = [found, null, null, false];
      const told = await api.exportSize(scene.id, wanted, frame);
      if (number === asked) size.value = told.size;
    } catch (error) {
      if (!(error instanceof ServiceError)) throw error;
      if (number === asked) [look.value, problem.value] = [null, error.message];
    } finally {
      if (number === asked) looking.value = false;
    }
  }, QUIET);
  watch(
    () => [shown(), scene.id, scene.revision, playback.frame, chosen.value, { ...options }] as const,
    () => {
      looking.value = shown();
      if (shown()) void ask();
    },
    { immediate: true },
  );

  function choose(name: string, also = false): void {
    if (!also) chosen.value = [name];
    else if (!chosen.value.includes(name)) chosen.value = [...chosen.value, name];
    else if (chosen.value.length > 1) chosen.value = chosen.value.filter((one) => one !== name);
  }

  return { options, chosen, formats, looked, takes, single, look, size, problem, looking, choose };
}
