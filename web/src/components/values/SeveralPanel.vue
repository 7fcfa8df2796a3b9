<script setup lang="ts">
/**
 * What can be done with several picked objects: aligned, given equal gaps, spread in time, grouped, copied, hidden,
 * deleted.
 */
import { computed, ref } from "vue";
import HangDialog from "@/components/troupe/HangDialog.vue";
import TagSwatches from "@/components/troupe/TagSwatches.vue";
import NumberField from "@/components/common/NumberField.vue";
import { chosenIn } from "@/components/common/chosen";
import { useSeveral } from "@/composables/several/useSeveral";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const several = useSeveral();

const to = ref<"each-other" | "picture">("each-other");
const [later, order, how, seed] = [
  ref(6),
  ref<"troupe" | "left-to-right" | "chance">("troupe"),
  ref<"keys" | "rule">("keys"),
  ref(1),
];
const wrong = ref("");
const SIDES = [
  { side: "left", says: "Left edges on one line", d: "M4 2v16M6.500 5h9v3h-9ZM6.500 12h5.500v3H6.500Z" },
  { side: "middle", says: "Middles on one upright line", d: "M10 2v16M5 5h10v3H5ZM7 12h6v3H7Z" },
  { side: "right", says: "Right edges on one line", d: "M16 2v16M4.500 5h9v3h-9ZM8 12h5.500v3H8Z" },
  { side: "top", says: "Upper edges on one line", d: "M2 4h16M5 6.500h3v9H5ZM12 6.500h3v5.500h-3Z" },
  { side: "centre", says: "Middles on one level line", d: "M2 10h16M5 5h3v10H5ZM12 7h3v6h-3Z" },
  { side: "bottom", says: "Lower edges on one line", d: "M2 16h16M5 4.500h3v9H5ZM12 8h3v5.500h-3Z" },
] as const;
const SPREADS = [
  { along: "across", what: "gaps", says: "Equal gaps from left to right", label: "gaps ↔" },
  { along: "down", what: "gaps", says: "Equal gaps from top to bottom", label: "gaps ↕" },
  { along: "across", what: "middles", says: "Middles equally far from left to right", label: "middles ↔" },
  { along: "down", what: "middles", says: "Middles equally far from top to bottom", label: "middles ↕" },
] as const;
const ORDERS = [
  { to: "front", label: "front", says: "In front of all others beside them", keys: "Alt+Home" },
  { to: "forward", label: "nearer", says: "One nearer", keys: "Alt+Page Up" },
  { to: "backward", label: "farther", says: "Send backward", keys: "Alt+Page Down" },
  { to: "back", label: "back", says: "Behind all others beside them", keys: "Alt+End" },
] as const;
const lead = computed(() => selection.picked[0] ?? null);
const hanging = ref<string | null>(null);
const allLocked = computed(() => selection.picked.every((id) => scene.locked.has(id)));
/** The tag they share, if they do. */
const tag = computed(() => {
  const tags = new Set(selection.picked.map((id) => scene.objects.find((one) => one.id === id)?.tag ?? null));
  return tags.size === 1 ? [...tags][0]! : null;
});
const anyHidden = computed(() => selection.picked.some((id) => scene.motion?.hidden.has(id)));

async function said(answer: Promise<string | null | undefined>): Promise<void> {
  wrong.value = (await answer) ?? "";
}
</script>

