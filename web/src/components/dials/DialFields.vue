<script setup lang="ts">
/** The range and the unit of a dial, and letting things take it. */
import { computed, ref, watch } from "vue";
import { isColourDial } from "@/api/dials";
import type { Dial, DialThing } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { useDials } from "@/composables/useDials";
import { useLinking } from "@/stores/linking";

const props = defineProps<{ thing: DialThing }>();
const dials = useDials();
const linking = useLinking();
const wrong = ref("");
watch(
  () => props.thing.id,
  () => (wrong.value = ""),
);
const dial = computed(() => props.thing.dial);
const set = async (change: Partial<Dial>): Promise<void> =>
  void (wrong.value = (await dials.set(props.thing, change)) ?? "");
const shown = computed(() => (dial.value.unit === "%" ? 100 : 1));
</script>

<template>
  <div class="dial">
    <div v-if="!isColourDial(dial)" class="grid">
      <template v-for="end in ['low', 'high'] as const" :key="end">
        <span>{{ end === "low" ? "from" : "to" }}</span>
        <NumberField
          v-if="dial[end] !== null && dial[end] !== undefined"
          :label="end === 'low' ? 'Least' : 'Most'"
          :value="dial[end]!"
          :shown="shown"
          :digits="2"
          @change="set({ [end]: $event })"
        />
        <button
          v-else
          class="chip small"
          title="Any number is let through; click to set a limit"
          @click="set({ [end]: end === 'low' ? 0 : Math.max(1, (dial.low ?? 0) + 1) })"
        >
          no limit
        </button>
        <button
          class="quiet"
          :style="{ visibility: dial[end] !== null && dial[end] !== undefined ? 'visible' : 'hidden' }"
          :aria-label="`Take the ${end === 'low' ? 'lower' : 'upper'} limit away`"
          title="No limit"
          @click="set({ [end]: null })"
        >
          ×
        </button>
      </template>
      <span>unit</span>
      <select
        aria-label="Unit"
        :value="dial.unit"
        @change="set({ unit: ($event.target as HTMLSelectElement).value as Dial['unit'] })"
      >
        <option value="">none</option>
        <option>%</option>
        <option>px</option>
        <option>°</option>
      </select>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <button class="chip" @click="linking.takers = thing.id">Let things take it…</button>
  </div>
</template>

<style scoped>
.dial {
  margin: 6px 14px;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.grid {
  display: grid;
  grid-template-columns: 40px 110px 26px;
  gap: 5px 8px;
  align-items: center;
}
select {
  font: inherit;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  padding: 2px 4px;
}
.chip.small {
  justify-self: start;
  color: var(--ink-2);
}
.wrong {
  margin: 0;
  color: #a32145;
  font-weight: 600;
  font-size: 12px;
}
</style>
