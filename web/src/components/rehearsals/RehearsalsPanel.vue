<script setup lang="ts">
/** The kept versions of the scene: keep one, compare, try a variant. */
import { ref } from "vue";
import RenameField from "@/components/common/RenameField.vue";
import VariantActions from "@/components/rehearsals/VariantActions.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import type { RehearsalWords } from "@/api/types";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";

const rehearsals = useRehearsals();
const scene = useScene();
const keeping = ref(false);
const renaming = ref<string | null>(null);

async function keep(): Promise<void> {
  keeping.value = true;
  const kept = await rehearsals.keep();
  keeping.value = false;
  if (kept) renaming.value = kept.id;
}
async function rename(one: RehearsalWords, name: string | null): Promise<void> {
  renaming.value = null;
  if (name) await rehearsals.rename(one, name);
}
const when = (text: string): string =>
  new Date(text).toLocaleString(undefined, { month: "short", day: "numeric", hour: "2-digit", minute: "2-digit" });
const stillOf = (one: RehearsalWords): string => `/api/scenes/${scene.id}/rehearsals/${one.id}/still`;
</script>

<template>
  <section class="rehearsals" aria-label="Rehearsals">
    <div class="panel-head">
      <h2>Rehearsals</h2>
      <button
        class="round small"
        title="Back to the values (Alt+R)"
        aria-label="Close the rehearsals"
        @click="rehearsals.toggle()"
      >
        <VineIcon name="after" />
      </button>
    </div>
    <div class="list">
      <p v-if="scene.whole" class="none">
        Rehearsals are kept of the whole scene. Go out to {{ scene.whole.name }} to keep or compare one.
      </p>
      <template v-else>
        <div class="begin">
          <button class="primary" :disabled="keeping" title="Save the whole current scene as a rehearsal" @click="keep">
            Save this version
          </button>
          <button
            class="chip"
            :disabled="!!rehearsals.variantOf"
            title="Save this version, try changes, then compare and choose"
            @click="rehearsals.tryVariant()"
          >
            Try a variant
          </button>
        </div>
        <VariantActions class="variant" />
        <p v-if="!rehearsals.list.length" class="none">
          Save a version before you change the scene, then compare both: side by side, overlaid, or with a wipe. You can
          restore the whole version, one object or one channel.
        </p>
        <ul>
          <li v-for="one in rehearsals.list" :key="one.id" class="card">
            <button
              class="still"
              :aria-label="`Compare with ${one.name}`"
              :title="`Compare the scene with ${one.name}`"
              @click="rehearsals.compare({ kind: 'kept', id: one.id, name: one.name })"
            >
              <img :src="stillOf(one)" alt="" loading="lazy" />
            </button>
            <div class="words">
              <RenameField v-if="renaming === one.id" :name="one.name" @done="rename(one, $event)" />
              <strong v-else @dblclick="renaming = one.id">{{ one.name }}</strong>
              <span class="when">{{ when(one.kept) }}</span>
              <span class="buttons">
                <button class="chip small" @click="rehearsals.compare({ kind: 'kept', id: one.id, name: one.name })">
                  Compare
                </button>
                <button
                  class="round small"
                  :title="`Rename ${one.name}`"
                  :aria-label="`Rename ${one.name}`"
                  @click="renaming = one.id"
                >
                  <VineIcon name="pencil" />
                </button>
                <button
                  class="round small"
                  :title="`Remove ${one.name}; it can be put back`"
                  :aria-label="`Remove ${one.name}`"
                  @click="rehearsals.remove(one)"
                >
                  <VineIcon name="bin" />
                </button>
              </span>
            </div>
          </li>
        </ul>
      </template>
    </div>
  </section>
</template>

<style scoped>
.rehearsals {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--line);
  background: var(--paper);
}
h2 {
  font-size: 13px;
}
.list {
  overflow-y: auto;
  flex: 1;
  padding: 0 10px 10px;
}
.begin {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0 8px;
}
.variant {
  margin: 0 0 10px;
}
.none {
  color: var(--ink-2);
  margin: 8px 4px;
  font-size: 13px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.card {
  display: flex;
  gap: 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 8px;
}
.still {
  width: 96px;
  height: 56px;
  flex: none;
  padding: 0;
  border: 0;
  border-radius: var(--radius-s);
  overflow: hidden;
  background: var(--paper-3);
  cursor: pointer;
}
.still img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.words {
  display: grid;
  gap: 2px;
  min-width: 0;
  flex: 1;
}
strong {
  font-size: 13px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.when {
  font-size: 11.5px;
  color: var(--ink-2);
}
.buttons {
  display: flex;
  align-items: center;
  gap: 4px;
}
</style>
