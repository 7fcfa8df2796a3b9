<script setup lang="ts">
/**
 * One remark: pointed at, its place is shown in picture and time sheet; clicked, one goes there; each ready mend can be
 * looked at before it is taken.
 */
import { ElDropdownItem } from "element-plus";
import { computed, ref } from "vue";
import type { NoteWords } from "@/api/types";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useNotes } from "@/stores/notes";

const props = defineProps<{ note: NoteWords }>();
const emit = defineEmits<{ gone: [] }>();
const notes = useNotes();
const wrong = ref("");
const frames = computed(() => {
  const [first, last] = props.note.frames.map(Math.round);
  return first === last ? `frame ${first}` : `frames ${first}–${last}`;
});
const sure = computed(() => (props.note.sure >= 0.75 ? "sure" : props.note.sure >= 0.55 ? "likely" : "perhaps"));

async function take(event: MouseEvent, edits: NoteWords["mends"][number]["edits"]): Promise<void> {
  notes.letGo();
  wrong.value = (await notes.mend(edits)) ?? "";
  // A click of the keyboard has no count of clicks.
  if (!wrong.value && event.detail === 0) emit("gone");
}
async function choose(command: string): Promise<void> {
  await notes.hush(props.note, command === "all");
  emit("gone");
}
</script>

<template>
  <article
    class="note"
    :class="{ pointed: notes.pointed === note }"
    :aria-label="`${note.label}: ${note.text}`"
    @pointerenter="notes.pointed = note"
    @pointerleave="notes.pointed = null"
    @focusin="notes.pointed = note"
  >
    <button class="where" :title="`Go there: ${frames}`" @click="notes.goTo(note)">
      <span class="kind"
        >{{ note.label }} <small>{{ sure }} · {{ frames }}</small></span
      >
      {{ note.text }}
    </button>
    <div class="mends">
      <button
        v-for="mend in note.mends"
        :key="mend.label"
        class="chip small"
        title="Rest here to see it in the picture; a click makes it, in one step of undo"
        @pointerenter="notes.look(mend.edits)"
        @pointerleave="notes.letGo()"
        @focus="notes.look(mend.edits)"
        @blur="notes.letGo()"
        @click="take($event, mend.edits)"
      >
        {{ mend.label }}
      </button>
      <PopUpMenu placement="bottom-end" @command="choose">
        <button class="round small" :aria-label="`Hush: ${note.label}`" title="Hush this note">
          <VineIcon name="shut" />
        </button>
        <template #items>
          <ElDropdownItem command="this">Hush this one</ElDropdownItem>
          <ElDropdownItem command="all">Hush all of this kind</ElDropdownItem>
        </template>
      </PopUpMenu>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </article>
</template>

<style scoped>
.note {
  border: 1px solid var(--line);
  border-radius: 12px;
  margin-bottom: 7px;
  background: var(--paper);
  overflow: hidden;
}
.pointed {
  border-color: var(--look);
  background: var(--look-pale);
}
.where {
  display: block;
  width: 100%;
  border: 0;
  background: none;
  color: var(--ink);
  font: 13px/1.35 var(--text);
  text-align: left;
  padding: 8px 10px 4px;
  cursor: pointer;
  border-radius: 12px;
}
.where:focus-visible {
  outline-offset: -2px;
}
.kind {
  display: block;
  font-weight: 600;
}
small {
  font-weight: 400;
  color: var(--ink-2);
  margin-left: 3px;
}
.mends {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
  padding: 0 8px 6px 10px;
}
.mends :deep(.el-dropdown) {
  margin-left: auto;
}
.wrong {
  margin: 0;
  padding: 0 10px 8px;
  color: #a32145;
  font-weight: 600;
}
</style>
