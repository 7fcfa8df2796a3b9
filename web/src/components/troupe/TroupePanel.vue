<script setup lang="ts">
/** The objects of the scene, the foremost at the top, those that are attached to another under it. */
import { ref } from "vue";
import AddMenu from "@/components/troupe/AddMenu.vue";
import InsideItem from "@/components/troupe/InsideItem.vue";
import TroupeItem from "@/components/troupe/TroupeItem.vue";
import HangDialog from "@/components/troupe/HangDialog.vue";
import CuesPanel from "@/components/cues/CuesPanel.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import DialsPanel from "@/components/dials/DialsPanel.vue";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { useRowsInView } from "@/composables/sheet/useRowsInView";
import { useSeveral } from "@/composables/several/useSeveral";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { useTroupeTree } from "@/composables/useTroupeTree";
import type { SceneObject } from "@/api/types";
import { usePanels } from "@/stores/panels";
import { useSelection } from "@/stores/selection";

const panels = usePanels();
const selection = useSelection();
const troupe = useTroupe();
const several = useSeveral();
const hanging = ref<string | null>(null);
const hangMounted = useOnceTrue(() => hanging.value !== null);
const dragged = ref<string | null>(null);
const { entries } = useTroupeTree();

/** Lines are so high, and this many of them are there beyond both ends of what is seen. */
const [LINE, BEYOND] = [36, 30];
const { shown, containerProps, wrapperProps } = useRowsInView(() => entries.value, {
  heightOf: () => LINE,
  beyond: BEYOND,
  isPicked: (entry) => !entry.inside && entry.thing.id === selection.objectId,
  picked: () => selection.objectId,
});

/** Drop what is dragged before, after or onto another. */
function drop(target: SceneObject, where: "before" | "after" | "onto"): void {
  const id = dragged.value;
  dragged.value = null;
  if (!id || id === target.id) return;
  // One of several that are picked takes the others along.
  const together = selection.several && selection.picked.includes(id);
  if (where === "onto") {
    void (together ? several.hangOn(target.id) : troupe.hangOn(id, target.id));
    return;
  }
  // The list shows the front first, so what is above the other here is in front of it.
  void troupe.order(together ? selection.picked : [id], where === "before" ? "before" : "behind", target.id);
}
</script>

<template>
  <section class="troupe" aria-label="Troupe">
    <div class="panel-head">
      <h2>Troupe</h2>
      <span class="heads">
        <button
          class="round small"
          title="Find an object, dial, value or command by name (Ctrl+K)"
          aria-label="Find anything"
          @click="panels.finding = true"
        >
          <VineIcon name="find" />
        </button>
        <AddMenu
          ><button class="round small" title="Add an object (N)" aria-label="Add an object">
            <VineIcon name="add" /></button
        ></AddMenu>
      </span>
    </div>
    <div v-if="entries.length" v-bind="containerProps" class="list">
      <ul
        v-bind="wrapperProps"
        role="tree"
        aria-label="Objects, the foremost first"
        aria-multiselectable="true"
        tabindex="-1"
      >
        <template
          v-for="{ row: { thing, depth, parts, inside } } in shown"
          :key="inside ? `${thing.id} ${inside.id}` : thing.id"
        >
          <InsideItem v-if="inside" :use="thing.id" :part="inside" :depth="depth" />
          <TroupeItem
            v-else
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
        </template>
      </ul>
    </div>
    <div v-else class="empty">
      <p>No objects yet. Objects that you add are listed here.</p>
      <AddMenu placement="right-start"
        ><button class="primary"><VineIcon name="add" /> Add an object</button></AddMenu
      >
    </div>
    <DialsPanel />
    <CuesPanel />
    <HangDialog v-if="hangMounted" v-model="hanging" />
    <p v-if="selection.thing" class="sr-only" aria-live="polite">{{ selection.thing.name }} is picked</p>
  </section>
</template>

<style scoped>
.heads {
  display: flex;
}
.troupe {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--line);
  background: var(--paper);
}
h2 {
  font-size: 13px;
}
.small {
  width: 26px;
  height: 26px;
}
.list ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list {
  padding: 0 6px 8px;
  overflow-y: auto;
  flex: 1;
  min-height: 72px;
}
.empty {
  padding: 16px;
  text-align: center;
  color: var(--ink-2);
}
</style>
