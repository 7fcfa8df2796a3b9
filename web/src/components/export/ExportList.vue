<script setup lang="ts">
/** All exports that wait, are under way or are kept: watched, stopped, put first, fetched, run again, removed. */
import { ElProgress } from "element-plus";
import { onMounted } from "vue";
import type { ExportReport } from "@/api/types";
import { bytesText, secondsText } from "@/geometry/amounts";
import { fileOf, goesOn, useExports } from "@/stores/exports";

const exports = useExports();
onMounted(exports.look);

const percent = (one: ExportReport): number => Math.round((100 * one.done) / Math.max(1, one.total));
const when = (one: ExportReport): string =>
  new Date(one.asked).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
/** What was asked for beyond the usual, in words. */
function asked(one: ExportReport): string {
  const o = one.options as Record<string, unknown>;
  const words = [one.label];
  if (o["scale"] !== 1) words.push(`${Math.round(Number(o["scale"]) * 100)} %`);
  if (o["first"] || o["last"] !== null) words.push(`frames ${o["first"] ?? 0}–${o["last"] ?? "end"}`);
  if (o["fps"] !== null) words.push(`${o["fps"]} a second`);
  if (o["background"] !== "usual") words.push(`background ${o["background"]}`);
  return words.join(" · ");
}
function state(one: ExportReport): string {
  switch (one.state) {
    case "waiting":
      return one.place === 1 ? "next" : `waits, number ${one.place}`;
    case "running":
      return `${one.done} of ${one.total}${one.left === null ? "" : `, ${secondsText(one.left)} left`}`;
    case "done":
      return bytesText(one.size ?? 0);
    case "cancelled":
      return "stopped; nothing was kept";
    default:
      return one.error ?? one.state;
  }
}
</script>

<template>
  <p v-if="!exports.list.length" class="empty">
    No exports yet. Exports are listed here with their options, so that you can download or repeat them.
  </p>
  <ul v-else class="list" aria-label="Exports">
    <li v-for="one in exports.list" :key="one.id" :class="one.state">
      <img v-if="one.has_still" :src="`/api/exports/${one.id}/still`" alt="" loading="lazy" />
      <span v-else class="still" aria-hidden="true" />
      <div class="what">
        <strong>{{ one.name }}</strong>
        <span>{{ asked(one) }}</span>
        <span class="when"
          >{{ when(one)
          }}<template v-if="one.current === false && one.state === 'done'"> · changed since</template></span
        >
        <ul v-if="one.remarks.length" class="remarks">
          <li v-for="line in one.remarks" :key="line">{{ line }}</li>
        </ul>
      </div>
      <div class="how" aria-live="polite">
        <ElProgress
          v-if="one.state === 'running'"
          :percentage="percent(one)"
          :stroke-width="8"
          :show-text="false"
          :aria-label="one.name"
        />
        <span :class="{ problem: one.state === 'failed' || one.state === 'stopped' }">{{ state(one) }}</span>
      </div>
      <div class="buttons">
        <a v-if="one.state === 'done'" class="chip small" :href="fileOf(one)" :download="one.name">Save</a>
        <button v-if="one.state === 'waiting' && (one.place ?? 0) > 1" class="chip small" @click="exports.first(one)">
          Make next
        </button>
        <button v-if="goesOn(one)" class="chip small" :aria-label="`Stop ${one.name}`" @click="exports.cancel(one)">
          Stop
        </button>
        <template v-else>
          <button
            class="chip small"
            :disabled="one.current === null"
            :title="
              one.current === null
                ? 'Its scene was deleted'
                : 'Export again with the same options, from the current scene'
            "
            @click="exports.again(one)"
          >
            Run again
          </button>
          <button
            class="chip small"
            title="Take it out of this list, with its file"
            :aria-label="`Remove ${one.name}`"
            @click="exports.forget(one)"
          >
            Remove
          </button>
        </template>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.empty {
  color: var(--ink-2);
  text-align: center;
  padding: 60px 20px;
  margin: 0;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  align-content: start;
  overflow-y: auto;
  height: 100%;
}
.list > li {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) 190px auto;
  gap: 12px;
  align-items: center;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 6px 10px;
}
img,
.still {
  width: 96px;
  height: 54px;
  object-fit: contain;
  background: var(--paper-2);
  border-radius: var(--radius-s);
}
.what {
  display: grid;
  gap: 1px;
  font-size: 12.5px;
  color: var(--ink-2);
}
.what strong {
  color: var(--ink);
  font-size: 13.5px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.how {
  font-size: 12.5px;
}
.buttons {
  display: flex;
  gap: 5px;
}
a.chip {
  text-decoration: none;
  color: inherit;
}
.remarks {
  margin: 2px 0 0;
  padding-left: 16px;
}
.problem {
  color: #8f1f3c;
}
</style>
