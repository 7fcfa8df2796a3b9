<script setup lang="ts">
/** Put a rule on other objects or another channel: any number at once, each with chance of its own if wanted. */
import { holdsNumbers } from "@/api/channels";
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import type { ChannelWords, Rule, SceneObject } from "@/api/types";
import { useRules } from "@/composables/rules/useRules";
import { toggled } from "@/geometry/sets";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; rule: Rule; channel: ChannelWords }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const vocabulary = useVocabulary();
const rules = useRules();
const chosen = ref<ReadonlySet<string>>(new Set());
const chosenChannel = ref("");
const ownChance = ref(true);
const find = ref("");
const wrong = ref("");

const label = computed(() => rules.wordsOf(props.rule)?.label ?? "");
const drawsOnChance = computed(() => rules.wordsOf(props.rule)?.settings.some((one) => one.name === "seed") ?? false);
const listed = computed(() =>
  scene.objects.filter((one) => one.name.toLowerCase().includes(find.value.trim().toLowerCase())),
);
const channels = computed(() => vocabulary.channelsOf(props.thing).filter(holdsNumbers));
/** On its own object a copy on the same channel would only double it. */
const offered = (one: SceneObject): boolean => one.id !== props.thing.id || chosenChannel.value !== "";

const toggle = (id: string): void => void (chosen.value = toggled(chosen.value, id));

async function copy(): Promise<void> {
  const objects = scene.objects.filter((one) => chosen.value.has(one.id) && offered(one)).map((one) => one.id);
  wrong.value =
    (await scene.attempt(rules.copyEdits(props.rule, objects, chosenChannel.value || null, ownChance.value))) ?? "";
  if (!wrong.value) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" :title="`Copy ${label.toLowerCase()} of ${thing.name}`" width="420" append-to-body>
    <label class="line"
      >onto
      <select v-model="chosenChannel" aria-label="Which channel">
        <option value="">the same channels</option>
        <option v-for="one in channels" :key="one.name" :value="one.name">
          {{ one.row === "Rotation" ? "rotation" : `${one.row.toLowerCase()} ${one.label}` }}
        </option>
      </select>
    </label>
    <input
      v-if="scene.objects.length > 12"
      v-model="find"
      class="find"
      type="search"
      placeholder="Find an object"
      aria-label="Find an object"
    />
    <div class="list" role="group" aria-label="Objects">
      <label
        v-for="one in listed"
        :key="one.id"
        :class="{ off: !offered(one) }"
        :title="offered(one) ? undefined : 'The rule already acts on these channels. Choose others above.'"
      >
        <input type="checkbox" :checked="chosen.has(one.id)" :disabled="!offered(one)" @change="toggle(one.id)" />
        {{ one.name }}
      </label>
    </div>
    <label v-if="drawsOnChance" class="line"
      ><input v-model="ownChance" type="checkbox" /> each with its own seed, so that all move differently</label
    >
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" :disabled="!chosen.size" @click="copy">Copy to {{ chosen.size || "…" }}</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0 8px;
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
  max-height: 260px;
  overflow-y: auto;
  display: grid;
  gap: 2px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 6px 10px;
  margin-bottom: 8px;
}
.list label {
  display: flex;
  gap: 8px;
  align-items: center;
  cursor: pointer;
}
.off {
  opacity: 0.5;
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
