<script setup lang="ts">
/**
 * Making a parade of something: how many, in what figure, how far apart, how much later. The picture shows it before it
 * is kept.
 */
import { ElDialog } from "element-plus";
import { computed, onBeforeUnmount, ref, watch } from "vue";
import { newId } from "@/api/ids";
import { type Arrange, arrangementOf, ORDERS } from "@/api/parades";
import type { Parade } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import ArrangeChooser from "@/components/parades/ArrangeChooser.vue";
import { textOf } from "@/composables/useText";
import { useParade } from "@/composables/useParade";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ id: string }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const selection = useSelection();
const parades = useParade();

const made = newId();
const chosen = ref<string[]>([props.id]);
const arrange = ref<Arrange>("row");
const order = ref<Parade["order"]>("first");
const guide = ref<string | null>(null);
const values = ref<Record<string, number>>({ count: 6, delay: 4, gap: 24, radius: 180, "spread.x": 90, "spread.y": 0 });
const columns = ref(4);

/** What the objects beside it are called: they can go along. */
const beside = computed(() => {
  const thing = scene.objects.find((one) => one.id === props.id);
  return scene.objects.filter((one) => one.parent === (thing?.parent ?? null) && one.bone === thing?.bone).reverse();
});
const texts = computed(() => chosen.value.some((id) => textOf(scene.byId.get(id))));
const guides = computed(() => parades.guidesFor(chosen.value));
const about = computed(() => arrangementOf(arrange.value));

/** The values that the arrangement reads. */
const read = computed(() => {
  const wanted: Record<string, number> = { delay: values.value["delay"] ?? 0 };
  const take = (...names: string[]): void => names.forEach((name) => (wanted[name] = values.value[name] ?? 0));
  if (!about.value.counts) take("count");
  if (["row", "column", "grid"].includes(arrange.value)) take("gap");
  if (arrange.value === "grid") wanted["gap.down"] = values.value["gap"] ?? 0;
  if (arrange.value === "ring") take("radius");
  if (arrange.value === "free") take("spread.x", "spread.y");
  if (arrange.value === "nest") Object.assign(wanted, { "from.scale": 0.2, "to.scale": 1 });
  return wanted;
});
const edit = computed(() =>
  parades.making({
    id: made,
    parts: chosen.value,
    parade: {
      arrange: arrange.value,
      order: order.value,
      columns: columns.value,
      guide: about.value.needs === "guide" ? (guide.value ?? guides.value[0]?.id ?? null) : null,
      front: arrange.value === "nest" ? "smallest" : "last",
    },
    values: read.value,
  }),
);
let closing = false;
watch(edit, (now) => !closing && chosen.value.length && void scene.lookAt([now]), { immediate: true });
onBeforeUnmount(() => !closing && scene.letGo());

const set = (name: string, value: number): void => void (values.value = { ...values.value, [name]: value });
function cancel(): void {
  closing = true;
  open.value = false;
  scene.letGo();
}
async function keep(): Promise<void> {
  closing = true;
  const done = await scene.edit([edit.value]);
  open.value = false;
  if (!done) return;
  // Its children are visible at once, and its delay is usually changed first.
  if (!selection.unfolded.has(made)) selection.fold(made);
  selection.pick(made);
  selection.pickRow("Delay");
}
</script>

<template>
  <ElDialog
    :model-value="open"
    :title="`Parade of ${scene.byId.get(id)?.name ?? ''}`"
    class="aside"
    width="300"
    append-to-body
    draggable
    :modal="false"
    modal-penetrable
    :close-on-click-modal="false"
    @close="!closing && cancel()"
  >
    <ArrangeChooser :arrange="arrange" :has-text="texts" :has-guides="guides.length > 0" @choose="arrange = $event" />
    <div class="grid">
      <template v-if="!about.counts">
        <span>how many</span>
        <NumberField
          label="How many"
          :value="values.count!"
          :low="1"
          :high="2000"
          :digits="0"
          @change="set('count', Math.round($event))"
        />
      </template>
      <template v-if="arrange === 'grid'">
        <span>in lines of</span>
        <NumberField
          label="In lines of"
          :value="columns"
          :low="1"
          :high="2000"
          :digits="0"
          @change="columns = Math.round($event)"
        />
      </template>
      <template v-if="about.rows.includes('Gap')">
        <span>how far apart</span>
        <NumberField
          label="Gap"
          unit="px"
          :value="values.gap!"
          @scrub="$event !== null && set('gap', $event)"
          @change="set('gap', $event)"
        />
      </template>
      <template v-if="arrange === 'ring'">
        <span>radius</span>
        <NumberField
          label="Radius"
          unit="px"
          :value="values.radius!"
          @scrub="$event !== null && set('radius', $event)"
          @change="set('radius', $event)"
        />
      </template>
      <template v-if="arrange === 'free'">
        <span>offset of each</span>
        <span class="two">
          <NumberField label="Right" unit="x" :value="values['spread.x']!" @change="set('spread.x', $event)" />
          <NumberField label="Down" unit="y" :value="values['spread.y']!" @change="set('spread.y', $event)" />
        </span>
      </template>
      <template v-if="about.needs === 'guide'">
        <span>along</span>
        <select
          :value="guide ?? guides[0]?.id"
          aria-label="Along"
          @change="guide = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="one in guides" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </template>
      <span>each later by</span>
      <NumberField
        label="Each later by"
        unit="frames"
        :value="values.delay!"
        @scrub="$event !== null && set('delay', $event)"
        @change="set('delay', $event)"
      />
      <span>who begins</span>
      <select v-model="order" aria-label="Who begins">
        <option v-for="one in ORDERS" :key="one.order" :value="one.order">{{ one.says }}</option>
      </select>
    </div>
    <details v-if="beside.length > 1">
      <summary>{{ chosen.length > 1 ? `${chosen.length} things together` : "More objects to include" }}</summary>
      <div class="list" role="group" aria-label="Grouping">
        <label v-for="one in beside" :key="one.id"
          ><input
            v-model="chosen"
            type="checkbox"
            :value="one.id"
            :disabled="chosen.length === 1 && chosen[0] === one.id"
          />
          {{ one.name }}</label
        >
      </div>
    </details>
    <template #footer>
      <button class="plain" @click="cancel">Cancel</button>
      <button class="primary" :disabled="!chosen.length" @click="keep">Make the parade</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 6px 10px;
  align-items: center;
  margin-top: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
select {
  padding: 3px 5px;
}
details {
  margin-top: 10px;
}
summary {
  color: var(--ink-2);
  font-size: 12px;
}
.list {
  display: grid;
  gap: 3px;
  max-height: 150px;
  overflow-y: auto;
  padding: 6px 2px;
}
</style>
