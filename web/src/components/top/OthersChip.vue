<script setup lang="ts">
/** Who else has this scene open, and what they did last; nothing while one is alone. */
import "element-plus/es/components/popover/style/css";
import { computed } from "vue";
import PopUp from "@/components/common/PopUp.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useOthers } from "@/stores/others";

const others = useOthers();
const says = computed(() => {
  const names = others.list.map((page) => page.name).join(", ");
  return `${names} ${others.list.length === 1 ? "has" : "have"} this scene open too`;
});
const time = (at: Date): string => at.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
const rename = (event: Event): void => void (others.name = (event.target as HTMLInputElement).value.trim());
</script>

<template>
  <div v-if="others.list.length" class="others">
    <PopUp :width="290" placement="bottom-end">
      <template #reference>
        <button class="who" :title="says" :aria-label="says">
          <VineIcon name="others" /><span>{{ others.list.length + 1 }}</span>
        </button>
      </template>
      <div class="panel">
        <h3>On this scene now</h3>
        <ul class="pages">
          <li v-for="page in others.list" :key="page.id">{{ page.name }}</li>
          <li>
            <label>
              you, called
              <input :value="others.name" :placeholder="others.me" maxlength="40" @change="rename" />
            </label>
          </li>
        </ul>
        <h3>Changes by others</h3>
        <p v-if="!others.done.length" class="hint">
          None yet. Changes appear at once on all pages; undo affects only your own.
        </p>
        <ol v-else class="done">
          <li v-for="one in others.done" :key="+one.at">
            <span class="when">{{ time(one.at) }}</span> <b>{{ one.who }}</b>: {{ one.what }}
          </li>
        </ol>
      </div>
    </PopUp>
    <p class="latest" role="status">
      <template v-if="others.latest"
        ><b>{{ others.latest.who }}</b
        >: {{ others.latest.what }}</template
      >
    </p>
  </div>
</template>

<style scoped>
.others {
  position: relative;
}
.who {
  display: flex;
  align-items: center;
  gap: 3px;
  height: 30px;
  padding: 0 7px;
  border: 1px solid var(--travel);
  border-radius: 99px;
  background: var(--paper);
  color: var(--travel);
  font: 600 12.5px var(--mono);
  cursor: pointer;
}
.latest {
  position: absolute;
  /* Below what the page itself says. */
  top: 92px;
  right: 0;
  z-index: 20;
  max-width: 340px;
  margin: 0;
  padding: 4px 10px;
  border-radius: 99px;
  background: var(--ink);
  color: var(--paper);
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  pointer-events: none;
}
.latest:empty {
  display: none;
}
.panel h3 {
  margin: 0 0 6px;
  font: 700 13px var(--heading);
  color: var(--ink);
}
.pages,
.done {
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
  color: var(--ink);
}
.pages li {
  padding: 2px 0;
}
.pages input {
  width: 130px;
  padding: 2px 6px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.done {
  max-height: 220px;
  overflow: auto;
}
.done li {
  padding: 2px 0;
}
.when {
  color: var(--ink-2);
  font: 12px var(--mono);
}
.hint {
  margin: 0;
  color: var(--ink-2);
}
</style>
