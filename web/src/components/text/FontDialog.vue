<script setup lang="ts">
/** Bringing a font file along: it is kept with the scene, with a note of what allows its use. */
import { ElDialog } from "element-plus";
import { ref } from "vue";
import type { TextShape } from "@/api/types";
import { useScene } from "@/stores/scene";

const props = defineProps<{ id: string; shape: TextShape }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const file = ref<File | null>(null);
const licence = ref("");
const wrong = ref("");
const MOST = 6_000_000;

function choose(event: Event): void {
  const chosen = (event.target as HTMLInputElement).files?.[0] ?? null;
  wrong.value = chosen && chosen.size > MOST ? "This file is larger than six megabytes; bring a smaller one." : "";
  file.value = wrong.value ? null : chosen;
}

async function keep(): Promise<void> {
  const chosen = file.value;
  if (!chosen) return;
  const bytes = new Uint8Array(await chosen.arrayBuffer());
  const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  const id = `file-${[...digest.slice(0, 8)].map((byte) => byte.toString(16).padStart(2, "0")).join("")}`;
  const parts: string[] = [];
  for (let at = 0; at < bytes.length; at += 0x8000) parts.push(String.fromCharCode(...bytes.subarray(at, at + 0x8000)));
  const name =
    chosen.name
      .replace(/\.\w+$/, "")
      .replace(/[{}@]/g, "")
      .trim()
      .slice(0, 80) || "Own font";
  const done = await scene.edit([
    { edit: "add-font", font: { id, name, licence: licence.value.trim(), data: btoa(parts.join("")) } },
    { edit: "set-shape", id: props.id, shape: { ...props.shape, font: id } },
  ]);
  if (done) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" title="Own font file" width="420" append-to-body>
    <p>A TrueType or OpenType file (.ttf, .otf) of at most 6 MB. It is stored with the scene.</p>
    <input type="file" accept=".ttf,.otf" aria-label="Font file" @change="choose" />
    <label
      >Licence
      <textarea
        v-model="licence"
        rows="3"
        maxlength="20000"
        placeholder="Who made it, and what allows you to use it in films: SIL Open Font License, bought from …"
      />
    </label>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" :disabled="!file || !licence.trim()" @click="keep">Store and use it</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
label {
  display: grid;
  gap: 3px;
  margin-top: 10px;
  font-size: 12px;
  color: var(--ink-2);
}
textarea {
  font: inherit;
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  padding: 5px 7px;
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
