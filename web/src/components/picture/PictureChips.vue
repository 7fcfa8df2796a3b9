<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from "element-plus";
import { computed } from "vue";
import type { PictureView } from "@/composables/usePictureView";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView }>();
const selection = useSelection();
const percent = computed(() => `${Math.round(props.view.scale.value * 100)} %`);
const choose = (zoom: number | "fit"): void => (zoom === "fit" ? props.view.fit() : props.view.zoomTo(zoom));
</script>

<template>
  <div class="chips">
    <button class="chip" :class="{ on: selection.showPath }" role="switch" :aria-checked="selection.showPath" title="The way the picked object takes: one dot a frame, close where it is slow, wide where it is fast (T)" @click="selection.showPath = !selection.showPath">path &amp; spacing</button>
    <ElDropdown trigger="click" @command="choose">
      <button class="chip" title="Zoom: Ctrl and wheel, or choose here" aria-label="Zoom">{{ percent }}</button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="fit">Fit</ElDropdownItem>
          <ElDropdownItem v-for="z in [0.25, 0.5, 1, 2, 4]" :key="z" :command="z">{{ z * 100 }} %</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
  </div>
</template>

<style scoped>
.chips { position: absolute; right: 12px; bottom: 10px; display: flex; gap: 7px; }
.on { color: #a31f43; border-color: var(--playhead); }
</style>
