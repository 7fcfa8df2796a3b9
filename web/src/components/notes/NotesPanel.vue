<script setup lang="ts">
/**
 * What could be better about the motion: each remark with where it is and what would mend it, the surest and worst
 * first.
 */
import { computed, ref, watch } from "vue";
import { RouterLink } from "vue-router";
import VineIcon from "@/components/common/VineIcon.vue";
import NoteCard from "@/components/notes/NoteCard.vue";
import { keyOf, useNotes } from "@/stores/notes";
import { useScene } from "@/stores/scene";

const notes = useNotes();
const scene = useScene();
const panel = ref<HTMLElement>();
const heading = computed(() => {
  const count = notes.list.length;
  return count === 1 ? "One note" : `${count} notes`;
});

/** Up and Down go from note to note. */
function step(event: KeyboardEvent, by: number): void {
  const all = [...(panel.value?.querySelectorAll<HTMLElement>(".where") ?? [])];
  const at = all.indexOf(event.target as HTMLElement);
  if (at < 0) return;
  event.preventDefault();
  all[(at + by + all.length) % all.length]?.focus();
}
/** Once a note that was mended from the keyboard is missing, the focus is on the next. */
let going = false;
function gone(): void {
  going = true;
}
watch(
  () => notes.list,
  () => {
    if (!going) return;
    going = false;
    panel.value?.querySelector<HTMLElement>(".where")?.focus();
  },
  { flush: "post" },
);
</script>

<template>
  <section ref="panel" class="notes" aria-label="Notes" @keydown.down="step($event, 1)" @keydown.up="step($event, -1)">
    <div class="panel-head">
      <h2>{{ heading }}</h2>
      <button
        class="round small"
        title="Back to the values (Alt+N)"
        aria-label="Close the notes"
        @click="notes.toggle()"
      >
        <VineIcon name="after" />
      </button>
    </div>
    <p class="sr-only" aria-live="polite">{{ notes.looking ? "" : heading }}</p>
    <div class="list">
      <NoteCard v-for="note in notes.list" :key="keyOf(note)" :note="note" @gone="gone" />
      <p v-if="!notes.list.length && scene.objects.length" class="none">
        {{ notes.looking ? "Looking through the motion…" : "Nothing to remark: feet stay, loops close, nothing pops." }}
      </p>
      <p v-else-if="!notes.list.length" class="none">Notes appear once an object moves.</p>
      <p v-if="notes.state?.silent" class="none">
        {{ notes.state.silent === 1 ? "One is" : `${notes.state.silent} are` }} hushed.
        <button class="chip small" @click="notes.hear()">Show them again</button>
      </p>
      <p class="none"><RouterLink to="/notes" target="_blank">Examples of each kind</RouterLink></p>
    </div>
  </section>
</template>

<style scoped>
.notes {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--line);
  background: var(--paper);
}
h2 {
  font-size: 13px;
}
.list {
  overflow-y: auto;
  flex: 1;
  padding: 0 10px 10px;
}
.none {
  color: var(--ink-2);
  margin: 8px 4px;
  font-size: 13px;
}
a {
  color: var(--travel);
}
</style>
