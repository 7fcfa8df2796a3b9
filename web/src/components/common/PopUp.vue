<script setup lang="ts">
/**
 * What opens beside a button at a click. Its content exists only while it is open: hidden, it would be kept up to date
 * and measured all the same. Everything else that ElPopover takes is handed on.
 */
import { ElPopover } from "element-plus";
import { IN_WINDOW } from "@/components/common/inWindow";
</script>

<template>
  <ElPopover trigger="click" :hide-after="0" :persistent="false" :popper-options="IN_WINDOW">
    <template #reference><slot name="reference" /></template>
    <slot />
  </ElPopover>
</template>
