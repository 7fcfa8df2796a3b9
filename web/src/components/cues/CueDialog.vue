<script setup lang="ts">
/** A cue: its name, its stretch, what starts it, whom it moves, and how it plays. */
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import type { Cue } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { canCue, keyName } from "@/geometry/keyNames";
import { cueKey } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ cue: Cue }>();
const emit = defineEmits<{ close: [] }>();
const scene = useScene();
const playback = usePlayback();
const draft = ref<Cue>({ ...props.cue });
const find = ref("");
const wrong = ref("");
const known = computed(() => scene.head?.cues?.some((one) => one.id === props.cue.id) ?? false);
const set = (change: Partial<Cue>): void => void (draft.value = { ...draft.value, ...change });
/** What stands alone, or a part that was chosen already: children go along with their parent. */
const listed = computed(() =>
  scene.objects
    .filter(
      (one) =>
        (!one.parent || draft.value.objects?.includes(one.id)) &&
        one.name.toLowerCase().includes(find.value.trim().toLowerCase()),
    )
    .reverse(),
);
const shares = computed(() =>
  draft.value.key
    ? scene.head?.cues?.find((one) => one.key === draft.value.key && one.id !== draft.value.id)
    : undefined,
);
const PLAYS = [
  { plays: "once", label: "once", about: "It runs through and stays on its last frame." },
  {
    plays: "loop",
    label: "round and round",
    about: "It goes round until its key is pressed again, and ends with the round it is in.",
  },
  {
    plays: "held",
    label: "while held",
    about: "It goes round as long as the key is down, and ends with the round it is in.",
  },
] as const;

function pressed(event: KeyboardEvent): void {
  if (event.key === "Tab" || event.key === "Escape") return;
  event.preventDefault();
  event.stopPropagation();
  const key = cueKey(event);
  if (event.key === "Backspace" || event.key === "Delete") set({ key: null });
  else if (canCue(key)) set({ key });
}
function toggle(id: string): void {
  const now = draft.value.objects ?? [];
  set({ objects: now.includes(id) ? now.filter((one) => one !== id) : [...now, id] });
}
async function keep(): Promise<void> {
  const cue = {
    ...draft.value,
    name: draft.value.name.trim() || props.cue.name,
    first: Math.round(draft.value.first),
    last: Math.round(draft.value.last),
  };
  wrong.value = (await scene.attempt([known.value ? { edit: "set-cue", cue } : { edit: "add-cue", cue }])) ?? "";
  if (!wrong.value) emit("close");
}
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="known ? `The cue ${cue.name}` : 'A new cue'"
    width="520"
    append-to-body
    @close="emit('close')"
  >
    <div class="grid">
      <label for="cue-name">name</label>
      <input
        id="cue-name"
        class="text"
        :value="draft.name"
        maxlength="80"
        @input="set({ name: ($event.target as HTMLInputElement).value })"
        @keydown.enter.prevent="keep"
      />
      <span>stretch</span>
      <span class="pair">
        <NumberField
          label="First frame of the cue"
          :value="draft.first"
          :digits="0"
          :low="0"
          @change="set({ first: Math.round($event) })"
        />
        to
        <NumberField
          label="Last frame of the cue"
          :value="draft.last"
          :digits="0"
          :low="0"
          @change="set({ last: Math.round($event) })"
        />
        <button
          class="chip small"
          title="Take the frames of the play range"
          @click="set({ first: playback.from, last: playback.to })"
        >
          play range
        </button>
      </span>
      <label for="cue-key">key</label>
      <span class="pair"
        ><input
          id="cue-key"
          class="text key"
          :value="draft.key ? keyName(draft.key) : ''"
          placeholder="press a key"
          readonly
          title="Press the key that shall start it; Delete takes it away"
          @keydown="pressed"
        /><small v-if="shares">starts “{{ shares.name }}” too</small></span
      >
      <label for="cue-click">or a click on</label>
      <select
        id="cue-click"
        :value="draft.click ?? ''"
        @change="set({ click: ($event.target as HTMLSelectElement).value || null })"
      >
        <option value="">nothing</option>
        <option v-for="one in scene.objects" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <span>plays</span>
      <span class="pair" role="radiogroup" aria-label="Playback mode">
        <button
          v-for="one in PLAYS"
          :key="one.plays"
          class="chip small"
          role="radio"
          :aria-checked="draft.plays === one.plays"
          :class="{ on: draft.plays === one.plays }"
          :title="one.about"
          @click="set({ plays: one.plays })"
        >
          {{ one.label }}
        </button>
      </span>
      <span>moves</span>
      <div>
        <input
          v-if="scene.objects.length > 12"
          v-model="find"
          class="text"
          type="search"
          placeholder="Find by name"
          aria-label="Find by name"
        />
        <div class="list" role="group" aria-label="Objects it moves">
          <label v-for="one in listed" :key="one.id"
            ><input type="checkbox" :checked="draft.objects?.includes(one.id)" @change="toggle(one.id)" />
            {{ one.name }}</label
          >
        </div>
        <small>Attached objects are included.</small>
      </div>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="emit('close')">Cancel</button>
      <button
        class="primary"
        :disabled="!draft.objects?.length"
        :title="draft.objects?.length ? '' : 'Tick the objects it moves'"
        @click="keep"
      >
        {{ known ? "Keep it" : "Add the cue" }}
      </button>
    </template>
  </ElDialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 9px 10px;
  align-items: center;
}
.grid > :nth-last-child(2) {
  align-self: start;
}
.pair {
  display: flex;
  gap: 8px;
  align-items: center;
}
.pair :deep(.number),
.pair > :deep(label) {
  max-width: 90px;
}
.text,
select {
  font: inherit;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  padding: 4px 8px;
  min-width: 0;
  color: var(--ink);
}
.key {
  width: 110px;
  font-family: var(--mono);
  font-weight: 700;
}
.on {
  background: var(--travel-pale);
  border-color: var(--travel);
  font-weight: 600;
}
.list {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px 10px;
  max-height: 150px;
  overflow-y: auto;
  padding: 2px;
  margin: 4px 0;
}
.list label {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
small {
  color: var(--ink-2);
}
.wrong {
  color: #a32145;
  font-weight: 600;
  margin: 10px 0 0;
}
</style>
