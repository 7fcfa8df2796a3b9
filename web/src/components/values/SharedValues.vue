<script setup lang="ts">
/**
 * The values that all picked objects have in common, at the playhead: what they share, and a mark where they differ.
 */
import LeafMark from "@/components/common/LeafMark.vue";
import ColourField from "@/components/values/ColourField.vue";
import SharedField from "@/components/values/SharedField.vue";
import { useSeveral } from "@/composables/several/useSeveral";
import { type SharedChannel, type SharedRow, useSharedRows } from "@/composables/useSharedRows";
import { rgbaOf } from "@/geometry/colour";
import type { TypedChange } from "@/geometry/together";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const several = useSeveral();
const rows = useSharedRows();

const change = (one: SharedChannel, wish: TypedChange) => scene.edit([several.wish(one.words.name, wish)]);
const look = (one: SharedChannel, wish: TypedChange | null): void =>
  wish ? void scene.lookAt([several.wish(one.words.name, wish)]) : scene.letGo();
const recolour = (one: SharedChannel, hex: string) =>
  scene.edit([several.wish(one.words.name, { how: "set", value: hex })]);

/** Two lengths side by side are distinguished by their names; a single one shows its unit. */
const unitOf = (row: SharedRow, one: SharedChannel): string =>
  row.channels.filter((other) => other.words.unit === "px").length > 1 ? one.words.label : one.words.unit;
const digitsOf = ({ words }: SharedChannel): number =>
  words.step < 0.1 && words.shown === 1 ? 2 : words.step >= 1 && words.unit === "" ? 0 : 1;
const leafHint = (row: SharedRow): string =>
  row.leaf === "here"
    ? `All have a key of ${row.row.name.toLowerCase()} at frame ${playback.textFrame}: click to take them away (K)`
    : `Key the ${row.row.name.toLowerCase()} of all of them as they are at frame ${playback.textFrame} (K)`;
</script>

<template>
  <div
    v-for="row in rows"
    :key="row.row.name"
    class="row value-row"
    :class="[row.row.family, { picked: selection.row?.name === row.row.name }]"
    @pointerdown="selection.pickRow(row.row.name, null, true)"
    @focusin="selection.pickRow(row.row.name, null, true)"
  >
    <span class="label">{{ row.row.name }}</span>
    <div class="fields">
      <template v-for="one in row.channels" :key="one.words.name">
        <ColourField
          v-if="one.words.unit === 'colour'"
          :label="`${row.row.name} ${one.words.label} of all`"
          :rgba="rgbaOf(one.colour ?? '#00000000')"
          :mixed="one.colour === null"
          @change="recolour(one, $event)"
        />
        <SharedField
          v-else
          :label="`${row.row.name} ${one.words.label} of all`"
          :channel="one"
          :unit="unitOf(row, one)"
          :digits="digitsOf(one)"
          @change="change(one, $event)"
          @look="look(one, $event)"
        />
      </template>
    </div>
    <button
      class="key"
      :title="leafHint(row)"
      :aria-label="leafHint(row)"
      :aria-pressed="row.leaf === 'here'"
      @click="several.toggleKeys(row.row.name)"
    >
      <LeafMark :state="row.leaf" :family="row.row.family" />
    </button>
  </div>
  <p v-if="!rows.length" class="nothing">The selected objects share no values.</p>
</template>

<style scoped>
.label {
  width: 72px;
  flex: none;
}
.nothing {
  padding: 0 14px;
  color: var(--ink-2);
}
</style>
