<script setup lang="ts">
/** Find objects and commands by typing letters of their name; commands show their keys. */
import { ElDialog } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import { type Found, useFindables } from "@/composables/useFindables";
import type { Shortcut } from "@/composables/useShortcuts";
import { found } from "@/geometry/finding";
import { usePlayback } from "@/stores/playback";

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ shortcuts: readonly Shortcut[] }>();
const playback = usePlayback();
const emit = defineEmits<{ open: [what: "settings" | "export"] }>();
const all = useFindables(props.shortcuts, (what) => emit("open", what));
const typed = ref("");
const at = ref(0);
const field = ref<HTMLInputElement>();
const list = ref<HTMLElement>();
const MOST = 40;

/** A number typed is a frame to go to. */
const frame = computed((): Found[] => {
  const number = Number(typed.value);
  if (!typed.value.trim() || !Number.isInteger(number) || number < 0 || number > playback.last) return [];
  return [
    {
      id: "frame",
      name: `Go to frame ${number}`,
      kind: "time",
      keys: ["F"],
      run: () => playback.goTo(number),
    },
  ];
});
const shown = computed(() => (open.value ? [...frame.value, ...found(all.value, typed.value, MOST)] : []));
watch(typed, () => (at.value = 0));
watch(open, (now) => {
  if (now) [typed.value, at.value] = ["", 0];
});

function move(by: number): void {
  const count = shown.value.length;
  if (count) at.value = (at.value + by + count) % count;
  void nextTick(() => list.value?.querySelector(".at")?.scrollIntoView({ block: "nearest" }));
}

function choose(one: Found | undefined): void {
  if (!one) return;
  open.value = false;
  // Once the dialog is closed, what is done may open another.
  void nextTick(one.run);
}
</script>

<template>
  <ElDialog
    v-model="open"
    title="Find"
    width="560"
    top="12vh"
    :show-close="false"
    class="find-dialog"
    @opened="field?.focus()"
  >
    <input
      ref="field"
      v-model="typed"
      class="typed"
      type="search"
      role="combobox"
      aria-expanded="true"
      aria-controls="find-list"
      :aria-activedescendant="shown[at] ? `find-${at}` : undefined"
      aria-label="Search text"
      placeholder="An object, a dial, a cue, a value, or what you want to do"
      spellcheck="false"
      autocomplete="off"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="choose(shown[at])"
    />
    <div id="find-list" ref="list" class="list" role="listbox" aria-label="Found">
      <div
        v-for="(one, i) in shown"
        :id="`find-${i}`"
        :key="one.id"
        class="one"
        :class="{ at: i === at }"
        role="option"
        :aria-selected="i === at"
        @pointermove="at = i"
        @click="choose(one)"
      >
        <span class="name">{{ one.name }}</span>
        <span class="kind">{{ one.kind }}</span>
        <kbd v-for="key in one.keys" :key="key">{{ key }}</kbd>
      </div>
      <p v-if="!shown.length" class="none">No matches. Try fewer letters.</p>
    </div>
  </ElDialog>
</template>

<style scoped>
.typed {
  width: 100%;
  font: inherit;
  font-size: 15px;
  padding: 8px 12px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper-2);
  color: var(--ink);
}
.list {
  margin-top: 8px;
  height: min(46vh, 380px);
  overflow-y: auto;
}
.one {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 10px;
  border-radius: var(--radius-s);
  cursor: pointer;
}
.at {
  background: var(--travel-pale);
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.kind {
  color: var(--ink-2);
  font-size: 12px;
}
kbd {
  font: 12px var(--mono);
  border: 1px solid var(--line);
  border-radius: 5px;
  padding: 0 5px;
  background: var(--paper);
}
.none {
  color: var(--ink-2);
  padding: 4px 10px;
}
</style>
