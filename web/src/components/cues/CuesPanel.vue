<script setup lang="ts">
/** The cues of the scene: stretches that a key press or a click starts while the picture waits. */
import { ElDropdownItem } from "element-plus";
import { ref } from "vue";
import type { Cue } from "@/api/types";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import CueDialog from "@/components/cues/CueDialog.vue";
import LayDialog from "@/components/cues/LayDialog.vue";
import { useCues } from "@/composables/useCues";
import { keyName } from "@/geometry/keyNames";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const live = useLive();
const scene = useScene();
const playback = usePlayback();
const cues = useCues();
/** The cue in the dialog: one there is, or a new one. */
const editing = ref<Cue | null>(null);
const PLAYS = { once: "once", loop: "round and round", held: "while held" } as const;

function choose(command: string, cue: Cue): void {
  if (command === "edit") editing.value = cue;
  else if (command === "remove") void scene.edit([{ edit: "delete-cue", id: cue.id }]);
  else playback.setRange(cue.first, cue.last);
}
const about = (cue: Cue): string =>
  `${cue.name}: frames ${cue.first} to ${cue.last}, ${PLAYS[cue.plays ?? "once"]}\nMoves ${cue.objects?.map((id) => scene.byId.get(id)?.name).join(", ") || "nobody yet"}\nClick to change it`;
</script>

<template>
  <section class="cues" aria-label="Cues">
    <div class="panel-head">
      <h2>Cues</h2>
      <span>
        <button
          class="chip small"
          :disabled="!live.cues.length"
          title="The picture waits, and cues run their stretch as you press their keys (X)"
          @click="live.begin()"
        >
          Play live
        </button>
        <button
          class="round small"
          title="Add a cue: a range of the timeline started by a key or click"
          aria-label="Add a cue"
          @click="editing = cues.fresh()"
        >
          <VineIcon name="add" />
        </button>
      </span>
    </div>
    <ul v-if="live.cues.length" aria-label="Cues">
      <li v-for="cue in live.cues" :key="cue.id" class="cue" :class="{ runs: live.running.has(cue.id) }">
        <button class="row" :title="about(cue)" @click="editing = cue">
          <kbd>{{ cue.key ? keyName(cue.key) : cue.click ? "●" : "–" }}</kbd>
          <span class="name" dir="auto">{{ cue.name }}</span>
          <span class="span">{{ cue.first }}–{{ cue.last }}</span>
        </button>
        <PopUpMenu placement="bottom-end" @command="choose($event, cue)">
          <button class="tiny" :aria-label="`More for the cue ${cue.name}`"><VineIcon name="more" /></button>
          <template #items>
            <ElDropdownItem command="edit">Change…</ElDropdownItem>
            <ElDropdownItem command="range">Play range from it</ElDropdownItem>
            <ElDropdownItem command="remove" divided>Delete</ElDropdownItem>
          </template>
        </PopUpMenu>
      </li>
    </ul>
    <p v-else class="empty">Ranges of the timeline started by a key press.</p>
    <CueDialog v-if="editing" :key="editing.id" :cue="editing" @close="editing = null" />
    <LayDialog v-if="live.recorded" />
  </section>
</template>

<style scoped>
.cues {
  border-top: 1px solid var(--line);
  flex: none;
  max-height: 30%;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
h2 {
  font-size: 13px;
}
.panel-head span {
  display: flex;
  gap: 4px;
  align-items: center;
}
.small.round {
  width: 26px;
  height: 26px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0 6px 6px;
  overflow-y: auto;
}
.cue {
  display: flex;
  align-items: center;
  border-radius: 99px 12px 12px 99px;
}
.cue:hover {
  background: var(--paper-2);
}
.runs {
  background: var(--travel-pale);
}
.row {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 8px;
  height: 30px;
  border: 0;
  background: none;
  padding: 0 4px 0 6px;
  cursor: pointer;
  text-align: left;
}
kbd {
  font: 700 12px var(--mono);
  background: var(--paper-3);
  border-radius: 6px;
  min-width: 28px;
  text-align: center;
  padding: 3px 2px;
  box-sizing: border-box;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.span {
  color: var(--ink-2);
  font: 11px var(--mono);
}
.tiny {
  display: none;
  width: 24px;
  height: 24px;
  border: 0;
  background: none;
  border-radius: 50%;
  place-items: center;
  cursor: pointer;
  color: var(--ink-2);
  padding: 0;
  margin-right: 4px;
}
.cue:hover .tiny,
.cue:focus-within .tiny {
  display: grid;
}
.empty {
  margin: 0;
  padding: 0 14px 10px;
  color: var(--ink-2);
  font-size: 12px;
}
</style>
