<script setup lang="ts">
/** What can be done with the outline of something drawn: edit it, outline it, combine it with others. */
import { computed, ref } from "vue";
import { isShape } from "@/api/kinds";
import type { ShapeThing } from "@/api/types";
import { numberAt } from "@/api/motion";
import CombineDialog from "@/components/outline/CombineDialog.vue";
import OutlineDialog from "@/components/troupe/OutlineDialog.vue";
import { hasKeys } from "@/api/channels";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ thing: ShapeThing }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();

const own = computed(() => (props.thing.shape.type === "outline" ? props.thing.shape : null));
const [writing, combining] = [ref(false), ref(false)];
const mounted = { writing: useOnceTrue(() => writing.value), combining: useOnceTrue(() => combining.value) };
const lined = computed(() => {
  const width = scene.motion?.objects.get(props.thing.id)?.channels["stroke.width"];
  return width ? numberAt(width, playback.textFrame) > 0 : false;
});
const others = computed(() => scene.objects.filter((one) => isShape(one) && one.id !== props.thing.id));

function setPath(d: string): void {
  const frame = hasKeys(props.thing, "outline") ? playback.frame : null;
  void scene.edit([{ edit: "set-outline", object: props.thing.id, frame, d }]);
}

function setFillRule(rule: "nonzero" | "evenodd"): void {
  if (own.value) void scene.edit([{ edit: "set-shape", id: props.thing.id, shape: { ...own.value, fill_rule: rule } }]);
}

async function outlineIt(): Promise<void> {
  if (await scene.edit([{ edit: "make-outline", id: props.thing.id, frame: playback.frame }]))
    selection.tool = "points";
}
</script>

<template>
  <div class="outline-fields">
    <template v-if="own">
      <button class="chip" title="The outline as SVG path data, to copy or paste" @click="writing = true">
        Path data…
      </button>
      <label title="Which areas are filled where the lines cross">
        <span>where lines cross</span>
        <select
          :value="own.fill_rule"
          aria-label="Fill where lines cross"
          @change="setFillRule(($event.target as HTMLSelectElement).value as 'nonzero')"
        >
          <option value="nonzero">filled</option>
          <option value="evenodd">hollow</option>
        </select>
      </label>
    </template>
    <button
      v-else-if="thing.shape.type !== 'text'"
      class="chip"
      title="Turn it into an outline that looks the same, to be changed point by point"
      @click="outlineIt"
    >
      Convert to an outline
    </button>
    <button
      v-if="lined"
      class="chip"
      title="Turn its line into a filled outline of its own"
      @click="scene.edit([{ edit: 'outline-line', object: thing.id, frame: playback.frame }])"
    >
      Convert the stroke
    </button>
    <button
      v-if="others.length"
      class="chip"
      title="Unite it with others, cut them out of it, keep what they share, or leave that out"
      @click="combining = true"
    >
      Combine…
    </button>
    <OutlineDialog v-if="mounted.writing.value" v-model="writing" :initial="own?.d ?? ''" @done="setPath" />
    <CombineDialog v-if="mounted.combining.value" v-model="combining" :thing="thing" :others="others" />
  </div>
</template>

<style scoped>
.outline-fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 14px;
  font-size: 12px;
}
label {
  display: flex;
  align-items: center;
  gap: 5px;
}
select {
  font-size: 12px;
}
</style>
