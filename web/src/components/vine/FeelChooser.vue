<script setup lang="ts">
/**
 * Choose how a stretch between two keys is passed, from small pictures that move. Resting on one shows it in the
 * picture.
 */
import { computed, ref } from "vue";
import { keysOf as keysIn } from "@/api/channels";
import { api } from "@/api/client";
import type { Ease, Edit, SceneObject } from "@/api/types";
import PopUp from "@/components/common/PopUp.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import FeelDrawer from "@/components/vine/FeelDrawer.vue";
import FeelPicture from "@/components/vine/FeelPicture.vue";
import { usePlayback } from "@/stores/playback";
import { usePicks } from "@/stores/picks";
import { useRehearsals } from "@/stores/rehearsals";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { namesOf, type Row, useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; row: Row }>();
const scene = useScene();
const selection = useSelection();
const picks = usePicks();
const playback = usePlayback();
const vocabulary = useVocabulary();
const messages = useMessages();
const rehearsals = useRehearsals();
const everywhere = ref(false);
/** Which channels take the feel: those of the row together, the one picked, or all that move at the same keys. */
const scope = ref<"row" | "channel" | "object">("row");
const drawing = ref(false);

interface Choice {
  readonly name: string;
  readonly label: string;
  readonly about: string;
  readonly curve: readonly number[];
  readonly ease: Ease;
  readonly own: boolean;
}
const HOLD: Choice = {
  name: "hold",
  label: "Hold",
  about: "Stays on its value until the next key.",
  curve: [0, 0, 1],
  ease: "hold",
  own: false,
};
const feels = computed((): Choice[] => [
  HOLD,
  ...(vocabulary.words?.feels ?? []).map((feel) => ({
    ...feel,
    ease: (feel.name === "even" ? "linear" : feel.name) as Ease,
    own: false,
  })),
  ...vocabulary.ownFeels.map((feel) => ({
    name: `own ${feel.name}`,
    label: feel.name,
    about: "Drawn by you, for all scenes.",
    curve: feel.curve,
    ease: feel.ease,
    own: true,
  })),
]);

const channels = computed(() => {
  if (scope.value === "object") return Object.keys(props.thing.channels ?? {});
  const all = namesOf(props.row);
  return scope.value === "channel" && selection.channel ? all.filter((name) => name === selection.channel!.name) : all;
});
const keysOf = (name: string) => keysIn(props.thing, name);
/** Frames of keys that a stretch leaves from: all but the last of each channel. */
const leaving = computed(() =>
  [
    ...new Set(
      channels.value.flatMap((name) =>
        keysOf(name)
          .slice(0, -1)
          .map((key) => key.frame),
      ),
    ),
  ].sort((a, b) => a - b),
);
/** The stretches meant: those of the picked leaves, else the one under the playhead. */
const meant = computed<readonly number[]>(() => {
  if (everywhere.value) return leaving.value;
  const picked = leaving.value.filter((frame) =>
    picks.keys.some((one) => one.object === props.thing.id && one.frames.includes(frame)),
  );
  if (picked.length) return picked;
  return leaving.value
    .filter((frame) => frame <= playback.frame)
    .slice(-1)
    .concat(leaving.value.slice(0, 1))
    .slice(0, 1);
});
const says = computed(() => {
  if (everywhere.value) return "All stretches";
  if (meant.value.length !== 1) return `${meant.value.length} stretches`;
  const all = [...new Set(channels.value.flatMap((name) => keysOf(name).map((key) => key.frame)))].sort(
    (a, b) => a - b,
  );
  const from = meant.value[0]!;
  return `From frame ${from} to ${all.find((frame) => frame > from) ?? from}`;
});
const current = computed(() => {
  const found = channels.value.flatMap((name) =>
    keysOf(name)
      .slice(0, -1)
      .filter((key) => meant.value.includes(key.frame))
      .map((key) => key.ease),
  );
  const names = new Set(found.map(nameOf));
  return names.size === 1 ? [...names][0] : null;
});

function nameOf(ease: Ease): string {
  if (ease === "linear") return "even";
  if (typeof ease === "string") return ease;
  const own = vocabulary.ownFeelOf(ease);
  return own ? `own ${own.name}` : "another";
}

function editsFor(ease: Ease): Edit[] {
  return [props.thing, ...selection.others].flatMap((thing) => editsOf(thing, ease));
}

/**
 * The edits for one object. Of those picked along, picked leaves are meant where there are any, else every stretch of
 * the same channels: their keys may lie elsewhere.
 */
function editsOf(thing: SceneObject, ease: Ease): Edit[] {
  const own = thing.id === props.thing.id;
  const picked = picks.keys.filter((one) => one.object === thing.id);
  const isMeant = (channel: string, frame: number): boolean => {
    if (own) return meant.value.includes(frame);
    return (
      everywhere.value || !picked.length || picked.some((one) => one.channel === channel && one.frames.includes(frame))
    );
  };
  const names = own || scope.value !== "object" ? channels.value : Object.keys(thing.channels ?? {});
  return names.flatMap((channel): Edit[] => {
    const frames = keysIn(thing, channel)
      .slice(0, -1)
      .map((key) => key.frame)
      .filter((frame) => isMeant(channel, frame));
    return frames.length ? [{ edit: "set-ease", object: thing.id, channel, frames, ease }] : [];
  });
}

