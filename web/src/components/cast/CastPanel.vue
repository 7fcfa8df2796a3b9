<script setup lang="ts">
/** The objects of the scene, the foremost at the top, those that hang on another under it. */
import { ref } from "vue";
import AddMenu from "@/components/cast/AddMenu.vue";
import CastItem from "@/components/cast/CastItem.vue";
import HangDialog from "@/components/cast/HangDialog.vue";
import CuesPanel from "@/components/cues/CuesPanel.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import DialsPanel from "@/components/dials/DialsPanel.vue";
import { useCast } from "@/composables/useCast";
import { useCastTree } from "@/composables/useCastTree";
import type { SceneObject } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const cast = useCast();
const hanging = ref<string | null>(null);
const dragged = ref<string | null>(null);
const { entries } = useCastTree();

/** Drop what is dragged before, after or onto another. */
function drop(target: SceneObject, where: "before" | "after" | "onto"): void {
  const id = dragged.value;
  dragged.value = null;
  if (!id || id === target.id) return;
  if (where === "onto") {
    void cast.hangOn(id, target.id);
    return;
  }
  const from = scene.objects.findIndex((one) => one.id === id);
  const to = scene.objects.findIndex((one) => one.id === target.id);
  // The list shows the front first, so "before" here is one place nearer to the front.
  const wanted = where === "before" ? to + 1 : to;
  cast.moveTo(id, wanted > from ? wanted - 1 : wanted);
}
</script>

<template>
  <section class="cast" aria-label="Cast">
    <div class="panel-head">
      <h2>Cast</h2>
      <AddMenu><button class="round small" title="Add an object (N)" aria-label="Add an object"><VineIcon name="add" /></button></AddMenu>
    </div>
    <ul v-if="entries.length" class="list" role="listbox" aria-label="Objects, the foremost first" tabindex="-1">
      <CastItem
        v-for="{ thing, depth, parts } in entries"
        :key="thing.id"
        :thing="thing"
        :depth="depth"
        :parts="parts"
        :folded="!selection.unfolded.has(thing.id)"
        :dragging="dragged"
        @fold="selection.fold(thing.id)"
        @hang="hanging = thing.id"
        @drag="dragged = $event"
        @drop="drop(thing, $event)"
      />
    </ul>
    <div v-else class="empty">
      <p>Nobody is on stage yet.</p>
      <AddMenu placement="right-start"><button class="primary"><VineIcon name="add" /> Add an object</button></AddMenu>
    </div>
    <DialsPanel />
    <CuesPanel />
    <HangDialog v-model="hanging" />
    <p v-if="selection.thing" class="sr-only" aria-live="polite">{{ selection.thing.name }} is picked</p>
  </section>
</template>

<style scoped>
.cast { display: flex; flex-direction: column; min-height: 0; border-right: 1px solid var(--line); background: var(--paper); }
h2 { font-size: 13px; }
.small { width: 26px; height: 26px; }
.list { list-style: none; margin: 0; padding: 0 6px 8px; overflow-y: auto; flex: 1; min-height: 72px; }
.empty { padding: 16px; text-align: center; color: var(--ink-2); }
</style>
