<script setup lang="ts">
/** The formats, in families; one is chosen by a click, more by their small plus. */
import { computed, ref } from "vue";
import type { FormatWords } from "@/api/types";
import FindField from "@/components/common/FindField.vue";
import { narrowed } from "@/geometry/finding";

const props = defineProps<{ formats: readonly FormatWords[]; chosen: readonly string[] }>();
const emit = defineEmits<{ choose: [name: string, also: boolean] }>();
const FAMILIES = [
  { name: "film", label: "Films" },
  { name: "page", label: "For pages" },
  { name: "pictures", label: "Pictures and print" },
  { name: "sound", label: "Sound" },
  { name: "data", label: "Data" },
] as const;
const typed = ref("");
const left = computed(() => narrowed(props.formats, typed.value));
const families = computed(() =>
  FAMILIES.map((family) => ({ ...family, formats: left.value.filter((one) => one.family === family.name) })).filter(
    (family) => family.formats.length,
  ),
);
const about = computed(() => props.formats.find((one) => one.name === props.chosen[0])?.about);
</script>

<template>
  <div class="formats" role="group" aria-label="Format">
    <FindField v-model="typed" label="Find a format" @take="left[0] && emit('choose', left[0].name, false)" />
    <p v-if="!left.length">No matches. Try fewer letters.</p>
    <section v-for="family in families" :key="family.name">
      <h3>{{ family.label }}</h3>
      <div
        v-for="one in family.formats"
        :key="one.name"
        class="format"
        :class="{ on: chosen.includes(one.name) }"
        :title="one.about"
      >
        <label
          ><input
            type="radio"
            name="format"
            :value="one.name"
            :checked="chosen[0] === one.name"
            @change="emit('choose', one.name, false)"
          />
          {{ one.label }}</label
        >
        <button
          v-if="chosen[0] !== one.name"
          class="also"
          :aria-pressed="chosen.includes(one.name)"
          :aria-label="`Also ${one.label}`"
          :title="chosen.includes(one.name) ? 'Do not export this format' : 'Export this format, too'"
          @click="emit('choose', one.name, true)"
        >
          {{ chosen.includes(one.name) ? "✓" : "+" }}
        </button>
      </div>
    </section>
    <p v-if="about" class="about">{{ about }}</p>
  </div>
</template>

<style scoped>
.formats {
  display: grid;
  gap: 4px;
  align-content: start;
  overflow-y: auto;
  padding-right: 6px;
}
section {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
h3 {
  font: 600 12px var(--heading);
  grid-column: 1 / -1;
  color: var(--ink-2);
  margin: 8px 0 1px;
}
.format {
  display: flex;
  align-items: stretch;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
}
.format.on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
label {
  flex: 1;
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 5px 7px;
  cursor: pointer;
  font-size: 13px;
}
.about {
  margin: 10px 0 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
input {
  margin: 0;
  accent-color: var(--travel);
}
.also {
  border: 0;
  border-left: 1px solid var(--line);
  background: none;
  width: 26px;
  color: var(--ink-2);
  cursor: pointer;
  font: 600 14px var(--mono);
}
.also:hover,
.also[aria-pressed="true"] {
  color: var(--travel);
}
</style>
