<script setup lang="ts">
/** Putting an inset in: of a scene that is shown already, or of a new one. */
import { ElDialog } from "element-plus";
import { ref, watch } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import { useInsets } from "@/composables/useInsets";
import { useInside } from "@/stores/inside";
import { useScene } from "@/stores/scene";

const open = defineModel<boolean>({ required: true });
const scene = useScene();
const insets = useInsets();
const inside = useInside();
const [name, length, fps] = [ref(""), ref(48), ref(24)];
/** The inner scene to show again; null for a new one. */
const chosen = ref<string | null>(null);

const { offered } = insets;
watch(
  open,
  (now) => {
    if (!now) return;
    name.value = "";
    chosen.value = offered.value[0]?.id ?? null;
    [length.value, fps.value] = [scene.head?.length ?? 48, scene.head?.fps ?? 24];
  },
  { immediate: true },
);

async function done(): Promise<void> {
  open.value = false;
  const known = offered.value.find((one) => one.id === chosen.value);
  const id = await insets.add(name.value.trim() || known?.name || "Inset", chosen.value, length.value, fps.value);
  // There is nothing to see of an empty one yet.
  if (id && !known) inside.enter(id);
}
</script>

<template>
  <ElDialog v-model="open" title="Inset: a scene inside this one" width="460" append-to-body>
    <p>An inset has its own timeline. Several insets can show the same scene from different frames.</p>
    <div v-if="offered.length" class="choices" role="radiogroup" aria-label="Contents">
      <label v-for="one in offered" :key="one.id" :class="{ on: chosen === one.id }"
        ><input v-model="chosen" type="radio" :value="one.id" />
        <strong>{{ one.name }}</strong>
        <span>{{ one.length }} frames · shown {{ one.shown }} {{ one.shown === 1 ? "time" : "times" }}</span></label
      >
      <label :class="{ on: chosen === null }"
        ><input v-model="chosen" type="radio" :value="null" /> <strong>A new, empty scene</strong></label
      >
    </div>
    <div class="fields">
      <label
        >Name
        <input
          v-model="name"
          aria-label="Name of the inset"
          maxlength="80"
          :placeholder="offered.find((one) => one.id === chosen)?.name ?? 'Inset'"
          @keydown.enter="done"
      /></label>
      <template v-if="chosen === null">
        <NumberField
          label="Frames inside"
          :value="length"
          unit="frames"
          :step="1"
          :low="1"
          :high="20000"
          :digits="0"
          @change="length = Math.round($event)"
        />
        <NumberField
          label="Frames per second inside"
          :value="fps"
          unit="fps"
          :step="1"
          :low="1"
          :high="240"
          @change="fps = $event"
        />
      </template>
    </div>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" @click="done">
        {{ chosen === null ? "Make it and go inside" : "Add to the scene" }}
      </button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.choices {
  display: grid;
  gap: 5px;
  margin-bottom: 12px;
  max-height: 220px;
  overflow-y: auto;
}
.choices label {
  display: flex;
  align-items: center;
  gap: 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 6px 10px;
  cursor: pointer;
}
.choices .on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.choices span {
  color: var(--ink-2);
  font-size: 12px;
}
.fields {
  display: flex;
  gap: 12px;
  align-items: center;
}
.fields label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.fields input {
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 4px 8px;
  background: var(--paper);
  width: 150px;
  font: inherit;
}
.fields :deep(.number) {
  width: 110px;
}
</style>
