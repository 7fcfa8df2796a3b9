<script setup lang="ts">
/**
 * A setting of a rule that is a word: one of several choices, or the name of an object, a limb, a channel, a dial or a
 * colour.
 */
import { computed } from "vue";
import { holdsNumbers } from "@/api/channels";
import { isColourDial } from "@/api/dials";
import { isFigure } from "@/api/kinds";
import type { Rule, SceneObject, SettingWords } from "@/api/types";
import { useRules } from "@/composables/rules/useRules";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; rule: Rule; setting: SettingWords }>();
const emit = defineEmits<{ change: [value: string | null] }>();
const scene = useScene();
const vocabulary = useVocabulary();
const rules = useRules();

interface Choice {
  readonly value: string;
  readonly label: string;
}

/** The channels of the leader that can be followed. */
const leaderChannels = computed(() => {
  const leader = scene.byId.get(String(rules.settingOf(props.rule, "leader") ?? ""));
  return leader ? vocabulary.channelsOf(leader).filter(holdsNumbers) : [];
});

const choices = computed((): Choice[] => {
  switch (props.setting.names) {
    case "object":
      return [
        { value: "", label: "nobody" },
        ...scene.objects
          .filter((other) => other.id !== props.thing.id)
          .map((other) => ({ value: other.id, label: other.name })),
      ];
    case "limb":
      return [
        { value: "", label: "the first arm" },
        ...(isFigure(props.thing) ? props.thing.figure.limbs : []).map((limb) => ({
          value: limb.id,
          label: limb.name,
        })),
      ];
    case "channel":
      return [
        { value: "", label: "the same" },
        ...leaderChannels.value.map((other) => ({ value: other.name, label: `${other.row} ${other.label}` })),
      ];
    case "dial":
      return [
        { value: "", label: "none" },
        ...scene.dials
          .filter((dial) => isColourDial(dial.dial))
          .map((dial) => ({ value: dial.dial.id, label: dial.name })),
      ];
    default:
      return props.setting.choices.map((choice) => ({ value: choice, label: choice }));
  }
});
const value = computed(
  () => rules.settingOf(props.rule, props.setting.name) ?? (props.setting.choices.length ? props.setting.default : ""),
);
</script>

<template>
  <input
    v-if="setting.names === 'colour'"
    class="colour"
    :aria-label="setting.label"
    :value="value"
    placeholder="none: mixed towards the dial"
    spellcheck="false"
    @change="emit('change', ($event.target as HTMLInputElement).value.trim() || null)"
  />
  <select
    v-else
    :aria-label="setting.label"
    :value="value"
    @change="emit('change', ($event.target as HTMLSelectElement).value || null)"
  >
    <option v-for="choice in choices" :key="choice.value" :value="choice.value">{{ choice.label }}</option>
  </select>
</template>

<style scoped>
.colour {
  font: 12px var(--mono);
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 3px 6px;
  background: var(--paper);
}
select {
  min-width: 0;
}
</style>
