<script setup lang="ts">
/** The bar above everything: the scene and its state, the transport, and what opens beside the picture. */
import { computed } from "vue";
import { RouterLink } from "vue-router";
import VineIcon from "@/components/common/VineIcon.vue";
import InsideTrail from "@/components/top/InsideTrail.vue";
import OthersChip from "@/components/top/OthersChip.vue";
import SceneName from "@/components/top/SceneName.vue";
import TransportBar from "@/components/top/TransportBar.vue";
import { useExports } from "@/stores/exports";
import { useNotes } from "@/stores/notes";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const emit = defineEmits<{ export: []; settings: []; help: []; shortcuts: [] }>();
const scene = useScene();
const selection = useSelection();
const notes = useNotes();
const exports = useExports();
const rehearsals = useRehearsals();
const sounds = useSounds();
const soundTitle = computed(() => {
  const count = sounds.list.length;
  const said = count === 0 ? "none yet" : count === 1 ? "1 sound" : `${count} sounds`;
  return `Sound: ${said}; markers and the beat (Alt+S)`;
});
const rehearsalsTitle = computed(() => {
  const count = rehearsals.list.length;
  const said = count === 0 ? "none yet" : count === 1 ? "1 kept version" : `${count} kept versions`;
  return `Rehearsals: ${said} (Alt+R)`;
});
/** How far all that is being exported is, if anything is. */
const making = computed(() => {
  const total = exports.active.reduce((sum, one) => sum + one.total, 0);
  if (!total) return null;
  const percent = Math.round((100 * exports.active.reduce((sum, one) => sum + one.done, 0)) / total);
  return { percent, says: `Exporting: ${percent} % of ${exports.active.length} made` };
});
const notesTitle = computed(() => {
  const count = notes.list.length;
  const said = count === 0 ? "nothing to remark" : count === 1 ? "1 remark" : `${count} remarks`;
  return `Notes: ${said} on the motion (Alt+N)`;
});
const facts = computed(() => (scene.head ? [`${scene.head.fps} fps`, `${scene.head.length} frames`] : []));
</script>

<template>
  <header class="top" :class="{ inside: scene.whole }">
    <div class="side">
      <RouterLink to="/" class="brand" title="Back to the Shelf with all scenes" aria-label="Vine Swing">
        <img src="/icon.svg" alt="" width="26" height="26" />
        <span class="brand-name">Vine Swing</span>
      </RouterLink>
      <InsideTrail />
      <SceneName />
      <button
        v-if="scene.head"
        class="quiet state"
        :class="{ alarm: scene.state === 'not saved' }"
        title="Size, length, frames per second and background"
        :aria-label="`Scene settings: ${[scene.state, ...facts].join(' · ')}`"
        @click="emit('settings')"
      >
        <span aria-live="polite">{{ scene.state }}</span>
        <span v-for="fact in facts" :key="fact" class="fact">{{ ` · ${fact}` }}</span>
      </button>
    </div>
    <TransportBar />
    <div class="side end">
      <OthersChip />
      <button
        class="chip key-chip"
        :class="{ on: selection.keyAsIMove }"
        role="switch"
        :aria-checked="selection.keyAsIMove"
        title="On: moving an object sets keys at the playhead. Off: moving a keyed object is a trial until you key it. (M)"
        @click="selection.keyAsIMove = !selection.keyAsIMove"
      >
        <span class="dot" aria-hidden="true" /> key as I move
      </button>
      <button
        class="notes"
        :class="{ on: notes.open }"
        :aria-pressed="notes.open"
        :title="notesTitle"
        :aria-label="notesTitle"
        @click="notes.toggle()"
      >
        <VineIcon name="note" /><span v-if="notes.list.length">{{ notes.list.length }}</span>
      </button>
      <button
        class="notes"
        :class="{ on: rehearsals.open }"
        :aria-pressed="rehearsals.open"
        :title="rehearsalsTitle"
        :aria-label="rehearsalsTitle"
        @click="rehearsals.toggle()"
      >
        <VineIcon name="rehearsal" /><span v-if="rehearsals.list.length">{{ rehearsals.list.length }}</span>
      </button>
      <button
        class="notes"
        :class="{ on: sounds.open }"
        :aria-pressed="sounds.open"
        :title="soundTitle"
        :aria-label="soundTitle"
        @click="sounds.toggle()"
      >
        <VineIcon name="sound" /><span v-if="sounds.list.length">{{ sounds.list.length }}</span>
      </button>
      <span class="rule" aria-hidden="true" />
      <button
        class="round"
        :disabled="!scene.history.undo"
        :title="scene.history.undo ? `Undo: ${scene.history.undo} (Ctrl+Z)` : 'Nothing to undo'"
        aria-label="Undo"
        @click="scene.undo()"
      >
        <VineIcon name="undo" />
      </button>
      <button
        class="round"
        :disabled="!scene.history.redo"
        :title="scene.history.redo ? `Redo: ${scene.history.redo} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        aria-label="Redo"
        @click="scene.redo()"
      >
        <VineIcon name="redo" />
      </button>
      <a
        class="round"
        :href="`/api/scenes/${scene.id}/file`"
        download
        title="Save this scene as a file of its own"
        aria-label="Save as file"
        ><VineIcon name="file"
      /></a>
      <button
        class="round"
        title="Help: a guide by task, to read and to search (Shift+F1)"
        aria-label="Help"
        @click="emit('help')"
      >
        <VineIcon name="help" />
      </button>
      <button
        class="round"
        title="All keyboard shortcuts (?)"
        aria-label="Keyboard shortcuts"
        @click="emit('shortcuts')"
      >
        <VineIcon name="keyboard" />
      </button>
      <button
        class="export"
        :class="{ busy: making }"
        :style="making ? { '--made': `${making.percent}%` } : {}"
        :title="making ? making.says : 'Films, pages, pictures and data of this scene (Ctrl+E)'"
        @click="emit('export')"
      >
        Export
      </button>
    </div>
  </header>
