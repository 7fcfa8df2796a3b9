<script setup lang="ts">
/** Choose how a stretch between two keys is passed, from small pictures that move. */
import { ElPopover } from "element-plus";
import { computed, ref } from "vue";
import type { Ease, Edit, SceneObject } from "@/api/types";
import FeelPicture from "@/components/vine/FeelPicture.vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { type Row, useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; row: Row }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const everywhere = ref(false);

const HOLD = { name: "hold", label: "Hold", about: "Stays on its value until the next key.", curve: [0, 0, 1] };
const feels = computed(() => [HOLD, ...(vocabulary.words?.feels ?? [])]);

/** Frames of keys in this row that a stretch leaves from: all but the last of each channel. */
const leaving = computed(() => [...new Set(props.row.channels.flatMap((channel) => (props.thing.channels?.[channel.name]?.keys ?? []).slice(0, -1).map((key) => key.frame)))].sort((a, b) => a - b));
/** The stretches meant: those of the picked leaves, else the one under the playhead. */
const meant = computed<readonly number[]>(() => {
  if (everywhere.value) return leaving.value;
  const picked = leaving.value.filter((frame) => selection.leaves.has(frame));
  if (picked.length) return picked;
  return leaving.value.filter((frame) => frame <= playback.frame).slice(-1).concat(leaving.value.slice(0, 1)).slice(0, 1);
});
const says = computed(() => {
  if (everywhere.value) return "All stretches";
  if (meant.value.length !== 1) return `${meant.value.length} stretches`;
  const all = [...new Set(props.row.channels.flatMap((channel) => (props.thing.channels?.[channel.name]?.keys ?? []).map((key) => key.frame)))].sort((a, b) => a - b);
  const from = meant.value[0]!;
  return `From frame ${from} to ${all.find((frame) => frame > from) ?? from}`;
});
const current = computed(() => {
  const found = props.row.channels.flatMap((channel) => (props.thing.channels?.[channel.name]?.keys ?? []).filter((key) => meant.value.includes(key.frame)).map((key) => key.ease));
  const names = new Set(found.map((ease) => (ease === "linear" ? "even" : ease)));
  return names.size === 1 ? [...names][0] : null;
});

async function choose(name: string): Promise<void> {
  const ease = (name === "even" ? "linear" : name) as Ease;
  const edits = props.row.channels.flatMap((channel): Edit[] => {
    const keys = props.thing.channels?.[channel.name]?.keys ?? [];
    const frames = keys.slice(0, -1).map((key) => key.frame).filter((frame) => meant.value.includes(frame));
    return frames.length ? [{ edit: "set-ease", object: props.thing.id, channel: channel.name, frames, ease }] : [];
  });
  await scene.edit(edits);
}
</script>

<template>
  <ElPopover trigger="click" :width="404" placement="top-start">
    <template #reference>
      <button class="chip small" :disabled="!leaving.length" :title="leaving.length ? 'Choose how it gets from key to key' : 'A feel needs two keys: set another one first'">Feel</button>
    </template>
    <div class="panel">
      <header>
        <h3>{{ says }}</h3>
        <label><input v-model="everywhere" type="checkbox" /> all stretches of {{ row.name.toLowerCase() }}</label>
      </header>
      <div class="choices" role="radiogroup" aria-label="Feel">
        <button v-for="feel in feels" :key="feel.name" role="radio" :aria-checked="current === feel.name" :class="{ on: current === feel.name }" :title="feel.about" @click="choose(feel.name)">
          <FeelPicture :curve="feel.curve" :stepped="feel.name === 'hold'" />
          {{ feel.label }}
        </button>
      </div>
    </div>
  </ElPopover>
</template>

<style scoped>
header { display: flex; justify-content: space-between; align-items: center; margin-bottom: 8px; }
h3 { font-size: 13px; }
label { font-size: 12px; display: flex; gap: 5px; align-items: center; }
.choices { grid-template-columns: repeat(4, 1fr); }
</style>
