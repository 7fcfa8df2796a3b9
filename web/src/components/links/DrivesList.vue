<script setup lang="ts">
/** Who drives something and whom it drives, as lines that lead there. */
import { computed } from "vue";
import type { Drive, Place } from "@/api/types";
import { useNames } from "@/composables/useNames";
import { useDrives } from "@/stores/drives";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ id: string }>();
const drives = useDrives();
const names = useNames();
const scene = useScene();
const selection = useSelection();
const vocabulary = useVocabulary();

interface Line {
  readonly text: string;
  readonly place: Place;
}
const lines = (some: readonly Drive[], words: (one: Drive) => Line): Line[] => [
  ...new Map(some.map((one) => words(one)).map((line) => [line.text, line])).values(),
];
const drivers = computed(() =>
  lines(
    drives.all.filter((one) => one.driven.object === props.id),
    (one) => ({ text: names.driverWords(one), place: one.driver }),
  ),
);
const driven = computed(() =>
  lines(
    drives.all.filter((one) => one.driver.object === props.id),
    (one) => ({ text: names.drivenWords(one), place: one.driven }),
  ),
);

function go({ object, channel }: Place): void {
  selection.pick(object);
  const words =
    scene.byId.get(object) && vocabulary.channelsOf(scene.byId.get(object)!).find((one) => one.name === channel);
  if (words) selection.pickRow(words.row, words.name);
}
</script>

<template>
  <div
    v-for="[title, list] in [
      ['Driven by', drivers],
      ['Drives', driven],
    ] as const"
    :key="title"
    class="drives"
  >
    <template v-if="list.length">
      <h3>
        {{ title }}<span v-if="list.length > 3">&nbsp;{{ list.length }}</span>
      </h3>
      <ul>
        <li v-for="one in list" :key="one.text">
          <button class="quiet" :title="`Go to ${one.text}`" @click="go(one.place)">{{ one.text }}</button>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.drives {
  margin: 0 14px;
}
h3 {
  font-size: 12px;
  color: var(--ink-2);
  margin: 10px 0 2px;
}
h3 span {
  font-weight: 400;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 150px;
  overflow-y: auto;
}
button {
  font-size: 12.5px;
  padding: 2px 6px;
  width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
