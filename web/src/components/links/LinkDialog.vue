<script setup lang="ts">
/**
 * A link made by hand: what drives, what is driven, in which way; and the formula that makes it so, which can be
 * edited.
 */
import { holdsNumbers } from "@/api/channels";
import { ElDialog } from "element-plus";
import { computed, onBeforeUnmount, ref, watch } from "vue";
import { isColourDial, isDial } from "@/api/dials";
import type { How, Place, SceneObject } from "@/api/types";
import { chosenIn } from "@/components/common/chosen";
import LinkHow, { type Numbers } from "@/components/links/LinkHow.vue";
import FormulaField from "@/components/vine/FormulaField.vue";
import { useNewest } from "@/composables/useNewest";
import { useLinkEdits } from "@/composables/useLinkEdits";
import { useLinkNumbers } from "@/composables/useLinkNumbers";
import { useNames } from "@/composables/useNames";
import { useLinking } from "@/stores/linking";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const linking = useLinking();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const names = useNames();
const begins = useLinkNumbers();
const { drafted, linkEdits } = useLinkEdits();

const asked = linking.asked!;
const ALL: readonly How["how"][] = [
  "same",
  "times",
  "geared",
  "mirrored",
  "remapped",
  "later",
  "envelope",
  "scaled",
  "added",
];
const numbered = (thing: SceneObject | undefined) => (thing ? vocabulary.channelsOf(thing).filter(holdsNumbers) : []);
const driverThing = computed(() => scene.byId.get(driver.value.object));
const drivenThing = computed(() => scene.byId.get(driven.value.object));
const driver = ref<Place>(asked.from);
/** Let go over an object: the channel that fits is the driver's own, else its rotation. */
const driven = ref<Place>({
  object: asked.to.object,
  channel: asked.to.channel ?? fitting(asked.to.object, asked.from.channel),
});
const way = ref<How["how"]>(
  isDial(asked.from.object)
    ? "scaled"
    : driven.value.channel === "rotation" && asked.from.channel === "rotation" && asked.from.object !== asked.to.object
      ? "geared"
      : "same",
);
const step = computed(() => numbered(drivenThing.value).find((one) => one.name === driven.value.channel)?.step ?? 1);
const numbers = ref<Numbers>(begins.begun(driver.value, driven.value, step.value));
const keep = ref(true);
const formula = ref("");
const wrong = ref("");
let open = true;
const reach = computed(() => begins.reach(driver.value));
const short = computed(() => ({ driver: names.placeName(driver.value), driven: names.placeName(driven.value) }));

const things = computed(() => [...scene.objects, ...scene.dials.filter((one) => !isColourDial(one.dial))]);
function fitting(object: string, channel: string): string {
  const thing = scene.byId.get(object);
  return (
    numbered(thing).find((one) => one.name === channel)?.name ??
    numbered(thing).find((one) => one.name === "rotation")?.name ??
    "value"
  );
}
const settings = computed(() => {
  const thing = drivenThing.value;
  return (thing?.rules ?? []).flatMap((rule) => {
    const words = vocabulary.words?.rules.find((one) => one.kind === rule.kind);
    return (words?.settings ?? [])
      .filter((one) => !one.choices.length && !one.names)
      .map((one) => ({ name: `${rule.id}:${one.name}`, label: `${words!.label.toLowerCase()} ${one.label}` }));
  });
});
watch([driver, driven], () => (numbers.value = begins.begun(driver.value, driven.value, step.value)));
/**
 * With several objects picked, what drives one of them drives the same channel of each: all that have it, but the
 * driver.
 */
const allDriven = computed((): Place[] => {
  const { object, channel } = driven.value;
  if (!selection.several || !selection.picked.includes(object)) return [driven.value];
  const others = selection.picked.filter(
    (id) =>
      id !== object && id !== driver.value.object && numbered(scene.byId.get(id)).some((one) => one.name === channel),
  );
  return [driven.value, ...others.map((id) => ({ object: id, channel }))];
});
/** The formula of each link as drafted; typing replaces all of them. */
const drafts = ref<readonly string[]>([]);
const formulas = (): string[] => allDriven.value.map((_, i) => drafts.value[i] ?? formula.value);
/**
 * The newest draft that was asked for: answers may come in another order, and what is typed meanwhile counts for more.
 */
const beginDraft = useNewest();
let drafting: Promise<void> = Promise.resolve();
watch([driver, driven, way, numbers, keep], () => (drafting = draft()), { immediate: true, deep: true });
async function draft(): Promise<void> {
  const isNewest = beginDraft();
  const found = await drafted(
    driver.value,
    allDriven.value,
    begins.howOf(way.value, numbers.value),
    keep.value ? playback.frame : null,
  );
  if (!open || !isNewest()) return;
  if (typeof found === "string") {
    wrong.value = found;
    return;
  }
  wrong.value = "";
  drafts.value = found;
  formula.value = found[0] ?? "";
  look();
}

