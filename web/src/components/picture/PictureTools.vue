<script setup lang="ts">
import AddMenu from "@/components/cast/AddMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useSelection } from "@/stores/selection";

const selection = useSelection();
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Tools" aria-orientation="vertical">
    <button :class="{ on: selection.tool === 'pick' }" :aria-pressed="selection.tool === 'pick'" title="Pick, move, turn and size (V)" aria-label="Pick and move" @click="selection.tool = 'pick'"><VineIcon name="pick" solid /></button>
    <button :class="{ on: selection.tool === 'pivot' }" :aria-pressed="selection.tool === 'pivot'" title="Move the pivot; the picture stays (P)" aria-label="Move the pivot" @click="selection.tool = 'pivot'"><VineIcon name="pivot" /></button>
    <button :class="{ on: selection.tool === 'path' }" :aria-pressed="selection.tool === 'path'" title="Draw and bend paths (W)" aria-label="Draw and bend paths" @click="selection.tool = 'path'"><VineIcon name="path" /></button>
    <button :class="{ on: selection.tool === 'link' }" :aria-pressed="selection.tool === 'link'" title="Link: drag from what drives onto what it shall drive (D)" aria-label="Link by hand" @click="selection.tool = 'link'"><VineIcon name="link" /></button>
    <button v-if="selection.thing?.kind === 'figure' || selection.tool === 'joints'" :class="{ on: selection.tool === 'joints' }" :aria-pressed="selection.tool === 'joints'" title="Joints: drag them where they rest (J)" aria-label="Shape the joints" @click="selection.tool = 'joints'"><VineIcon name="joints" /></button>
    <AddMenu placement="right-start"><button title="Put something new into the picture (N)" aria-label="Add to the picture"><VineIcon name="add" /></button></AddMenu>
  </div>
</template>

<style scoped>
.tools { position: absolute; left: 12px; top: 14px; display: grid; gap: 7px; }
button { width: 34px; height: 34px; border: 1px solid var(--line); border-radius: 50%; background: var(--paper); display: grid; place-items: center; cursor: pointer; }
.on { background: var(--travel); color: var(--paper); border-color: var(--travel); }
</style>
