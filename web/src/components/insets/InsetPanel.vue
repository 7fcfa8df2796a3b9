<script setup lang="ts">
/** What the picked inset shows: which scene, from which of its frames, and what comes past its end. */
import { computed } from "vue";
import { innerOf, PAST, startOf } from "@/api/insets";
import type { Edit, InsetThing } from "@/api/types";
import { deleteKeys } from "@/api/edits";
import { keysOf } from "@/api/channels";
import { chosenIn } from "@/components/common/chosen";
import NumberField from "@/components/common/NumberField.vue";
import { useInsets } from "@/composables/useInsets";
import { useInside } from "@/stores/inside";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: InsetThing }>();
const scene = useScene();
const insets = useInsets();
const inside = useInside();

const inner = computed(() => innerOf(scene.head, props.thing));
const unused = computed(() => (scene.head?.inner ?? []).filter((one) => one.shown === 0).length);
const start = computed(() => startOf(props.thing));
const keyed = computed(() => keysOf(props.thing, "inner").map((key) => key.frame));

const set = (change: Partial<InsetThing["inset"]>) =>
  scene.edit([{ edit: "set-inset", id: props.thing.id, inset: { ...props.thing.inset, ...change } }]);
const begin = (value: number): Edit => ({ edit: "set-value", object: props.thing.id, channel: "inner", value });
const runFree = (): void => void scene.edit([deleteKeys(props.thing.id, "inner", keyed.value)]);
</script>

<template>
  <div v-if="inner" class="inset" role="group" :aria-label="`Inside ${thing.name}`">
    <div class="line">
      <label
        >shows
        <select aria-label="Scene inside" :value="inner.id" @change="set({ scene: chosenIn($event) })">
          <option v-for="one in insets.offered.value" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select></label
      >
      <button
        class="primary enter"
        title="Go inside (H, or double click in the picture)"
        @click="inside.enter(thing.id)"
      >
        Go inside
      </button>
    </div>
    <p class="facts">
      {{ inner.length }} frames · {{ inner.fps }} fps · {{ inner.parts.length }}
      {{ inner.parts.length === 1 ? "object" : "objects" }} ·
      {{ inner.shown === 1 ? "shown here only" : `shown ${inner.shown} times` }}
    </p>
    <div class="line">
      <template v-if="start !== null">begins at its frame</template>
      <NumberField
        v-if="start !== null"
        label="Begins at inner frame"
        :value="start"
        :step="1"
        :digits="0"
        hint="The frame inside that is shown where this object begins: give each of several its own"
        @scrub="$event === null ? scene.letGo() : scene.lookAt([begin($event)])"
        @change="scene.edit([begin($event)])"
      />
      <button
        v-else-if="keyed.length"
        class="chip small"
        title="Take the keys of the inner frame away: the inside runs from its beginning again"
        @click="runFree"
      >
        Run automatically
      </button>
      <span v-else class="facts">rules set the inner frame</span>
      <label
        >after its end it
        <select
          aria-label="After the end of the inner scene"
          :value="thing.inset.past"
          @change="set({ past: chosenIn($event) as 'hold' })"
        >
          <option v-for="one in PAST" :key="one.past" :value="one.past">{{ one.label }}</option>
        </select></label
      >
    </div>
    <div class="line">
      <button
        v-if="inner.shown > 1"
        class="chip small"
        title="A copy of the scene inside, for this inset alone"
        @click="insets.ownInside(thing.id)"
      >
        Make its scene unique
      </button>
      <button
        class="chip small"
        title="Replaces the inset by a group with the same objects and motion"
        @click="insets.openUp(thing.id)"
      >
        Convert to a group
      </button>
      <button
        v-if="unused"
        class="chip small"
        title="They are kept with the scene, but nothing shows them"
        @click="scene.edit([{ edit: 'drop-insets' }])"
      >
        Let {{ unused }} unused inner {{ unused === 1 ? "scene" : "scenes" }} go
      </button>
    </div>
  </div>
</template>

<style scoped>
.inset {
  display: grid;
  gap: 6px;
  padding: 6px 14px;
  font-size: 12px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.line :deep(.field) {
  width: 64px;
}
.facts {
  margin: 0;
  color: var(--ink-2);
}
label {
  display: flex;
  align-items: center;
  gap: 5px;
  min-width: 0;
}
select {
  min-width: 0;
  max-width: 130px;
  padding: 3px 6px;
}
.enter {
  margin-left: auto;
  padding: 3px 11px;
}
</style>
