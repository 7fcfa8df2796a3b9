<script setup lang="ts">
/** Differences between two versions, by object; ticked ones can be restored. */
import { computed } from "vue";
import type { DifferenceWords } from "@/api/types";
import { apart, differenceKey, grouped, where } from "@/geometry/differences";

const props = defineProps<{
  differences: readonly DifferenceWords[];
  looking: boolean;
  /** What the other version is called. */
  other: string;
  /** Whether differences can be ticked. */
  choosing: boolean;
}>();
const ticked = defineModel<ReadonlySet<string>>("ticked", { required: true });
const emit = defineEmits<{ goTo: [difference: DifferenceWords] }>();
const groups = computed(() => grouped(props.differences));

const isTicked = (all: readonly DifferenceWords[]): boolean => all.every((one) => ticked.value.has(differenceKey(one)));
const isPartly = (all: readonly DifferenceWords[]): boolean =>
  !isTicked(all) && all.some((one) => ticked.value.has(differenceKey(one)));
function tick(all: readonly DifferenceWords[], on: boolean): void {
  const keys = new Set(ticked.value);
  for (const one of all)
    if (on) keys.add(differenceKey(one));
    else keys.delete(differenceKey(one));
  ticked.value = keys;
}
</script>

<template>
  <section class="differences" aria-label="Differences">
    <p v-if="looking && !differences.length" class="none">Comparing…</p>
    <p v-else-if="!differences.length" class="none">Nothing differs: the scene is as it was in {{ other }}.</p>
    <section v-for="group in groups" :key="group.owner ?? ''" class="group" :aria-label="group.name">
      <label class="head"
        ><input
          v-if="choosing"
          type="checkbox"
          :checked="isTicked(group.all)"
          :indeterminate="isPartly(group.all)"
          :aria-label="`All of ${group.name}`"
          @change="tick(group.all, ($event.target as HTMLInputElement).checked)"
        />{{ group.name }}</label
      >
      <div v-for="one in group.all" :key="differenceKey(one)" class="row">
        <input
          v-if="choosing"
          type="checkbox"
          :checked="ticked.has(differenceKey(one))"
          :aria-label="`${group.name}, ${one.label}`"
          @change="tick([one], ($event.target as HTMLInputElement).checked)"
        />
        <button
          class="where"
          :disabled="one.at === null"
          :title="one.at === null ? '' : `Go to frame ${one.at}, where they are farthest apart`"
          @click="emit('goTo', one)"
        >
          <span class="label">{{ one.label }}</span>
          <span class="apart">{{ apart(one, other) }}</span>
          <span class="frames">{{ where(one) }}</span>
        </button>
      </div>
    </section>
  </section>
</template>

<style scoped>
.differences {
  overflow-y: auto;
  min-height: 0;
}
.none {
  color: var(--ink-2);
}
.differences {
  columns: 280px auto;
  column-gap: 24px;
}
.group {
  margin-bottom: 10px;
  break-inside: avoid-column;
}
.head {
  display: flex;
  align-items: center;
  gap: 7px;
  font: 600 13px var(--heading);
}
.row {
  display: flex;
  align-items: center;
  gap: 7px;
  padding-left: 4px;
}
.where {
  flex: 1;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 10px;
  text-align: left;
  border: 0;
  border-radius: var(--radius-s);
  background: none;
  color: var(--ink);
  padding: 3px 6px;
  font-size: 12.5px;
  cursor: pointer;
}
.where:disabled {
  cursor: default;
  color: var(--ink);
}
.where:enabled:hover {
  background: var(--paper-2);
}
.apart {
  font-family: var(--mono);
  font-size: 12px;
}
.frames {
  grid-column: 1 / -1;
  color: var(--ink-2);
  font-size: 11.5px;
}
.frames:empty {
  display: none;
}
</style>
