<script setup lang="ts">
/** All settings of a gait, beside the picture in which it walks. */
import { ElDialog } from "element-plus";
import { computed } from "vue";
import type { FigureObject, Rule } from "@/api/types";
import RuleSettings from "@/components/vine/RuleSettings.vue";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: FigureObject; rule: Rule }>();
const open = defineModel<boolean>({ required: true });
const vocabulary = useVocabulary();
const channel = computed(() => vocabulary.channelsOf(props.thing).find((one) => one.name === "hips.y")!);
</script>

<template>
  <ElDialog
    v-model="open"
    :title="`How ${thing.name} walks`"
    width="424"
    append-to-body
    draggable
    modal-class="see-through"
    class="link-beside gait-beside"
    :close-on-click-modal="false"
  >
    <RuleSettings :thing="thing" :rule="rule" :channel="channel" />
  </ElDialog>
</template>

<style>
.gait-beside .el-dialog__body {
  max-height: calc(100vh - 170px);
  overflow-y: auto;
}
</style>