</template>

<style scoped>
.notes {
  display: flex;
  align-items: center;
  gap: 3px;
  height: 30px;
  padding: 0 7px;
  border: 1px solid transparent;
  border-radius: 99px;
  background: none;
  color: var(--ink-2);
  font: 600 12.5px var(--mono);
  cursor: pointer;
}
.notes:hover,
.notes.on {
  background: var(--look-pale);
  color: var(--ink);
}
.top {
  display: grid;
  grid-template-columns: minmax(0, auto) minmax(max-content, 1fr) max-content;
  align-items: center;
  gap: 12px;
  padding: 0 12px;
  height: 48px;
  border-bottom: 1px solid var(--line);
  background: var(--paper);
}
.side {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.end {
  justify-content: flex-end;
}
.top > :nth-child(2) {
  justify-self: center;
}
.brand {
  display: flex;
  align-items: center;
  gap: 8px;
  text-decoration: none;
  flex: none;
}
.brand-name {
  font: 700 16px var(--heading);
  color: var(--travel);
  white-space: nowrap;
}
.state {
  color: var(--ink-2);
  font-size: 12px;
  white-space: nowrap;
  /* A fact there is no room for goes to a second line, which is not seen: rather none than a part of it. */
  display: flex;
  flex-wrap: wrap;
  justify-content: start;
  column-gap: 4px;
  height: 26px;
  line-height: 26px;
  padding-block: 0;
  overflow: hidden;
  /* The facts give way to the scene's name; whether it is saved stays. A smaller factor would take a part of a pixel
     from the name, which is enough to cut it off. */
  flex: 0 9999 auto;
  min-width: 56px;
}
.alarm {
  color: var(--playhead);
  font-weight: 600;
}
.rule {
  width: 1px;
  height: 20px;
  background: var(--line);
}
.export.busy {
  background: linear-gradient(90deg, var(--travel) var(--made), #6f9a83 var(--made));
}
.export {
  border: 0;
  border-radius: 99px;
  background: var(--ink);
  color: var(--paper);
  padding: 7px 15px;
  cursor: pointer;
  font-weight: 500;
}
.key-chip {
  white-space: nowrap;
  color: var(--ink-2);
}
.key-chip.on {
  background: var(--playhead-pale);
  color: #a31f43;
  border-color: transparent;
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  border: 1.5px solid currentColor;
}
.on .dot {
  background: currentColor;
}
/* The way in takes the room. */
.inside .brand-name,
.inside .fact {
  display: none;
}
@media (max-width: 1400px) {
  .brand-name {
    display: none;
  }
}
@media (max-width: 1220px) {
  .fact {
    display: none;
  }
  .state {
    flex: none;
  }
  /* So that the scene keeps its name. */
  .end {
    gap: 1px;
  }
  .notes {
    padding: 0 4px;
  }
  .key-chip {
    padding-inline: 8px;
  }
}
</style>
