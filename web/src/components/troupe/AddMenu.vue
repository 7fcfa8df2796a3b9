<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from "element-plus";
import { ref } from "vue";
import ElementsDialog from "@/components/parades/ElementsDialog.vue";
import FigureDialog from "@/components/figures/FigureDialog.vue";
import OutlineDialog from "@/components/troupe/OutlineDialog.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { KINDS, useTroupe } from "@/composables/useTroupe";

const props = defineProps<{ placement?: "right-start" | "bottom-end" }>();
const troupe = useTroupe();
const [outlining, figuring, choosing] = [ref(false), ref(false), ref(false)];
const mounted = {
  element: useOnceTrue(() => choosing.value),
  outline: useOnceTrue(() => outlining.value),
  figure: useOnceTrue(() => figuring.value),
};

function choose(kind: string): void {
  if (kind === "outline") outlining.value = true;
  else if (kind === "figure") figuring.value = true;
  else if (kind === "element") choosing.value = true;
  else void troupe.add(kind);
}
</script>

<template>
  <ElDropdown trigger="click" :placement="props.placement ?? 'bottom-end'" @command="choose">
    <slot />
    <template #dropdown>
      <ElDropdownMenu aria-label="What to add">
        <ElDropdownItem v-for="kind in KINDS" :key="kind.kind" :command="kind.kind"
          ><VineIcon :name="kind.icon" />&nbsp; {{ kind.label }}</ElDropdownItem
        >
      </ElDropdownMenu>
    </template>
  </ElDropdown>
  <ElementsDialog v-if="mounted.element.value" v-model="choosing" />
  <FigureDialog v-if="mounted.figure.value" v-model="figuring" />
  <OutlineDialog v-if="mounted.outline.value" v-model="outlining" @done="troupe.add('outline', $event)" />
</template>
