<script setup lang="ts">
/** A colour as a value: a swatch that opens the chooser, its number, and the palette. */
import { ElColorPicker } from "element-plus";
import PalettePopover from "@/components/values/PalettePopover.vue";
import { useRecentColours } from "@/composables/useRecentColours";
import { computed, ref } from "vue";
import { hexOf } from "@/geometry/colour";

const props = defineProps<{
  rgba: ArrayLike<number>;
  label: string;
  /** Whether it represents several colours that differ. */
  mixed?: boolean;
}>();
const emit = defineEmits<{ change: [hex: string] }>();

const hex = computed(() => hexOf(props.rgba));
const { remember } = useRecentColours();
const draft = ref<string | null>(null);
const wrong = ref(false);

function keep(): void {
  if (draft.value === null) return;
  const typed = draft.value.trim().replace(/^#?/, "#");
  wrong.value = !/^#(?:[0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.test(typed);
  if (wrong.value) return;
  draft.value = null;
  if (props.mixed || typed.toUpperCase() !== hex.value) choose(typed.toUpperCase());
}

function leave(): void {
  keep();
  draft.value = null;
  wrong.value = false;
}

const picked = (value: string | null): void => {
  if (value && (props.mixed || value.toUpperCase() !== hex.value)) choose(value.toUpperCase());
};
function choose(value: string): void {
  remember(value);
  emit("change", value);
}
</script>

<template>
  <div class="field" :class="{ wrong }">
    <ElColorPicker
      :persistent="false"
      :model-value="hex"
      show-alpha
      color-format="hex"
      size="small"
      :aria-label="`${label}: choose`"
      @change="picked"
    />
    <label>
      <span class="sr-only">{{ label }}</span>
      <input
        :value="draft ?? (mixed ? '' : hex)"
        :placeholder="mixed ? 'mixed' : ''"
        spellcheck="false"
        autocomplete="off"
        maxlength="9"
        :aria-invalid="wrong"
        title="A colour as #rrggbb, or #rrggbbaa with how opaque it is"
        @input="draft = ($event.target as HTMLInputElement).value"
        @keydown.enter.prevent="keep"
        @keydown.esc.stop="((draft = null), (wrong = false))"
        @blur="leave"
      />
    </label>
    <PalettePopover :label="label" :hex="hex" @choose="choose" />
  </div>
</template>

<style scoped>
.field {
  position: relative;
  display: flex;
  align-items: center;
  gap: 0;
  background: var(--paper-3);
  border-radius: var(--radius-s);
  padding: 1px 4px 1px 2px;
  flex: 2.3;
  min-width: 0;
  border: 1px solid transparent;
  container-type: inline-size;
}
.field:focus-within {
  border-color: var(--travel);
  background: var(--paper);
}
.wrong {
  border-color: var(--playhead) !important;
}
label {
  flex: 1;
  min-width: 0;
  display: flex;
}
input {
  border: 0;
  background: none;
  width: 100%;
  min-width: 0;
  padding: 0;
  font: 12px var(--mono);
  color: inherit;
  outline: none;
}
.field :deep(.el-color-picker__trigger) {
  border: 0;
  padding: 2px;
  width: 20px;
  height: 22px;
}
</style>
