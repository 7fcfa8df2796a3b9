<script setup lang="ts">
/** What holds for the whole scene: its size, length, frames per second, background and motion blur. */
import { ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import type { Edit } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import ColourField from "@/components/values/ColourField.vue";
import { rgbaOf } from "@/geometry/colour";
import { inSeconds } from "@/geometry/frames";
import { useScene } from "@/stores/scene";

const open = defineModel<boolean>({ required: true });
const scene = useScene();
const width = ref(1280);
const height = ref(720);
const fps = ref(24);
const length = ref(120);
const background = ref("#FFFFFF");
const [blurred, samples, shutter] = [ref(false), ref(16), ref(180)];
/** What happens to keys and spans when length or fps change. */
const keep = ref<"frames" | "seconds" | "stretch">("frames");

watch(
  open,
  (now) => {
    if (!now || !scene.head) return;
    [width.value, height.value] = scene.head.size;
    fps.value = scene.head.fps;
    length.value = scene.head.length;
    background.value = scene.head.background;
    blurred.value = Boolean(scene.head.blur);
    [samples.value, shutter.value] = [scene.head.blur?.samples ?? 16, scene.head.blur?.shutter ?? 180];
    keep.value = "frames";
  },
  { immediate: true },
);

const changesFps = computed(() => scene.head !== null && fps.value !== scene.head.fps);
const changesLength = computed(() => scene.head !== null && length.value !== scene.head.length);
const CHOICES = computed(() => [
  {
    keep: "frames" as const,
    says: "stay on their frames",
    about: "New frames are added at the end, or cut off there",
    shown: true,
  },
  {
    keep: "seconds" as const,
    says: "keep their seconds",
    about: "The motion takes as long as before, at the new frames per second",
    shown: changesFps.value,
  },
  {
    keep: "stretch" as const,
    says: "are stretched to the new length",
    about: "What ended the scene still ends it",
    shown: changesLength.value,
  },
]);
watch(
  [changesFps, changesLength],
  () => !CHOICES.value.some((one) => one.shown && one.keep === keep.value) && (keep.value = "frames"),
);
/** With its seconds kept the scene gets as many frames as they take. */
watch(
  [keep, fps],
  () =>
    keep.value === "seconds" &&
    scene.head &&
    (length.value = Math.max(1, Math.round((scene.head.length * fps.value) / scene.head.fps))),
);

async function make(): Promise<void> {
  const now = scene.head;
  if (!now) return;
  const edits: Edit[] = [];
  if (width.value !== now.size[0] || height.value !== now.size[1])
    edits.push({ edit: "set-size", width: width.value, height: height.value });
  if (fps.value !== now.fps)
    edits.push({ edit: "set-fps", fps: fps.value, keep: keep.value === "seconds" ? "seconds" : "frames" });
  const reached = keep.value === "seconds" ? Math.max(1, Math.round((now.length * fps.value) / now.fps)) : now.length;
  if (length.value !== reached)
    edits.push({ edit: "set-length", length: length.value, stretch: keep.value === "stretch" });
  const blur = blurred.value ? { samples: samples.value, shutter: shutter.value } : null;
  if (JSON.stringify(blur) !== JSON.stringify(now.blur ?? null)) edits.push({ edit: "set-blur", blur });
  if (background.value !== now.background) edits.push({ edit: "set-background", colour: background.value });
  open.value = false;
  await scene.edit(edits);
}
</script>

<template>
  <ElDialog v-model="open" title="Scene settings" width="420">
    <div class="form">
      <span>Picture</span>
      <div class="pair">
        <NumberField
          label="Width of the picture"
          :value="width"
          unit="px wide"
          :digits="0"
          :low="1"
          :high="8192"
          @change="width = Math.round($event)"
        />
        <NumberField
          label="Height of the picture"
          :value="height"
          unit="px high"
          :digits="0"
          :low="1"
          :high="8192"
          @change="height = Math.round($event)"
        />
      </div>
      <span>Length</span>
      <div class="pair">
        <NumberField
          label="Length in frames"
          :value="length"
          unit="frames"
          :digits="0"
          :low="1"
          :high="20000"
          @change="length = Math.round($event)"
        />
        <span class="note">{{ inSeconds(length, fps) }}</span>
      </div>
      <span>Speed</span>
      <div class="pair">
        <NumberField
          label="Frames per second"
          :value="fps"
          unit="fps"
          :digits="3"
          :low="1"
          :high="240"
          @change="fps = $event"
        />
      </div>
      <template v-if="changesFps || changesLength">
        <span>Keys</span>
        <div class="keep" role="radiogroup" aria-label="Effect on the keys">
          <template v-for="choice in CHOICES" :key="choice.keep">
            <label v-if="choice.shown" :title="choice.about"
              ><input v-model="keep" type="radio" name="keep-keys" :value="choice.keep" /> {{ choice.says }}</label
            >
          </template>
        </div>
      </template>
      <span>Motion blur</span>
      <div class="blur">
        <label title="Blurs moving objects, as a camera shutter does"
          ><input v-model="blurred" type="checkbox" /> motion blur</label
        >
        <div v-if="blurred" class="pair">
          <NumberField
            label="Shutter of the motion blur"
            :value="shutter"
            unit="° open"
            :digits="0"
            :low="1"
            :high="720"
            hint="How long the shutter is open: 180° is half a frame, 360° the whole"
            @change="shutter = $event"
          />
          <NumberField
            label="Moments of the motion blur"
            :value="samples"
            unit="moments"
            :digits="0"
            :low="2"
            :high="64"
            hint="From how many moments a frame is made: more are smoother, and take longer"
            @change="samples = Math.round($event)"
          />
        </div>
      </div>
      <span>Background</span>
      <ColourField label="Background" :rgba="rgbaOf(background)" @change="background = $event" />
    </div>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" @click="make">Keep</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 10px;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: center;
}
.keep {
  display: grid;
  gap: 4px;
}
.keep label {
  display: flex;
  gap: 7px;
  cursor: pointer;
}
.blur {
  display: grid;
  gap: 6px;
}
.blur label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.note {
  color: var(--ink-2);
  font-size: 13px;
}
.plain {
  margin-right: 8px;
}
</style>