async function choose(ease: Ease): Promise<void> {
  clearTimeout(waiting);
  await scene.edit(editsFor(ease));
}

/** While the pointer rests on a feel the picture shows it; when it leaves, what there is now: before and after. */
let waiting: ReturnType<typeof setTimeout> | undefined;
function rest(ease: Ease): void {
  clearTimeout(waiting);
  const edits = editsFor(ease);
  if (edits.length) waiting = setTimeout(() => void scene.lookAt(edits), 120);
}

function leave(): void {
  clearTimeout(waiting);
  if (scene.look && !scene.look.said) scene.letGo();
}

/** Compare the current move with another feel. */
function compare(feel: Choice): void {
  leave();
  const now = feels.value.find((one) => one.name === current.value)?.label ?? "what it is now";
  const edits = editsFor(feel.ease);
  if (edits.length) void rehearsals.compare({ kind: "edits", edits, now, name: feel.label });
}

async function forget(name: string): Promise<void> {
  await api.forgetFeel(name);
  await vocabulary.readFeels();
  messages.info(`${name} is taken off the list. What moves by it still does.`);
}
</script>

<template>
  <PopUp :width="424" placement="top-start" @hide="leave">
    <template #reference>
      <button
        class="chip small"
        data-open="feel"
        :disabled="!leaving.length"
        :title="leaving.length ? 'Choose the ease between the keys' : 'A feel needs two keys. Set another key first.'"
      >
        Feel
      </button>
    </template>
    <div class="panel" data-menu="feel">
      <header>
        <h3>{{ says }}</h3>
        <label><input v-model="everywhere" type="checkbox" /> all stretches of {{ row.name.toLowerCase() }}</label>
      </header>
      <div class="scope" role="radiogroup" aria-label="Which channels">
        <label title="x and y, wide and high: what moves as one gets one feel"
          ><input v-model="scope" type="radio" value="row" /> {{ row.name.toLowerCase() }} together</label
        >
        <label v-if="row.channels.length > 1" title="The channel the vine shows, on its own"
          ><input v-model="scope" type="radio" value="channel" /> only {{ selection.channel?.label }}</label
        >
        <label title="All channels with the same keys"
          ><input v-model="scope" type="radio" value="object" /> all of {{ thing.name }}</label
        >
      </div>
      <div class="choices" role="radiogroup" aria-label="Feel">
        <div v-for="feel in feels" :key="feel.name" class="one">
          <button
            role="radio"
            :aria-checked="current === feel.name"
            :class="{ on: current === feel.name }"
            :title="`${feel.about} Rest here to see it.`"
            @click="choose(feel.ease)"
            @pointerenter="rest(feel.ease)"
            @pointerleave="leave"
          >
            <FeelPicture :curve="feel.curve" :stepped="feel.name === 'hold'" />
            <span class="label">{{ feel.label }}</span>
          </button>
          <button
            v-if="current !== feel.name"
            class="beside"
            :aria-label="`${feel.label} beside what it is now`"
            title="See both moves side by side"
            @click="compare(feel)"
          >
            <VineIcon name="rehearsal" />
          </button>
          <button
            v-if="feel.own"
            class="gone"
            :aria-label="`Take ${feel.label} off the list`"
            title="Remove it from the list; keys that use it keep their ease"
            @click="forget(feel.label)"
          >
            ×
          </button>
        </div>
      </div>
      <footer>
        <button class="chip" title="Draw a feel with several points" @click="drawing = true">Draw your own…</button>
        <button
          class="chip"
          title="The same distance on every frame again"
          :disabled="current === 'even'"
          @click="choose('linear')"
        >
          Back to even
        </button>
      </footer>
    </div>
  </PopUp>
  <FeelDrawer v-model="drawing" @use="choose" @look="scene.lookAt(editsFor($event))" @leave="leave" />
</template>

<style scoped>
header,
footer {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
footer {
  margin: 8px 0 0;
}
h3 {
  font-size: 13px;
}
label {
  font-size: 12px;
  display: flex;
  gap: 5px;
  align-items: center;
  cursor: pointer;
}
.scope {
  display: flex;
  gap: 14px;
  margin-bottom: 8px;
}
.choices {
  grid-template-columns: repeat(5, 1fr);
  max-height: 262px;
  overflow-y: auto;
}
.one {
  position: relative;
  display: grid;
}
.label {
  max-width: 72px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.choices .gone {
  position: absolute;
  right: 1px;
  top: 1px;
  width: 17px;
  height: 17px;
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: none;
  color: var(--ink-2);
  opacity: 0;
}
.choices .beside {
  position: absolute;
  left: 1px;
  top: 1px;
  width: 20px;
  height: 20px;
  padding: 1px;
  border: 0;
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--travel);
  opacity: 0;
}
.one:hover :is(.gone, .beside),
:is(.gone, .beside):focus-visible {
  opacity: 1;
}
</style>
