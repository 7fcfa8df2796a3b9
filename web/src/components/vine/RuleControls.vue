<script setup lang="ts">
/** What a rule's card offers: on or off, its settings, its place, copies, removal. */
import { ElDropdownItem } from "element-plus";
import { computed, ref } from "vue";
import type { ChannelWords, Rule, SceneObject } from "@/api/types";
import PopUp from "@/components/common/PopUp.vue";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import RuleCopyDialog from "@/components/vine/RuleCopyDialog.vue";
import RuleSettings from "@/components/vine/RuleSettings.vue";
import { useRules } from "@/composables/rules/useRules";

const props = defineProps<{ thing: SceneObject; rule: Rule; channel: ChannelWords }>();
const rules = useRules();
const list = computed(() => rules.onChannel(props.thing, props.channel.name));
const place = computed(() => list.value.indexOf(props.rule));
const copying = ref(false);

function choose(command: string): void {
  if (command === "left") void rules.move(props.thing, props.rule, props.channel.name, -1);
  else if (command === "right") void rules.move(props.thing, props.rule, props.channel.name, 1);
  else if (command === "duplicate") void rules.duplicate(props.thing, props.rule);
  else if (command === "remove") void rules.remove(props.rule);
  else copying.value = true;
}
</script>

<template>
  <PopUp :width="424" placement="top-start">
    <template #reference
      ><button class="chip small" :aria-label="`Set: settings of ${rules.wordsOf(rule)?.label}`">Set</button></template
    >
    <RuleSettings :thing="thing" :rule="rule" :channel="channel" />
  </PopUp>
  <button
    class="switch"
    role="switch"
    :aria-checked="rule.on"
    :class="{ on: rule.on }"
    :title="rule.on ? 'Turn this rule off' : 'Turn this rule on'"
    :aria-label="`${rules.wordsOf(rule)?.label} on`"
    @click="rules.toggle(rule)"
  />
  <PopUpMenu max-height="320" @command="choose">
    <button class="round more" :aria-label="`More for ${rules.wordsOf(rule)?.label}`"><VineIcon name="more" /></button>
    <template #items>
      <ElDropdownItem command="left" :disabled="place <= 0">Earlier</ElDropdownItem>
      <ElDropdownItem command="right" :disabled="place >= list.length - 1">Later</ElDropdownItem>
      <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
      <ElDropdownItem command="remove">Remove</ElDropdownItem>
      <ElDropdownItem command="copy" divided>Copy to…</ElDropdownItem>
    </template>
  </PopUpMenu>
  <RuleCopyDialog v-if="copying" v-model="copying" :thing="thing" :rule="rule" :channel="channel" />
</template>

<style scoped>
.switch {
  width: 24px;
  height: 14px;
  border-radius: 99px;
  border: 1.5px solid #b9ad93;
  background: var(--paper-3);
  padding: 0;
  cursor: pointer;
  flex: none;
}
.switch.on {
  background: var(--travel);
  border-color: var(--travel);
}
.more {
  width: 22px;
  height: 22px;
}
</style>
