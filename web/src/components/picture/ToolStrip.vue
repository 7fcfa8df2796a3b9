<script setup lang="ts">
/** What can be done with a tool, in a strip above the picture. */
defineProps<{ label: string }>();
</script>

<template>
  <div class="strip" role="toolbar" :aria-label="label"><slot /></div>
</template>

<style scoped>
.strip {
  position: absolute;
  left: 50%;
  top: calc(var(--guide, 0px) + 10px);
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 5px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 99px;
  padding: 4px 12px 4px 14px;
  box-shadow: 0 4px 18px #5a4a2033;
  white-space: nowrap;
  max-width: calc(100% - 110px);
  overflow-x: auto;
}
.strip :deep(.chip) {
  padding: 2px 9px;
  font-size: 12px;
}
.strip :deep(strong),
.strip :deep(span) {
  font-size: 12.5px;
}
.strip :deep(.ways) {
  display: flex;
  background: var(--paper-3);
  border-radius: 99px;
  padding: 2px;
}
.strip :deep(.ways button) {
  border: 0;
  background: none;
  border-radius: 99px;
  padding: 1px 9px;
  cursor: pointer;
  font-size: 12px;
}
.strip :deep(.ways .on) {
  background: var(--paper);
  font-weight: 600;
}
</style>
