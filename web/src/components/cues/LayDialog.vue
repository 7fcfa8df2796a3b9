<script setup lang="ts">
/** After playing live: lay what was pressed down as keys, or forget it. */
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import { inSeconds } from "@/geometry/frames";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const live = useLive();
const scene = useScene();
const playback = usePlayback();
const wrong = ref("");
const presses = computed(() => live.recorded ?? []);
const lasts = computed(() => Math.max(...presses.value.map((one) => one.at + one.runs)));
/** After everything a cue plays, so that no stretch is written over. */
const start = ref(Math.max(scene.head?.length ?? 0, ...live.cues.map((one) => one.last + 1)));
const covers = computed(() =>
  live.cues.filter((one) => presses.value.some((press) => press.cue === one.id) && one.last >= start.value),
);
const nameOf = (id: string): string => live.cues.find((one) => one.id === id)?.name ?? "";

async function lay(): Promise<void> {
  const said = await scene.attempt([
    { edit: "lay-presses", start: Math.round(start.value), rest: live.rest, presses: [...presses.value] },
  ]);
  wrong.value = said ?? "";
  if (said !== null) return;
  live.recorded = null;
  playback.goTo(start.value);
}
</script>

<template>
  <ElDialog
    :model-value="true"
    title="Keep the performance as keys?"
    width="440"
    append-to-body
    @close="live.recorded = null"
  >
    <ol>
      <li v-for="(one, i) in presses" :key="i">
        <strong>{{ nameOf(one.cue) }}</strong> after {{ inSeconds(one.at, playback.fps) }}, {{ one.runs }} frames
      </li>
    </ol>
    <div class="line">
      <span>as keys from frame</span
      ><NumberField
        label="First frame of the keys"
        :value="start"
        :digits="0"
        :low="0"
        @change="start = Math.round($event)"
      /><span>to {{ start + lasts }}</span>
    </div>
    <p v-if="covers.length" class="warn">
      This writes over the stretch of {{ covers.map((one) => one.name).join(", ") }}.
    </p>
    <p v-else>Rules still act on these keys. The scene is made longer if needed.</p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="live.recorded = null">Forget it</button>
      <button class="primary" @click="lay">
        Lay down {{ presses.length }} {{ presses.length === 1 ? "press" : "presses" }}
      </button>
    </template>
  </ElDialog>
</template>

<style scoped>
ol {
  margin: 0 0 12px;
  padding-left: 22px;
  max-height: 180px;
  overflow-y: auto;
}
.line {
  display: grid;
  grid-template-columns: auto 90px 1fr;
  gap: 8px;
  align-items: center;
}
p {
  margin: 8px 0 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
.warn {
  color: #8a4b00;
  font-weight: 600;
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
