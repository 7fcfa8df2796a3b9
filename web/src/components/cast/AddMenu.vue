<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from "element-plus";
import { ref } from "vue";
import FigureDialog from "@/components/figures/FigureDialog.vue";
import OutlineDialog from "@/components/cast/OutlineDialog.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { KINDS, useCast } from "@/composables/useCast";

const props = defineProps<{ placement?: "right-start" | "bottom-end" }>();
const cast = useCast();
const [outlining, figuring] = [ref(false), ref(false)];

function choose(kind: string): void {
  if (kind === "outline") outlining.value = true;
  else if (kind === "figure") figuring.value = true;
  else void cast.add(kind);
}
</script>

<template>
  <ElDropdown trigger="click" :placement="props.placement ?? 'bottom-end'" @command="choose">
    <slot />
    <template #dropdown>
      <ElDropdownMenu aria-label="What to add">
        <ElDropdownItem v-for="kind in KINDS" :key="kind.kind" :command="kind.kind"><VineIcon :name="kind.icon" />&nbsp; {{ kind.label }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
  <FigureDialog v-model="figuring" />
  <OutlineDialog v-model="outlining" @done="cast.add('outline', $event)" />
</template>