function look(): void {
  if (formula.value) void scene.lookAt(linkEdits(allDriven.value, formulas()));
}
function typed(text: string): void {
  beginDraft();
  drafts.value = [];
  formula.value = text;
  look();
}
/** What is asked for while the dialog goes away must not leave a look behind. */
onBeforeUnmount(() => {
  open = false;
  scene.letGo();
});
function close(): void {
  linking.asked = null;
}
async function link(): Promise<void> {
  // What was changed last is what is meant, though its formula may still be on its way.
  await drafting;
  const said = await scene.attempt(linkEdits(allDriven.value, formulas()));
  wrong.value = said ?? "";
  if (said === null) {
    linking.asked = null;
    // The vine shows what it does.
    const words =
      drivenThing.value && vocabulary.channelsOf(drivenThing.value).find((one) => one.name === driven.value.channel);
    if (allDriven.value.length === 1) selection.pick(driven.value.object);
    if (words) selection.pickRow(words.row, words.name);
  }
}
</script>

<template>
  <ElDialog
    :model-value="true"
    title="Link by hand"
    width="424"
    append-to-body
    modal-class="see-through"
    class="link-beside"
    draggable
    @close="close"
  >
    <div class="ends">
      <span class="end">
        <select
          class="who"
          :value="driver.object"
          aria-label="What drives"
          @change="driver = { object: chosenIn($event), channel: fitting(chosenIn($event), driver.channel) }"
        >
          <option v-for="one in things" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <select v-if="driverThing?.kind !== 'dial'" v-model="driver.channel" aria-label="Channel that drives">
          <option v-for="one in numbered(driverThing)" :key="one.name" :value="one.name">
            {{ names.channelName({ object: driver.object, channel: one.name }) }}
          </option>
        </select>
        <small v-else>dial</small>
      </span>
      <span class="drives">drives</span>
      <span class="end">
        <select
          class="who"
          :value="driven.object"
          aria-label="Driven channel"
          @change="driven = { object: chosenIn($event), channel: fitting(chosenIn($event), driven.channel) }"
        >
          <option v-for="one in scene.objects" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <select v-model="driven.channel" aria-label="Channel that is driven">
          <option v-for="one in numbered(drivenThing)" :key="one.name" :value="one.name">
            {{ names.channelName({ object: driven.object, channel: one.name }) }}
          </option>
          <optgroup v-if="settings.length" label="Settings of its rules">
            <option v-for="one in settings" :key="one.name" :value="one.name">{{ one.label }}</option>
          </optgroup>
        </select>
      </span>
    </div>
    <LinkHow v-model:way="way" v-model:numbers="numbers" :ways="ALL" :names="short" :driver="reach" />
    <label class="keep" title="Keeps the current value at this frame, by an offset or a ratio"
      ><input v-model="keep" type="checkbox" /> keep how it looks at frame {{ playback.frame }}</label
    >
    <p v-if="allDriven.length > 1" class="along">
      It drives the same value of all {{ allDriven.length }} picked objects that have it.
    </p>
    <h3>The formula{{ allDriven.length > 1 ? ` of ${drivenThing?.name}` : "" }}</h3>
    <FormulaField
      v-if="drivenThing"
      label="Formula"
      :thing="drivenThing"
      :formula="formula"
      :wrong="wrong"
      @change="typed"
    />
    <template #footer>
      <button class="plain" @click="close">Cancel</button>
      <button class="primary" :disabled="!formula" @click="link">Link</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.ends {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 12px;
}
.end {
  flex: 1;
  min-width: 0;
  display: grid;
  gap: 3px;
  background: var(--paper-2);
  border-radius: 10px;
  padding: 7px 10px;
}
.along {
  margin: 4px 0;
  color: var(--ink-2);
}
.drives {
  color: var(--look);
  font-weight: 600;
}
.who {
  font-weight: 600;
}
select {
  min-width: 0;
}
small {
  color: var(--ink-2);
}
.keep {
  display: flex;
  gap: 7px;
  margin: 12px 0 10px;
}
h3 {
  font-size: 13px;
  margin: 0 0 5px;
}
</style>

<style>
/* Beside the picture, which shows what the link would do. */
.see-through {
  background: none;
}
.el-dialog.link-beside {
  margin: 54px 10px 0 auto;
  box-shadow: 0 8px 40px #0003;
}
</style>
