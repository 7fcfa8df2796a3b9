<script setup lang="ts">
/**
 * Let many objects take a dial in one step: channels or settings of rules that several objects have, or their colours.
 */
import { holdsNumbers } from "@/api/channels";
import { ElDialog } from "element-plus";
import { computed, onBeforeUnmount, ref, watch } from "vue";
import { isColourDial } from "@/api/dials";
import { valuesAt } from "@/api/motion";
import type { How, Place } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import LinkHow, { type Numbers } from "@/components/links/LinkHow.vue";
import { useNewest } from "@/composables/useNewest";
import { useLinkEdits } from "@/composables/useLinkEdits";
import { useLinkNumbers } from "@/composables/useLinkNumbers";
import { useNames } from "@/composables/useNames";
import { toggled } from "@/geometry/sets";
import { useDrives } from "@/stores/drives";
import { useLinking } from "@/stores/linking";
import { hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const linking = useLinking();
const scene = useScene();
const playback = usePlayback();
const vocabulary = useVocabulary();
const drives = useDrives();
const names = useNames();
const begins = useLinkNumbers();
const { drafted, linkEdits, tintEdits } = useLinkEdits();

const owner = linking.takers!;
const dial = computed(() => scene.dials.find((one) => one.id === owner));
const colours = computed(() => Boolean(dial.value && isColourDial(dial.value.dial)));
const from: Place = { object: owner, channel: "value" };
const WAYS: readonly How["how"][] = ["scaled", "times", "added", "remapped", "envelope"];

/**
 * What could take it, by what it is called: channels that move or have a value of their own, and number settings of
 * rules.
 */
const kinds = computed(() => {
  const found = new Map<string, Place[]>();
  const put = (label: string, place: Place): void => void found.set(label, [...(found.get(label) ?? []), place]);
  for (const thing of scene.objects) {
    for (const rule of colours.value ? [] : thing.rules) {
      const words = vocabulary.words?.rules.find((one) => one.kind === rule.kind);
      for (const one of words?.settings ?? [])
        if (!one.choices.length && !one.names)
          put(`${words!.label}: ${one.label}`, { object: thing.id, channel: `${rule.id}:${one.name}` });
    }
    for (const one of vocabulary.channelsOf(thing)) {
      const fits = colours.value ? one.unit === "colour" : holdsNumbers(one);
      if (fits && one.name !== "depth")
        put(names.channelName({ object: thing.id, channel: one.name }), { object: thing.id, channel: one.name });
    }
  }
  return found;
});
const kind = ref(
  colours.value ? "fill" : ([...kinds.value.keys()].find((one) => one.endsWith(": amplitude")) ?? "rotation"),
);
const find = ref("");
const taken = computed(
  () =>
    new Set(
      drives.all
        .filter((one) => one.driver.object === owner)
        .map((one) => `${one.driven.object} ${one.setting ? `${one.rule}:${one.setting}` : one.driven.channel}`),
    ),
);
const listed = computed(() =>
  (kinds.value.get(kind.value) ?? []).filter((one) =>
    names.objectName(one.object).toLowerCase().includes(find.value.trim().toLowerCase()),
  ),
);
const ticked = ref<ReadonlySet<string>>(new Set());
const key = (place: Place): string => `${place.object} ${place.channel}`;
watch([kind], () => (ticked.value = new Set()));
const chosen = computed(() => listed.value.filter((one) => ticked.value.has(key(one))));
const all = computed(() => listed.value.length > 0 && listed.value.every((one) => ticked.value.has(key(one))));
const toggle = (place: Place): void => void (ticked.value = toggled(ticked.value, key(place)));
const toggleAll = (): void => void (ticked.value = all.value ? new Set() : new Set(listed.value.map(key)));

const way = ref<How["how"]>("scaled");
const numbers = ref<Numbers>(begins.begun(from, null, 1));
const keep = ref(true);
const share = ref(1);
const wrong = ref("");
const formulas = ref<readonly string[]>([]);
const reach = computed(() => begins.reach(from));
/** The colour the dial has now, in hex. */
const neutral = computed(() => {
  const rows = scene.motion?.objects.get(owner)?.channels.value;
  return rows ? hexOf(valuesAt(rows, playback.frame)) : "";
});
const edits = () =>
  colours.value
    ? tintEdits(dial.value?.dial.id ?? "", chosen.value, share.value, keep.value ? neutral.value : "")
    : linkEdits(chosen.value, formulas.value);

/** The newest draft that was asked for: answers may come in another order. */
const beginDraft = useNewest();
let drafting: Promise<void> = Promise.resolve();
watch([chosen, way, numbers, keep, share], () => (drafting = draft()), { deep: true });
async function draft(): Promise<void> {
  const isNewest = beginDraft();
  wrong.value = "";
  if (!chosen.value.length) {
    scene.letGo();
    return;
  }
  if (!colours.value) {
    const found = await drafted(
      from,
      chosen.value,
      begins.howOf(way.value, numbers.value),
      keep.value ? playback.frame : null,
    );
    if (!open || !isNewest()) return;
    if (typeof found === "string") {
      wrong.value = found;
      return;
    }
    formulas.value = found;
  }
  void scene.lookAt(edits());
}

/** What is asked for while the dialog goes away must not leave a look behind. */
let open = true;
onBeforeUnmount(() => {
  open = false;
  scene.letGo();
});
function close(): void {
  linking.takers = null;
}
async function take(): Promise<void> {
  // What was changed last is what is meant, though its formulas may still be on their way.
  await drafting;
  const said = await scene.attempt(edits());
  wrong.value = said ?? "";
  if (said === null) linking.takers = null;
}
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="`Link objects to ${dial?.name ?? 'the dial'}`"
    width="600"
    append-to-body
    @close="close"
  >
    <div class="columns">
      <div>
        <label class="field"
          >what
          <select v-model="kind" aria-label="Linked channels">
            <option v-for="[name, places] in kinds" :key="name" :value="name">{{ name }} ({{ places.length }})</option>
          </select>
        </label>
        <input
          v-if="(kinds.get(kind)?.length ?? 0) > 8"
          v-model="find"
          class="find"
          type="search"
          placeholder="Find by name"
          aria-label="Find by name"
        />
        <label class="all"><input type="checkbox" :checked="all" @change="toggleAll" /> all {{ listed.length }}</label>
        <div class="list" role="group" aria-label="Linked objects">
          <label v-for="one in listed" :key="key(one)"
            ><input type="checkbox" :checked="ticked.has(key(one))" @change="toggle(one)" />
            {{ names.objectName(one.object) }} <small v-if="taken.has(key(one))">linked already</small></label
          >
        </div>
      </div>
      <div>
        <template v-if="colours">
          <p>Each colour moves with the dial, blended in an even colour space.</p>
          <div class="share">
            <span>share</span
            ><NumberField
              label="Share"
              :value="share"
              unit="×"
              :step="0.05"
              :digits="2"
              :low="0"
              :high="1"
              @change="share = $event"
            />
          </div>
        </template>
        <LinkHow
          v-else
          v-model:way="way"
          v-model:numbers="numbers"
          :ways="WAYS"
          :names="{ driver: dial?.name ?? '', driven: kind }"
          :driver="reach"
        />
        <label class="keep"
          ><input v-model="keep" type="checkbox" /> keep how everything looks at frame {{ playback.frame }}</label
        >
        <p v-if="!colours && formulas.length && chosen.length" class="formula" title="The formula of the first of them">
          <code>{{ formulas[0] }}</code>
        </p>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      </div>
    </div>
    <template #footer>
      <button class="plain" @click="close">Cancel</button>
      <button class="primary" :disabled="!chosen.length || Boolean(wrong)" @click="take">
        {{ chosen.length ? `Let ${chosen.length} take it` : "Tick who takes it" }}
      </button>
    </template>
  </ElDialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 18px;
}
.field {
  display: grid;
  gap: 3px;
  font-size: 12px;
  color: var(--ink-2);
}
select,
.find {
  font: inherit;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  padding: 3px 5px;
  min-width: 0;
  width: 100%;
  box-sizing: border-box;
  color: var(--ink);
}
.find {
  margin-top: 6px;
}
.all {
  display: flex;
  gap: 7px;
  margin: 8px 0 4px;
  font-weight: 600;
}
.list {
  display: grid;
  gap: 3px;
  max-height: 210px;
  overflow-y: auto;
  padding: 2px;
}
.list label {
  display: flex;
  gap: 7px;
  align-items: baseline;
}
small {
  color: var(--ink-2);
  font-size: 11px;
}
p {
  margin: 0 0 8px;
  color: var(--ink-2);
  font-size: 12px;
}
.share {
  display: grid;
  grid-template-columns: 60px 120px;
  align-items: center;
}
.keep {
  display: flex;
  gap: 7px;
  margin: 12px 0 8px;
}
.formula {
  background: var(--paper-2);
  border-radius: 8px;
  padding: 6px 9px;
  overflow-wrap: anywhere;
}
code {
  font: 12px var(--mono);
  color: var(--ink);
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
