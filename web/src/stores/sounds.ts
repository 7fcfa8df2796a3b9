/** The sounds of the scene, what they look like and where their beats are; its markers and its beat. */
import { defineStore } from "pinia";
import { computed, ref, shallowReactive, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import { newId } from "@/api/ids";
import type { Beat, BeatWords, DialThing, Edit, KeptSound, Marker, ReadySound } from "@/api/types";
import { plainName } from "@/geometry/fileNames";
import { overAt } from "@/geometry/hearing";
import { usePlayback } from "@/stores/playback";
import { usePanels } from "@/stores/panels";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";

/** What motion can be timed by, in the words of edits. */
export interface TimedBy {
  readonly by: string;
  readonly label: string;
  readonly frames: readonly number[];
}

export const useSounds = defineStore("sounds", () => {
  const scene = useScene();
  const playback = usePlayback();
  const panels = usePanels();
  const messages = useMessages();

  const open = panels.besideOf("sounds");
  const pickedId = ref<string | null>(null);
  /** Whether motion is about to be put on beats, and on which at first. */
  const laying = ref<string | null>(null);
  const list = computed(() => scene.head?.sounds ?? []);
  const picked = computed(() => list.value.find((one) => one.id === pickedId.value) ?? list.value[0] ?? null);
  const markers = computed<readonly Marker[]>(() => scene.head?.markers ?? []);
  const beat = computed(() => scene.head?.beat ?? null);
  const ready = shallowRef<readonly ReadySound[]>([]);

  async function toggle(): Promise<void> {
    open.value = !open.value;
    if (!open.value) return;
    if (!ready.value.length) ready.value = (await messages.attempt(() => api.readySounds())) ?? [];
  }

  /** The lowest and the highest sample of every hundredth of a second, by file. */
  const peaks = shallowReactive(new Map<string, Int8Array>());
  watch(
    () => [...new Set(list.value.map((one) => one.file))].join(" "),
    async (files) => {
      for (const file of files.split(" ").filter((one) => one && !peaks.has(one))) {
        const found = await messages.attempt(() => api.peaks(file));
        if (found) peaks.set(file, new Int8Array(found.buffer, found.byteOffset, found.length));
      }
    },
    { immediate: true },
  );

  /** Where something begins in a sound, as frames, by its id. */
  const beats = shallowReactive(new Map<string, BeatWords>());
  watch(
    () =>
      JSON.stringify([scene.id, playback.fps, playback.last, list.value.map((s) => [s.id, s.first, s.begin, s.end])]),
    async () => {
      const id = scene.id;
      for (const gone of [...beats.keys()]) if (!list.value.some((one) => one.id === gone)) beats.delete(gone);
      for (const one of list.value) {
        const found = id ? await api.beats(id, one.id).catch(() => null) : null;
        if (found && id === scene.id) beats.set(one.id, found);
      }
    },
    { immediate: true },
  );

  /** The frames of the even beat, to the end of the scene. */
  const beatFrames = computed(() => {
    const one = beat.value;
    if (!one) return [];
    const apart = (playback.fps * 60) / one.minute;
    const first = Math.ceil(-one.first / apart - 1e-9);
    const count = Math.max(0, Math.floor((playback.last - one.first) / apart + 1e-9) - first + 1);
    return Array.from({ length: count }, (_, n) => ({
      frame: one.first + (first + n) * apart,
      bar: (((first + n) % one.bar) + one.bar) % one.bar === 0,
    }));
  });

  /** All that motion can be timed by now. */
  const timers = computed<readonly TimedBy[]>(() => {
    const found: TimedBy[] = list.value.map((one) => ({
      by: `sound:${one.id}`,
      label: one.name,
      frames: beats.get(one.id)?.frames ?? [],
    }));
    if (markers.value.length)
      found.unshift({ by: "markers", label: "Markers", frames: markers.value.map((one) => one.frame) });
    if (beat.value)
      found.unshift({
        by: "beat",
        label: `Beat, ${beat.value.minute} a minute`,
        frames: beatFrames.value.map((one) => one.frame),
      });
    return found;
  });
  /** Positions that keys snap to, in addition to other keys. */
  const snaps = computed(() => [
    ...markers.value.map((one) => ({ frame: one.frame, to: one.name || "a marker" })),
    ...beatFrames.value.map((one) => ({ frame: Math.round(one.frame), to: "the beat" })),
    ...(picked.value ? (beats.get(picked.value.id)?.frames ?? []) : []).map((frame) => ({
      frame: Math.round(frame),
      to: `a beat of ${picked.value!.name}`,
    })),
  ]);

  /** Put a file into the scene: music from its beginning on, a short noise where the playhead is. */
  async function add(
    one: { file: string; name: string; seconds: number },
    minute: number | null = null,
  ): Promise<void> {
    const id = newId();
    const short = one.seconds * playback.fps < playback.last / 2;
    const sound: KeptSound = {
      id,
      name: plainName(one.name) || "Sound",
      file: one.file,
      seconds: one.seconds,
      first: short ? playback.frame : 0,
      begin: 0,
      on: true,
      gain: 1,
    };
    const edits: Edit[] = [{ edit: "add-sound", sound }];
    if (minute !== null && !beat.value) edits.push({ edit: "set-beat", beat: { minute, first: sound.first, bar: 4 } });
    if (!(await scene.edit(edits))) return;
    pickedId.value = id;
    open.value = true;
  }

  const set = (one: KeptSound, change: Partial<Omit<Extract<Edit, { edit: "set-sound" }>, "edit" | "id">>): Edit => ({
    edit: "set-sound",
    id: one.id,
    keep: false,
    ...change,
  });
  const change = (one: KeptSound, changes: Parameters<typeof set>[1]) => scene.edit([set(one, changes)]);
  const remove = (one: KeptSound) => scene.edit([{ edit: "delete-sound", id: one.id }]);

  const setMarkers = (now: readonly Marker[]) => scene.edit([{ edit: "set-markers", markers: [...now] }]);
  /**
   * Lay a marker where the playhead is, or take the one there away. Taps that come while the last is still being kept
   * are kept together after it.
   */
  const tapped = new Set<number>();
  let keeping = false;
  async function tap(): Promise<void> {
    const there = markers.value.some((one) => one.frame === playback.frame);
    if (there && !playback.playing)
      return void (await setMarkers(markers.value.filter((one) => one.frame !== playback.frame)));
    tapped.add(playback.frame);
    if (keeping) return;
    keeping = true;
    while (tapped.size) {
      const fresh = [...tapped].filter((frame) => !markers.value.some((one) => one.frame === frame));
      tapped.clear();
      if (fresh.length) await setMarkers([...markers.value, ...fresh.map((frame) => ({ frame, name: "" }))]);
    }
    keeping = false;
  }
  const setBeat = (now: Beat | null) => scene.edit([{ edit: "set-beat", beat: now }]);
  /** The beat of a sound: its pace, from its first stroke on. */
  function takeBeat(one: KeptSound): void {
    const found = beats.get(one.id);
    if (!found?.minute || !found.frames.length) {
      messages.warn(`${one.name} has no clear beat. Type the beats per minute, or tap markers.`);
      return;
    }
    const minute = Number(found.minute.toFixed(1));
    void setBeat({ minute, first: Math.round(found.frames[0]!), bar: beat.value?.bar ?? 4 });
  }

  /** Whether a dial follows a sound. */
  const isHeard = (thing: DialThing): boolean => list.value.some((one) => one.id === thing.dial.follows?.sound);
  /** The first frame at which a sound is over. */
  const over = (one: KeptSound): number => Math.ceil(overAt(one, playback.fps));
  /** Put motion on beats: on some that are named, or on the first there are. */
  const lay = (by?: string): void => void (laying.value = by ?? timers.value[0]?.by ?? "markers");

  return {
    open,
    toggle,
    pickedId,
    picked,
    laying,
    list,
    markers,
    beat,
    ready,
    peaks,
    beats,
    beatFrames,
    timers,
    snaps,
    add,
    set,
    change,
    remove,
    setMarkers,
    tap,
    setBeat,
    takeBeat,
    isHeard,
    over,
    lay,
  };
});