<template>
  <section class="several" aria-label="Objects picked together">
    <div class="line close" role="group" aria-label="Select all similar objects">
      <span>all of its</span>
      <button class="chip small" title="Ctrl+Alt+K" @click="several.pickAlike('kind')">kind</button>
      <button
        class="chip small"
        title="Select objects with the same fill colour (Ctrl+Alt+C)"
        @click="several.pickAlike('colour')"
      >
        colour
      </button>
      <button
        class="chip small"
        title="Select objects with the same tag colour (Ctrl+Alt+T)"
        @click="several.pickAlike('tag')"
      >
        tag
      </button>
    </div>
    <div class="line close" role="group" aria-label="Align">
      <button
        v-for="one in SIDES"
        :key="one.side"
        class="icon-button"
        :title="`${one.says}, at frame ${playback.textFrame}`"
        :aria-label="one.says"
        @click="several.align(one.side, to)"
      >
        <svg viewBox="0 0 20 20" aria-hidden="true"><path :d="one.d" /></svg>
      </button>
      <select
        class="choice"
        aria-label="Align to"
        title="To the box around all of them, or to the picture"
        :value="to"
        @change="to = chosenIn($event) as 'picture'"
      >
        <option value="each-other">each other</option>
        <option value="picture">picture</option>
      </select>
    </div>
    <div class="line close" role="group" aria-label="Distribute">
      <button
        v-for="one in SPREADS"
        :key="one.says"
        class="chip small"
        :disabled="selection.picked.length < 3"
        :title="selection.picked.length < 3 ? `${one.says}: from three objects on` : one.says"
        :aria-label="one.says"
        @click="said(several.distribute(one.along, one.what))"
      >
        {{ one.label }}
      </button>
    </div>
    <div class="line" role="group" aria-label="Spread in time">
      <span>each</span>
      <NumberField
        label="Frames later than the one before"
        :value="later"
        unit="frames"
        :step="1"
        :digits="0"
        @change="later = $event"
      />
      <span>later,</span>
      <select
        class="choice"
        aria-label="Starting order"
        title="Which begins: as the troupe lists them, from left to right in the picture, or by chance"
        :value="order"
        @change="order = chosenIn($event) as 'chance'"
      >
        <option value="troupe">by the troupe</option>
        <option value="left-to-right">left to right</option>
        <option value="chance">by chance</option>
      </select>
      <select
        class="choice"
        aria-label="Keys or rule"
        title="Shift their keys, or leave the keys where they are and put a rule Retime on each"
        :value="how"
        @change="how = chosenIn($event) as 'rule'"
      >
        <option value="keys">shift keys</option>
        <option value="rule">by a rule</option>
      </select>
      <button
        class="chip small"
        title="Each with its attached objects; the first stays"
        @click="(several.spread(later, order, how, seed), (seed += order === 'chance' ? 1 : 0))"
      >
        Spread in time
      </button>
    </div>
    <div class="line close" role="group" aria-label="Drawing order">
      <button
        v-for="one in ORDERS"
        :key="one.to"
        class="chip small"
        :title="`${one.says} (${one.keys})`"
        @click="said(several.order(one.to))"
      >
        {{ one.label }}
      </button>
    </div>
    <div class="line">
      <button
        class="chip small"
        title="They become parts of a new group, and stay where they are"
        @click="said(several.group())"
      >
        Group
      </button>
      <button class="chip small" title="Duplicate all (Ctrl+D)" @click="several.duplicate()">Duplicate</button>
      <button
        class="chip small"
        title="They move with another from then on, and look the same now"
        @click="hanging = lead"
      >
        Hang on…
      </button>
      <button class="chip small" @click="several.show(anyHidden)">{{ anyHidden ? "Show" : "Hide" }}</button>
      <button
        class="chip small"
        title="Locked objects cannot be selected or moved in the picture"
        @click="several.lock(!allLocked)"
      >
        {{ allLocked ? "Unlock" : "Lock" }}
      </button>
      <button class="chip small" title="Deletes their attached objects, too (Delete)" @click="several.remove()">
        Delete
      </button>
    </div>
    <TagSwatches :tag="tag" @choose="several.tag($event)" />
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <HangDialog v-if="hanging" v-model="hanging" />
  </section>
</template>

<style scoped>
.several {
  display: grid;
  gap: 6px;
  padding: 0 14px 8px;
  border-bottom: 1px solid var(--line);
  margin-bottom: 6px;
  font-size: 12.5px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.close {
  flex-wrap: nowrap;
  gap: 3px;
}
.close .chip {
  padding-inline: 7px;
}
.close .choice {
  min-width: 0;
  flex: 1;
}
.icon-button {
  width: 26px;
  height: 26px;
  padding: 3px;
  flex: none;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
  cursor: pointer;
}
.icon-button:hover {
  background: var(--travel-pale);
}
svg {
  display: block;
  width: 100%;
  height: 100%;
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
  stroke-linejoin: round;
}
.wrong {
  margin: 0;
  color: #a32145;
  font-weight: 600;
}
</style>
