<script setup lang="ts">
/** In which way one value follows another, and the numbers that way takes. */
import { computed } from "vue";
import type { How } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import RangeGraph from "@/components/links/RangeGraph.vue";
import type { Ranges } from "@/geometry/ranges";

export interface Numbers extends Ranges {
  readonly factor: number;
  readonly driver_size: number;
  readonly own_size: number;
  readonly same_way: boolean;
  readonly about: number;
  readonly frames: number;
  readonly go_on: boolean;
}

const WAYS = [
  { how: "same", label: "the same", about: "It takes the driver's value as it is." },
  { how: "times", label: "times a factor", about: "So many times the driver's value." },
  { how: "geared", label: "geared", about: "Turned as one wheel turns another, by their radii or their teeth." },
  { how: "mirrored", label: "mirrored", about: "As far to the one side as the driver is to the other." },
  {
    how: "remapped",
    label: "range to range",
    about: "Where the driver goes from here to there, this goes from here to there.",
  },
  { how: "later", label: "later", about: "The same, some frames later." },
  { how: "envelope", label: "inside an envelope", about: "Its own motion, let through as the driver rises." },
  { how: "scaled", label: "its own, times it", about: "Its own value, times the driver's." },
  { how: "added", label: "its own, plus it", about: "Its own value, with the driver's added." },
] as const satisfies readonly { how: How["how"]; label: string; about: string }[];

const props = defineProps<{
  ways: readonly How["how"][];
  names: { driver: string; driven: string };
  driver: { least: number; most: number; now: number };
}>();
const way = defineModel<How["how"]>("way", { required: true });
const numbers = defineModel<Numbers>("numbers", { required: true });
const offered = computed(() => WAYS.filter((one) => props.ways.includes(one.how)));
const about = computed(() => WAYS.find((one) => one.how === way.value)?.about ?? "");
const set = (change: Partial<Numbers>): void => void (numbers.value = { ...numbers.value, ...change });
</script>

<template>
  <div class="how">
    <div class="ways" role="radiogroup" aria-label="Follow mode">
      <button
        v-for="one in offered"
        :key="one.how"
        class="chip"
        role="radio"
        :aria-checked="way === one.how"
        :class="{ on: way === one.how }"
        :title="one.about"
        @click="way = one.how"
      >
        {{ one.label }}
      </button>
    </div>
    <p>{{ about }}</p>
    <div class="numbers">
      <template v-if="way === 'times' || way === 'added'">
        <span>factor</span
        ><NumberField
          label="Factor"
          :value="numbers.factor"
          unit="×"
          :step="0.1"
          :digits="2"
          @change="set({ factor: $event })"
        />
      </template>
      <template v-else-if="way === 'geared'">
        <span :title="`Radius or teeth of ${names.driver}`">driver's radius or teeth</span
        ><NumberField
          label="Driver's radius or teeth"
          :value="numbers.driver_size"
          :low="0.001"
          :digits="1"
          @change="set({ driver_size: $event })"
        />
        <span>its own</span
        ><NumberField
          label="Its own radius or teeth"
          :value="numbers.own_size"
          :low="0.001"
          :digits="1"
          @change="set({ own_size: $event })"
        />
        <label class="whole"
          ><input
            type="checkbox"
            :checked="numbers.same_way"
            @change="set({ same_way: ($event.target as HTMLInputElement).checked })"
          />
          same direction, as with a belt</label
        >
      </template>
      <template v-else-if="way === 'mirrored'">
        <span>about</span
        ><NumberField label="Mirrored about" :value="numbers.about" :digits="1" @change="set({ about: $event })" />
      </template>
      <template v-else-if="way === 'later'">
        <span>later by</span
        ><NumberField
          label="Later by"
          :value="numbers.frames"
          unit="frames"
          :digits="1"
          @change="set({ frames: $event })"
        />
      </template>
      <div v-else-if="way === 'remapped' || way === 'envelope'" class="ranges whole">
        <RangeGraph
          v-if="way === 'remapped'"
          :ranges="numbers"
          :least="driver.least"
          :most="driver.most"
          :now="driver.now"
          :names="names"
          @change="set($event)"
        />
        <div class="pairs">
          <span>driver from</span
          ><NumberField label="Driver from" :value="numbers.low" :digits="2" @change="set({ low: $event })" />
          <span>to</span
          ><NumberField label="Driver to" :value="numbers.high" :digits="2" @change="set({ high: $event })" />
          <template v-if="way === 'remapped'">
            <span>this from</span
            ><NumberField label="This from" :value="numbers.to_low" :digits="2" @change="set({ to_low: $event })" />
            <span>to</span
            ><NumberField label="This to" :value="numbers.to_high" :digits="2" @change="set({ to_high: $event })" />
            <label class="whole"
              ><input
                type="checkbox"
                :checked="numbers.go_on"
                @change="set({ go_on: ($event.target as HTMLInputElement).checked })"
              />
              continue beyond the ends</label
            >
          </template>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.on {
  background: var(--look-pale);
  border-color: var(--look);
  color: var(--ink);
  font-weight: 600;
}
p {
  margin: 7px 0;
  color: var(--ink-2);
  font-size: 12px;
}
.numbers {
  display: grid;
  grid-template-columns: 150px 130px;
  gap: 6px 10px;
  align-items: center;
}
.whole {
  grid-column: 1 / -1;
  display: flex;
  gap: 7px;
  align-items: center;
}
.ranges {
  gap: 10px;
  align-items: flex-start;
}
.pairs {
  display: grid;
  grid-template-columns: 66px 92px;
  gap: 5px 6px;
  font-size: 12.5px;
  align-items: center;
}
</style>
