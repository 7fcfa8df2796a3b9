<script setup lang="ts">
/**
 * A menu that opens at a click on what it is put around. Its items exist only while it is open: hidden, they would be
 * kept up to date and measured all the same. Everything else that ElDropdown takes is handed on.
 */
import { ElDropdown, ElDropdownMenu } from "element-plus";
import { IN_WINDOW } from "@/components/common/inWindow";

defineProps<{
  /** How a reader of the screen calls the menu, unless by the button it belongs to. */
  readonly name?: string;
}>();
</script>

<template>
  <ElDropdown trigger="click" :persistent="false" :popper-options="IN_WINDOW" max-height="calc(100vh - 32px)">
    <slot />
    <template #dropdown>
      <ElDropdownMenu :aria-label="name"><slot name="items" /></ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
