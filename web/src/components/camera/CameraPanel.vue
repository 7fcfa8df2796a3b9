<script setup lang="ts">
/** What the picked camera can do at once: ready-made moves, built from keys and rules that stay open to change. */
import { computed, ref } from "vue";
import { still } from "@/api/channels";
import { writtenAt } from "@/api/motion";
import { newRuleId } from "@/api/ids";
import type { Edit, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ thing: SceneObject }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const leader = ref("");

const now = (name: string): number => {
  const rows = scene.motion?.objects.get(props.thing.id)?.channels[name];
  return rows ? writtenAt(rows, playback.frame) : 0;
};
const key = (channel: string, frame: number, value: number, ease: "slow-out-in" | "snap" | "linear"): Edit => ({
  edit: "set-key",
  object: props.thing.id,
  channel,
  frame,
  value,
  ease,
});
const rule = (kind: string, channels: string[], settings: Record<string, number | string>): Edit => ({
  edit: "add-rule",
  object: props.thing.id,
  rule: {
    id: newRuleId(),
    kind,
    on: true,
    channels,
    mode: "add",
    settings: Object.fromEntries(
      Object.entries(settings).map(([name, value]) => [name, typeof value === "number" ? still(value) : value]),
    ),
  },
});

/** Slowly closer, from the playhead to the end. */
function pushIn(): void {
  const zoom = now("zoom");
  void scene.edit([
    key("zoom", playback.frame, zoom, "slow-out-in"),
    key("zoom", Math.max(playback.last, playback.frame + 1), zoom * 1.25, "linear"),
  ]);
  selection.pickRow("Zoom");
}
/** A little, all the time, as held by hand. */
function byHand(): void {
  const seed = Math.floor(Math.random() * 1000);
  void scene.edit([
    rule("noise", ["x", "y"], { amplitude: 7, frequency: 0.6, octaves: 2, seed }),
    rule("noise", ["rotation"], { amplitude: 0.5, frequency: 0.5, octaves: 2, seed: seed + 1 }),
  ]);
}
/** Very quickly to the side, by as much as is seen. */
function whip(): void {
  const seen = (scene.head?.size[0] ?? 1280) / Math.max(0.01, now("zoom"));
  void scene.edit([
    key("x", playback.frame, now("x"), "snap"),
    key("x", Math.min(playback.frame + 8, Math.max(playback.last, playback.frame + 1)), now("x") + seen, "linear"),
  ]);
  selection.pickRow("Travel", "x");
}
/** After something, a little later and softly. */
function follow(): void {
  if (!leader.value) return;
  void scene.edit([rule("follow", ["x", "y"], { leader: leader.value, delay: 6, spring: 1.2, damping: 1 })]);
  leader.value = "";
}
const leaders = computed(() => scene.objects.filter((one) => !one.parent && one.id !== props.thing.id));
</script>

<template>
  <div class="camera" role="group" aria-label="Camera">
    <div class="line">
      <button class="chip small" title="Slowly closer, from here to the end: two keys of Zoom" @click="pushIn">
        Slow push-in
      </button>
      <button class="chip small" title="Constant slight motion: noise on Travel and Rotation" @click="byHand">
        Hand-held
      </button>
      <button class="chip small" title="Very quickly to the side, from here: two keys of Travel" @click="whip">
        Whip pan
      </button>
    </div>
    <label title="Follows another object, a little later and softly (rule Follow)"
      >follow
      <select v-model="leader" aria-label="Object the camera follows" @change="follow">
        <option value="">whom…</option>
        <option v-for="one in leaders" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select></label
    >
    <p>
      On the <em>whole stage</em> (C) its frame can be dragged and sized. How far away things are is their
      <em>Depth</em>; the tab Depth shows all from the side.
    </p>
  </div>
</template>

<style scoped>
.camera {
  display: grid;
  gap: 6px;
  padding: 6px 14px;
  font-size: 12px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
label {
  display: flex;
  align-items: center;
  gap: 6px;
}
select {
  padding: 3px 6px;
  min-width: 0;
  max-width: 180px;
}
p {
  margin: 0;
  color: var(--ink-2);
}
</style>
