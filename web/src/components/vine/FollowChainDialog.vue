<script setup lang="ts">
/**
 * Overlap in one step: a leader, the links that come after it in order, how much later each is, and springs by choice.
 */
import { holdsNumbers } from "@/api/channels";
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import type { ChannelWords, SceneObject } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { chainEdits } from "@/composables/rules/ruleEdits";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ leader: SceneObject; channel: ChannelWords }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const vocabulary = useVocabulary();
/** The links in the order they follow: the order they were ticked in. */
const links = ref<readonly string[]>([]);
const channel = ref(holdsNumbers(props.channel) ? props.channel.name : "rotation");
const delay = ref(3);
const share = ref(1);
const sprung = ref(false);
const spring = ref(2.2);
const damping = ref(0.3);
const find = ref("");
const wrong = ref("");

const listed = computed(() =>
  scene.objects.filter(
    (one) => one.id !== props.leader.id && one.name.toLowerCase().includes(find.value.trim().toLowerCase()),
  ),
);
const channels = computed(() => vocabulary.channelsOf(props.leader).filter(holdsNumbers));
const place = (id: string): number => links.value.indexOf(id) + 1;

const toggle = (id: string): void =>
  void (links.value = links.value.includes(id) ? links.value.filter((one) => one !== id) : [...links.value, id]);

async function make(): Promise<void> {
  const edits = chainEdits(props.leader.id, links.value, channel.value, {
    delay: delay.value,
    share: share.value,
    spring: sprung.value ? spring.value : null,
    damping: damping.value,
  });
  wrong.value = (await scene.attempt(edits)) ?? "";
  if (!wrong.value) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" :title="`Follow ${leader.name} down a chain`" width="440" append-to-body>
    <p class="hint">
      Tick the links in the order they come: the first follows {{ leader.name }}, each other one the link before it.
    </p>
    <input
      v-if="scene.objects.length > 12"
      v-model="find"
      class="find"
      type="search"
      placeholder="Find an object"
      aria-label="Find an object"
    />
    <div class="list" role="group" aria-label="Links">
      <label v-for="one in listed" :key="one.id"
        ><input type="checkbox" :checked="place(one.id) > 0" @change="toggle(one.id)" /> {{ one.name }}
        <span v-if="place(one.id)" class="place">{{ place(one.id) }}</span></label
      >
    </div>
    <div class="grid">
      <span>channel</span>
      <select v-model="channel" aria-label="Which channel">
        <option v-for="one in channels" :key="one.name" :value="one.name">
          {{ one.row === "Rotation" ? "rotation" : `${one.row.toLowerCase()} ${one.label}` }}
        </option>
      </select>
      <span>each later by</span>
      <NumberField label="Each later by" :value="delay" unit="frames" :low="0" :high="1000" @change="delay = $event" />
      <span title="Share of the previous link's motion that each link follows">share</span>
      <NumberField
        label="Share"
        :value="share"
        unit="×"
        :step="0.05"
        :digits="2"
        :low="-10"
        :high="10"
        @change="share = $event"
      />
      <label><input v-model="sprung" type="checkbox" /> on springs</label>
      <span v-if="sprung" class="pair">
        <NumberField
          label="Spring"
          :value="spring"
          unit="Hz"
          :step="0.1"
          :digits="2"
          :low="0.01"
          :high="60"
          @change="spring = $event"
        />
        <NumberField
          label="Damping"
          :value="damping"
          :step="0.05"
          :digits="2"
          :low="0"
          :high="20"
          hint="How soon it comes to rest"
          @change="damping = $event"
        />
      </span>
      <span v-else />
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" :disabled="!links.length" @click="make">Follow with {{ links.length || "…" }}</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.hint {
  margin: 0 0 8px;
  color: var(--ink-2);
}
.find {
  width: 100%;
  margin-bottom: 6px;
  font: inherit;
  padding: 4px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
}
.list {
  max-height: 220px;
  overflow-y: auto;
  display: grid;
  gap: 2px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 6px 10px;
  margin-bottom: 10px;
}
.list label {
  display: flex;
  gap: 8px;
  align-items: center;
  cursor: pointer;
}
.place {
  margin-left: auto;
  background: var(--travel);
  color: var(--paper);
  border-radius: 99px;
  padding: 0 8px;
  font: 12px var(--mono);
}
.grid {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 6px 10px;
  align-items: center;
}
.pair {
  display: flex;
  gap: 6px;
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
