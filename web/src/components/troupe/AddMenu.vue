<script setup lang="ts">
/** The menu of all that can be added or brought in. */
import { ElDropdownItem } from "element-plus";
import { ref } from "vue";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import ElementsDialog from "@/components/parades/ElementsDialog.vue";
import FigureDialog from "@/components/figures/FigureDialog.vue";
import InsetDialog from "@/components/insets/InsetDialog.vue";
import OutlineDialog from "@/components/troupe/OutlineDialog.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { KINDS } from "@/composables/troupe/kinds";
import { useAdding } from "@/composables/troupe/useAdding";

const props = defineProps<{ placement?: "right-start" | "bottom-end" }>();
const adding = useAdding();
const bringing = useBringIn();
const [pictures, others] = [ref<HTMLInputElement>(), ref<HTMLInputElement>()];

async function bring(from: HTMLInputElement | undefined): Promise<void> {
  await bringing.bring([...(from?.files ?? [])]);
  if (from) from.value = "";
}

const [outlining, figuring, choosing, insetting] = [ref(false), ref(false), ref(false), ref(false)];
const mounted = {
  element: useOnceTrue(() => choosing.value),
  outline: useOnceTrue(() => outlining.value),
  figure: useOnceTrue(() => figuring.value),
  inset: useOnceTrue(() => insetting.value),
};

function choose(kind: string): void {
  if (kind === "outline") outlining.value = true;
  else if (kind === "figure") figuring.value = true;
  else if (kind === "element") choosing.value = true;
  else if (kind === "inset") insetting.value = true;
  else if (kind === "picture") pictures.value?.click();
  else if (kind === "file") others.value?.click();
  else void adding.add(kind);
}
</script>

<template>
  <PopUpMenu name="What to add" :placement="props.placement ?? 'bottom-end'" @command="choose">
    <slot />
    <template #items>
      <ElDropdownItem v-for="kind in KINDS" :key="kind.kind" :command="kind.kind"
        ><VineIcon :name="kind.icon" />&nbsp; {{ kind.label }}</ElDropdownItem
      >
    </template>
  </PopUpMenu>
  <input
    ref="pictures"
    class="sr-only"
    type="file"
    multiple
    accept="image/png,image/jpeg,image/webp,image/gif,image/apng,video/mp4,video/webm"
    aria-label="Pictures to bring in"
    tabindex="-1"
    @change="bring(pictures)"
  />
  <input
    ref="others"
    class="sr-only"
    type="file"
    multiple
    accept=".svg,.json,.vine,.csv,.tsv,.txt,.wav,.mp3,.ogg,.opus,.flac,.m4a"
    aria-label="Drawing, table, sound or scene to bring in"
    tabindex="-1"
    @change="bring(others)"
  />
  <ElementsDialog v-if="mounted.element.value" v-model="choosing" />
  <FigureDialog v-if="mounted.figure.value" v-model="figuring" />
  <InsetDialog v-if="mounted.inset.value" v-model="insetting" />
  <OutlineDialog v-if="mounted.outline.value" v-model="outlining" @done="adding.add('outline', $event)" />
</template>
