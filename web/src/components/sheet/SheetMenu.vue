<script setup lang="ts">
/** What can be done on the time sheet without a leaf picked: see more or less, pick many, delete many. */
import { ElDropdownItem } from "element-plus";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import type { Scope } from "@/composables/keys/useKeyScopes";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useSelection } from "@/stores/selection";
import { useTimeView } from "@/stores/timeView";

const selection = useSelection();
const picks = usePicks();
const playback = usePlayback();
const time = useTimeView();
const leaf = useLeafActions();

function choose(command: string): void {
  const [what, scope] = command.split(" ") as [string, Scope];
  if (what === "pick") leaf.pickAll(scope);
  else if (what === "delete") void leaf.remove(leaf.within(scope));
  else if (what === "only") selection.onlyMoving = !selection.onlyMoving;
  else if (what === "copies") selection.copyLanes = !selection.copyLanes;
  else if (what === "fit") time.fit();
  else if (what === "keys" && picks.frames.length) time.show(picks.frames[0]!, picks.frames.at(-1)!);
  else if (what === "in") time.zoomBy(1.5);
  else if (what === "out") time.zoomBy(1 / 1.5);
}
</script>

<template>
  <PopUpMenu @command="choose">
    <button
      class="round more"
      aria-label="More for the time sheet"
      title="Zoom, pick and delete many leaves, leave out what has no keys"
    >
      <VineIcon name="more" />
    </button>
    <template #items>
      <ElDropdownItem command="only"
        ><span role="menuitemcheckbox" :aria-checked="selection.onlyMoving">{{
          selection.onlyMoving ? "Show objects without keys" : "Only keyed objects"
        }}</span></ElDropdownItem
      >
      <ElDropdownItem command="copies"
        ><span role="menuitemcheckbox" :aria-checked="selection.copyLanes">{{
          selection.copyLanes ? "Hide the keys of copies" : "Show the keys of copies"
        }}</span></ElDropdownItem
      >
      <ElDropdownItem divided command="in">Zoom in at the playhead <kbd>i</kbd></ElDropdownItem>
      <ElDropdownItem command="out">Zoom out <kbd>o</kbd></ElDropdownItem>
      <ElDropdownItem command="fit">Show the whole scene <kbd>u</kbd></ElDropdownItem>
      <ElDropdownItem command="keys" :disabled="!picks.frames.length"
        >Show the picked leaves <kbd>y</kbd></ElDropdownItem
      >
      <ElDropdownItem divided command="pick frame">Pick all leaves on frame {{ playback.frame }}</ElDropdownItem>
      <ElDropdownItem command="pick row" :disabled="!selection.thing"
        >Pick all of {{ selection.row?.name ?? "the row" }}</ElDropdownItem
      >
      <ElDropdownItem command="pick object" :disabled="!selection.thing"
        >Pick all of {{ selection.thing?.name ?? "the object" }}</ElDropdownItem
      >
      <ElDropdownItem command="pick scene">Pick all of the scene</ElDropdownItem>
      <ElDropdownItem divided command="delete row" :disabled="!selection.thing || !leaf.within('row').length"
        >Delete all keys of {{ selection.row?.name ?? "the row" }}…</ElDropdownItem
      >
      <ElDropdownItem command="delete object" :disabled="!selection.thing || !leaf.within('object').length"
        >Delete all keys of {{ selection.thing?.name ?? "the object" }}…</ElDropdownItem
      >
      <ElDropdownItem command="delete scene" :disabled="!leaf.within('scene').length"
        >Delete all keys of the scene…</ElDropdownItem
      >
    </template>
  </PopUpMenu>
</template>

<style scoped>
.more {
  width: 24px;
  height: 24px;
}
kbd {
  margin-left: 12px;
  color: var(--ink-3);
  font: 12px var(--mono);
}
</style>
