<script setup lang="ts">
/** The arrangement of the selected parade, apart from its values: figure, order, painting order and lists. */
import { computed, ref } from "vue";
import { type Arrange, arrangementOf, ORDERS, paradeOf } from "@/api/parades";
import type { Parade } from "@/api/types";
import { chosenIn } from "@/components/common/chosen";
import NumberField from "@/components/common/NumberField.vue";
import ArrangeChooser from "@/components/parades/ArrangeChooser.vue";
import CopyAlone from "@/components/parades/CopyAlone.vue";
import ListsDialog from "@/components/parades/ListsDialog.vue";
import { textOf } from "@/composables/useText";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { useParade } from "@/composables/useParade";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const scene = useScene();
const playback = usePlayback();
const vocabulary = useVocabulary();
const one = useParade();
/** How many copies there are. */
const count = computed(() => {
  const copies = scene.motion?.objects.get(one.thing.value?.id ?? "")?.channels["copies"];
  return copies ? copies.width / 6 : 1;
});
const listing = ref(false);
const listed = useOnceTrue(() => listing.value);
const parade = computed(() => paradeOf(one.thing.value));
const about = computed(() => arrangementOf(parade.value?.arrange ?? "row"));
const guides = computed(() =>
  one.thing.value ? one.guidesFor([one.thing.value.id, ...one.parts.value.map((part) => part.id)]) : [],
);
const hasText = computed(() => one.parts.value.some((part) => textOf(part)));
const feels = computed(() => vocabulary.words?.feels.filter((feel) => !["spring", "bounce"].includes(feel.name)) ?? []);
const withGuide = computed(() => about.value.needs === "guide" || about.value.needs === "text");

function arrange(to: Arrange): void {
  const needs = arrangementOf(to).needs === "guide";
  void one.set({
    arrange: to,
    guide: needs ? (parade.value?.guide ?? guides.value[0]?.id ?? null) : (parade.value?.guide ?? null),
  });
}
const open = (): void =>
  void (one.thing.value && scene.edit([{ edit: "open-parade", id: one.thing.value.id, frame: playback.frame }]));
const apart = (): void =>
  void (one.thing.value && scene.edit([{ edit: "take-apart", id: one.thing.value.id, frame: playback.frame }]));
</script>

<template>
  <div v-if="one.thing.value && parade" class="parade" role="group" :aria-label="`Parade ${one.thing.value.name}`">
    <p v-if="!one.parts.value.length" class="empty">
      Nothing hangs on it yet: drag something onto it in the troupe, and it is shown repeatedly.
    </p>
    <ArrangeChooser :arrange="parade.arrange" :has-text="hasText" :has-guides="guides.length > 0" @choose="arrange" />
    <div class="grid">
      <template v-if="parade.arrange === 'grid'">
        <span>in lines of</span>
        <NumberField
          label="In lines of"
          :value="parade.columns"
          :low="1"
          :high="2000"
          :digits="0"
          @change="one.set({ columns: Math.round($event) })"
        />
      </template>
      <template v-if="withGuide">
        <span>along</span>
        <select aria-label="Along" :value="parade.guide ?? ''" @change="one.set({ guide: chosenIn($event) || null })">
          <option v-if="about.needs === 'text'" value="">nothing</option>
          <option v-for="guide in guides" :key="guide.id" :value="guide.id">{{ guide.name }}</option>
        </select>
      </template>
      <template v-if="parade.arrange === 'ring' || (withGuide && parade.guide && parade.arrange !== 'points')">
        <span>turned</span>
        <label class="check"
          ><input type="checkbox" :checked="parade.turned" @change="one.set({ turned: !parade.turned })" />
          {{ parade.arrange === "ring" ? "outwards" : "with the way" }}</label
        >
      </template>
      <span>who begins</span>
      <span class="two">
        <select
          aria-label="Who begins"
          :value="parade.order"
          @change="one.set({ order: chosenIn($event) as Parade['order'] })"
        >
          <option v-for="order in ORDERS" :key="order.order" :value="order.order">{{ order.says }}</option>
        </select>
        <button
          v-if="parade.order === 'chance'"
          class="chip small"
          title="Shuffle the order again"
          @click="one.set({ seed: (parade.seed + 1) % 1000000 })"
        >
          Anew
        </button>
      </span>
    </div>
    <details>
      <summary>More differences between copies</summary>
      <div class="grid">
        <span>in between</span>
        <select
          aria-label="Feel across the copies"
          title="How size, rotation and other values change from the first copy to the last"
          :value="typeof parade.feel === 'string' ? parade.feel : ''"
          @change="one.set({ feel: chosenIn($event) as Parade['feel'] })"
        >
          <option v-for="feel in feels" :key="feel.name" :value="feel.name">{{ feel.label }}</option>
        </select>
        <span>in front</span>
        <select
          aria-label="In front"
          :value="parade.front"
          @change="one.set({ front: chosenIn($event) as Parade['front'] })"
        >
          <option value="last">the last</option>
          <option value="first">the first</option>
          <option value="smallest">the smallest</option>
        </select>
        <span />
        <label class="check" title="Copies shifted past the end continue at the start"
          ><input type="checkbox" :checked="parade.wraps" @change="one.set({ wraps: !parade.wraps })" /> go round</label
        >
        <span />
        <label class="check" title="Scale each copy by the same factor instead of the same amount"
          ><input type="checkbox" :checked="parade.geometric" @change="one.set({ geometric: !parade.geometric })" />
          grow by equal factors</label
        >
      </div>
    </details>
    <CopyAlone
      v-if="one.parts.value.length"
      :overrules="parade.overrules"
      :parts="one.parts.value"
      :count="count"
      @change="one.set({ overrules: $event })"
    />
    <div class="actions">
      <button class="chip" title="Own words, colours and numbers for each copy" @click="listing = true">
        Lists…{{ parade.lists.length ? ` (${parade.lists.length})` : "" }}
      </button>
      <button class="chip" title="Plain objects that move as the copies do" @click="apart">Take apart</button>
      <button class="chip" title="Remove the parade and keep its objects, once" @click="open">Leave one</button>
    </div>
    <ListsDialog v-if="listed" v-model="listing" :thing="one.thing.value" />
  </div>
</template>

<style scoped>
.parade {
  padding: 2px 14px 8px;
}
.grid {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 4px 8px;
  align-items: center;
  margin-top: 8px;
  font-size: 12px;
}
.two {
  display: flex;
  gap: 6px;
}
summary {
  margin-top: 6px;
  color: var(--ink-2);
  font-size: 12px;
  cursor: pointer;
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
}
select {
  min-width: 0;
  flex: 1;
  padding: 3px 4px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.empty {
  margin: 0 0 8px;
  color: var(--ink-2);
}
</style>
