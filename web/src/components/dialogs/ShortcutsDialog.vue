<script setup lang="ts">
/** All keyboard shortcuts, from the very table that is obeyed. */
import { ElDialog } from "element-plus";
import { computed } from "vue";
import type { Shortcut } from "@/composables/useShortcuts";
import { keyWords } from "@/geometry/keyWords";

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ shortcuts: readonly Shortcut[] }>();
const groups = computed(() => [...Map.groupBy(props.shortcuts, (one) => one.group)]);
/** Four arrows in a row are written as one word. */
const shown = (keys: readonly string[]): readonly string[] =>
  keys.length === 4 && keys.every((key) => key.includes("Arrow")) ? [keys[0]!.replace("ArrowLeft", "arrows")] : keys;
</script>

<template>
  <ElDialog v-model="open" title="Keyboard shortcuts" width="800">
    <div class="groups">
      <section v-for="[group, list] in groups" :key="group">
        <h3>{{ group }}</h3>
        <dl>
          <template v-for="one in list" :key="one.says">
            <dt>
              <template v-for="(key, i) in shown(one.keys)" :key="key"
                ><span v-if="i"> </span><kbd v-for="part in keyWords(key)" :key="part">{{ part }}</kbd></template
              >
            </dt>
            <dd>{{ one.says }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </ElDialog>
</template>

<style scoped>
.groups {
  columns: 2;
  column-gap: 28px;
}
section {
  break-inside: avoid;
  margin-bottom: 14px;
}
h3 {
  font-size: 13px;
  color: var(--travel);
  margin-bottom: 4px;
}
dl {
  display: grid;
  grid-template-columns: 128px 1fr;
  gap: 4px 10px;
  margin: 0;
  font-size: 13px;
}
dd {
  margin: 0;
}
kbd {
  font: 11.5px var(--mono);
  background: var(--paper-3);
  border-radius: 4px;
  padding: 1px 6px;
  margin-right: 3px;
  white-space: nowrap;
}
</style>
