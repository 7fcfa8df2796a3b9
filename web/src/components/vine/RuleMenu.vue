<script setup lang="ts">
/** The last place of the vine: put another rule on, from small pictures of what it does, or ready-made. */
import { computed, ref, watch } from "vue";
import { isDial, isFigure } from "@/api/kinds";
import type { RuleWords } from "@/api/types";
import PopUp from "@/components/common/PopUp.vue";
import { narrowed } from "@/geometry/finding";
import FindField from "@/components/common/FindField.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { RouterLink } from "vue-router";
import FollowChainDialog from "@/components/vine/FollowChainDialog.vue";
import RulePicture from "@/components/vine/RulePicture.vue";
import { newId } from "@/api/ids";
import { useRules } from "@/composables/rules/useRules";
import { useLinking } from "@/stores/linking";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const vocabulary = useVocabulary();
const rules = useRules();
const selection = useSelection();
const scene = useScene();
const linking = useLinking();
const open = ref(false);
const chaining = ref(false);
/** What the picked channel holds that rules act on. */
const acted = computed((): RuleWords["of"] => {
  const unit = selection.channel?.unit;
  return unit === "colour" || unit === "outline" || unit === "look" ? unit : "number";
});
const words = computed(() =>
  (vocabulary.words?.rules ?? [])
    .filter((one) =>
      acted.value === "outline"
        ? one.on_outlines
        : one.of === acted.value && (!one.joints || isFigure(selection.thing)),
    )
    // What bends comes before what only reads at other times.
    .sort((a, b) => Number(b.of === "outline") - Number(a.of === "outline")),
);
const presets = computed(() => {
  const kinds = new Set((vocabulary.words?.rules ?? []).filter((one) => one.of === acted.value).map((one) => one.kind));
  return (vocabulary.words?.presets ?? []).filter((one) => kinds.has(one.kind));
});
/** What is left of both while something is typed: by their names and by what they say of themselves. */
const typed = ref("");
const listed = computed(() => narrowed(words.value, typed.value));
const readyMade = computed(() => narrowed(presets.value, typed.value));
watch(open, () => (typed.value = ""));
function addFirst(): void {
  const [rule, preset] = [listed.value[0], readyMade.value[0]];
  if (rule) void add(rule.kind);
  else if (preset) void add(preset.kind, preset.settings, preset.moves, preset.loops);
}
/** Something else to begin a link with: the object below, or a dial. */
const other = computed(() => scene.objects.find((one) => one.id !== selection.objectId) ?? scene.dials[0]);
function link(): void {
  const [to, channel, from] = [selection.objectId, selection.channel, other.value];
  open.value = false;
  if (to && channel && from)
    linking.asked = {
      from: { object: from.id, channel: isDial(from) ? "value" : channel.name },
      to: { object: to, channel: channel.name },
    };
}

/** Only an object without a parent is on the ground by itself. */
const onGround = computed(() => Boolean(selection.object) && !selection.object?.parent);
function groundShadow(): void {
  open.value = false;
  if (selection.object)
    void scene.edit([{ edit: "ground-shadow", object: selection.object.id, id: `shadow-${newId()}` }]);
}

async function add(
  kind: string,
  settings: Record<string, number | string> = {},
  moves: Record<string, [number, number][]> = {},
  loops = false,
): Promise<void> {
  const found = words.value.find((one) => one.kind === kind);
  open.value = false;
  if (found) await rules.add(found, settings, moves, loops);
}
</script>

<template>
  <PopUp v-model:visible="open" :width="760" placement="top">
    <template #reference>
      <button
        class="add"
        data-open="rules"
        title="Put a rule on: it changes the motion and leaves the keys alone"
        aria-label="Add a rule"
      >
        <VineIcon name="add" />
      </button>
    </template>
    <div class="line" data-menu="rules">
      <h3>Add a rule</h3>
      <FindField v-model="typed" label="Find a rule" @take="addFirst" />
    </div>
    <p v-if="!listed.length && !readyMade.length" class="none">No matches. Try fewer letters.</p>
    <div class="choices">
      <button v-for="rule in listed" :key="rule.kind" :title="rule.about" @click="add(rule.kind)">
        <RulePicture :before="rule.before" :after="rule.after" :drawn="rule.drawn" :shown="rule.shown" />
        <strong>{{ rule.label }}</strong>
        <span>{{ rule.about }}</span>
      </button>
    </div>
    <div class="line">
      <h3>Ready-made</h3>
      <span>
        <button
          v-if="acted === 'number' && other"
          class="chip small"
          title="Link this value to another one: copy, gear, mirror, map a range, delay…"
          @click="link"
        >
          Link by hand…
        </button>
        <button
          v-if="acted === 'number'"
          class="chip small"
          title="Makes a row of objects follow this one, each a little later than the previous one"
          @click="((open = false), (chaining = true))"
        >
          Follow down a chain…
        </button>
        <button
          v-if="acted === 'look' && onGround"
          class="chip small"
          title="An ellipse on the ground that follows the object, and shrinks and fades with height, by links you can edit"
          @click="groundShadow"
        >
          Soft shadow on the ground
        </button>
        <RouterLink to="/principles" class="chip small" title="What animators have long known, and the rules that do it"
          >Principles</RouterLink
        >
      </span>
    </div>
    <div class="presets">
      <button
        v-for="preset in readyMade"
        :key="preset.name"
        class="chip small"
        :title="preset.about"
        @click="add(preset.kind, preset.settings, preset.moves, preset.loops)"
      >
        {{ preset.label }}
      </button>
    </div>
  </PopUp>
  <FollowChainDialog
    v-if="chaining && selection.thing && selection.channel"
    v-model="chaining"
    :leader="selection.thing"
    :channel="selection.channel"
  />
</template>

<style scoped>
.add {
  flex: none;
  align-self: stretch;
  width: 40px;
  min-height: 96px;
  border: 1.5px dashed #b9ad93;
  border-radius: 14px;
  background: none;
  cursor: pointer;
  display: grid;
  place-items: center;
  color: var(--ink-2);
  position: relative;
}
.add:hover {
  background: var(--paper);
  border-color: var(--travel);
  color: var(--travel);
}
h3 {
  font-size: 13px;
  margin: 0 0 6px;
}
.choices {
  grid-template-columns: repeat(auto-fill, minmax(112px, 1fr));
  /* Above, so that the ring around the field that is typed into is whole. */
  margin-block: 6px 10px;
  max-height: min(52vh, 430px);
  overflow-y: auto;
}
.choices button {
  align-content: start;
  padding: 6px;
}
.choices span {
  font-size: 11px;
  line-height: 1.25;
  color: var(--ink-2);
  text-align: center;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.line span {
  display: flex;
  gap: 5px;
}
.line a {
  text-decoration: none;
  color: inherit;
}
.none {
  color: var(--ink-2);
  margin: 4px 0;
}
.presets {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
</style>
