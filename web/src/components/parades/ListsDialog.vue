<script setup lang="ts">
/**
 * The lists of a parade as a small table: a row a copy, a column a value of a part. Typed, pasted from a table,
 * stepped, reordered.
 */
import { ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import { WORDS } from "@/api/channels";
import { isPicture } from "@/api/kinds";
import { paradeOf } from "@/api/parades";
import type { ItemList, ParadeObject } from "@/api/types";
import { cellsOf, moved, stepped } from "@/geometry/table";
import { pictureAddress } from "@/api/pictures";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useParade } from "@/composables/useParade";
import { usePartPlaces } from "@/composables/usePartPlaces";
import { useScene } from "@/stores/scene";
import { numberAt } from "@/api/motion";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: ParadeObject }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const vocabulary = useVocabulary();
const one = useParade();
const bringing = useBringIn();

interface Column {
  readonly object: string | null;
  readonly channel: string;
  cells: string[];
  fill: ItemList["fill"];
  mode: ItemList["mode"];
}
const columns = ref<Column[]>([]);
const count = computed(() => {
  const copies = scene.kept?.objects.get(props.thing.id)?.channels["copies"];
  if (copies) return copies.width / 6;
  const baked = scene.kept?.objects.get(props.thing.id)?.channels["count"];
  return baked ? Math.floor(numberAt(baked, 0)) : 0;
});
const rows = computed(() => Math.max(count.value, ...columns.value.map((column) => column.cells.length), 1));

watch(
  open,
  (now) => {
    if (!now) return;
    columns.value = (paradeOf(scene.byId.get(props.thing.id))?.lists ?? []).map((list) => ({
      object: list.object ?? null,
      channel: list.channel,
      cells: list.values.map((value) => (value === null ? "" : String(value))),
      fill: list.fill,
      mode: list.mode,
    }));
  },
  { immediate: true },
);

/** What a list can be for: the words and the colours first, as those are wanted most. */
const ofParts = usePartPlaces(() => one.parts.value, ["page", "fill", "stroke", "height", "width", "number"]);
const places = computed(() => [
  ...ofParts.value.filter((place) => place.channel !== "depth"),
  { object: null, channel: "item", says: "item, for formulas" },
]);
const says = (column: Column): string =>
  places.value.find((place) => place.object === column.object && place.channel === column.channel)?.says ??
  column.channel;
const isText = (column: Column): boolean => column.channel === WORDS;
const isColour = (column: Column): boolean => {
  const part = scene.byId.get(column.object ?? "");
  return vocabulary
    .channelsOf(part ?? props.thing)
    .some((channel) => channel.name === column.channel && channel.unit === "colour");
};

/** Of a list for the page of a picture: the pictures to choose from, by their pages. */
function pagesOf(column: Column): readonly string[] {
  const part = scene.byId.get(column.object ?? "");
  return column.channel === "page" && isPicture(part) ? part.picture.pictures : [];
}
const nameOf = (id: string): string => scene.head?.pictures.find((known) => known.id === id)?.name ?? "";

const input = ref<HTMLInputElement>();
/** The list that more pictures are being chosen for. */
const bringsTo = ref<Column | null>(null);
function choosePictures(column: Column): void {
  bringsTo.value = column;
  input.value?.click();
}
/** Pictures become pages of the part, and rows of the list, one after the other. */
async function bring(): Promise<void> {
  const [column, files] = [bringsTo.value, [...(input.value?.files ?? [])]];
  const part = scene.byId.get(column?.object ?? "");
  if (!column || !files.length || !isPicture(part)) return;
  const pictures = [...(await bringing.read(files)).values()].flatMap((found) => found.pictures);
  if (input.value) input.value.value = "";
  const first = part.picture.pictures.length;
  const picture = { ...part.picture, pictures: [...part.picture.pictures, ...pictures.map((found) => found.id)] };
  if (!pictures.length || !(await scene.edit([{ edit: "set-picture", id: part.id, picture, pictures }]))) return;
  column.cells = [...column.cells, ...pictures.map((_, n) => String(first + n))];
}

function add(event: Event): void {
  const place = places.value[Number((event.target as HTMLSelectElement).value)];
  (event.target as HTMLSelectElement).value = "";
  if (!place) return;
  columns.value.push({ object: place.object, channel: place.channel, cells: [], fill: "cycle", mode: "replace" });
}

/** Rows of a table go down and across from the cell they are pasted into. */
function paste(event: ClipboardEvent, column: number, row: number): void {
  const table = cellsOf(event.clipboardData?.getData("text") ?? "");
  if (table.length < 2 && (table[0]?.length ?? 0) < 2) return;
  event.preventDefault();
  table.forEach((cells, down) =>
    cells.forEach((cell, across) => {
      const into = columns.value[column + across];
      if (into) setCell(into, row + down, cell);
    }),
  );
}
function setCell(column: Column, row: number, text: string): void {
  while (column.cells.length <= row) column.cells.push("");
  column.cells[row] = text;
  while (column.cells.length && column.cells.at(-1) === "") column.cells.pop();
}
function step(column: Column): void {
  column.cells = stepped(column.cells, rows.value);
}
function move(row: number, by: number): void {
  for (const column of columns.value) column.cells = moved(column.cells, row, row + by, rows.value);
}

/** What becomes of a list that is longer or shorter than the parade. */
function length(column: Column): string {
  const n = column.cells.length;
  const rows = n === 1 ? "1 row" : `${n} rows`;
  if (!n) return "empty: copies stay use the object's own value";
  if (column.fill === "spread") return `${rows} blended over ${count.value} copies`;
  if (n > count.value) return `${rows} for ${count.value} copies: the last ${n - count.value} are not shown`;
  if (n < count.value)
    return `${rows} for ${count.value} copies: ${column.fill === "cycle" ? "the list begins again" : "the last row stays"}`;
  return `${n} rows, one for each copy`;
}

function valueOf(column: Column, text: string): number | string | null {
  if (text === "") return null;
  if (isText(column) || isColour(column)) return text;
  const number = Number(text.replace(/\s/g, "").replace(/^(-?\d+),(\d+)$/, "$1.$2"));
  return Number.isNaN(number) ? text : number;
}

async function keep(): Promise<void> {
  const lists: ItemList[] = columns.value
    .filter((column) => column.cells.length)
    .map((column) => ({
      object: column.object,
      channel: column.channel,
      values: column.cells.map((cell) => valueOf(column, cell)),
      fill: column.fill,
      mode: column.mode,
    }));
  if (await one.set({ lists })) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" :title="`Lists of ${thing.name}`" width="680" append-to-body>
    <p v-if="!columns.length">
      A list gives each copy its own value: a text, a colour, a height. Choose a channel, then type values or paste a
      table column.
    </p>
    <div class="table">
      <table v-if="columns.length">
        <thead>
          <tr>
            <th aria-label="Copy" />
            <th v-for="(column, c) in columns" :key="c">
              <span class="what" :title="says(column)">{{ says(column) }}</span>
              <span class="how">
                <select v-model="column.fill" :aria-label="`Beyond the list of ${says(column)}`">
                  <option value="cycle">repeat the list</option>
                  <option value="once">keep the last value</option>
                  <option value="spread" :disabled="isText(column)">blend across all</option>
                </select>
                <select v-if="!isText(column)" v-model="column.mode" :aria-label="`How ${says(column)} takes it`">
                  <option value="replace">is</option>
                  <option value="add">plus</option>
                  <option value="multiply">times</option>
                </select>
                <button class="quiet" title="Continue in equal increments down to the last copy" @click="step(column)">
                  Step
                </button>
                <button
                  v-if="pagesOf(column).length"
                  class="quiet"
                  title="Add pictures, one per row"
                  @click="choosePictures(column)"
                >
                  Pictures…
                </button>
                <button
                  class="quiet"
                  :aria-label="`Take the list of ${says(column)} out`"
                  title="Take this list out"
                  @click="columns.splice(c, 1)"
                >
                  ×
                </button>
              </span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row" :class="{ beyond: row > count }">
            <th scope="row">
              {{ row }}
              <button
                class="quiet"
                :disabled="row === 1"
                :aria-label="`Row ${row} up`"
                title="One up"
                @click="move(row - 1, -1)"
              >
                ↑
              </button>
            </th>
            <td v-for="(column, c) in columns" :key="c">
              <span v-if="isColour(column)" class="swatch" :style="{ background: column.cells[row - 1] || 'none' }" />
              <span v-if="pagesOf(column).length" class="paged">
                <img
                  v-if="pagesOf(column)[Number(column.cells[row - 1] || 0)]"
                  :src="pictureAddress(pagesOf(column)[Number(column.cells[row - 1] || 0)]!, 512)"
                  alt=""
                />
                <select
                  :value="column.cells[row - 1] ?? ''"
                  :aria-label="`${says(column)}, copy ${row}`"
                  @change="setCell(column, row - 1, ($event.target as HTMLSelectElement).value)"
                >
                  <option value="">use the object's own value</option>
                  <option v-for="(id, page) in pagesOf(column)" :key="`${page} ${id}`" :value="String(page)">
                    {{ page + 1 }} {{ nameOf(id) }}
                  </option>
                </select>
              </span>
              <input
                v-else
                :value="column.cells[row - 1] ?? ''"
                :aria-label="`${says(column)}, copy ${row}`"
                :class="{ coloured: isColour(column) }"
                @input="setCell(column, row - 1, ($event.target as HTMLInputElement).value)"
                @paste="paste($event, c, row - 1)"
              />
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th />
            <td v-for="(column, c) in columns" :key="c" class="length">{{ length(column) }}</td>
          </tr>
        </tfoot>
      </table>
    </div>
    <input
      ref="input"
      class="sr-only"
      type="file"
      multiple
      tabindex="-1"
      aria-label="Pictures for the list"
      @change="bring"
    />
    <select aria-label="Add a list for" class="add" @change="add">
      <option value="">Add a list for…</option>
      <option v-for="(place, n) in places" :key="n" :value="n">{{ place.says }}</option>
    </select>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" @click="keep">Keep the lists</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.table {
  max-height: 46vh;
  overflow: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  text-align: left;
  font-weight: 600;
  padding: 0 6px 6px;
}
.what {
  display: block;
  max-width: 190px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.how {
  display: flex;
  gap: 4px;
  align-items: center;
  font-weight: 400;
}
tbody th {
  width: 46px;
  font: 12px var(--mono);
  color: var(--ink-2);
  white-space: nowrap;
}
tbody .quiet {
  visibility: hidden;
}
tbody tr:hover .quiet,
tbody .quiet:focus-visible {
  visibility: visible;
}
td {
  position: relative;
  padding: 1px 6px;
}
.beyond {
  opacity: 0.5;
}
input,
select {
  width: 100%;
  box-sizing: border-box;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
  padding: 3px 6px;
}
.coloured {
  padding-left: 24px;
}
.paged {
  display: flex;
  align-items: center;
  gap: 5px;
}
.paged img {
  width: 30px;
  height: 22px;
  object-fit: contain;
}
.swatch {
  position: absolute;
  left: 11px;
  top: 6px;
  width: 13px;
  height: 13px;
  border-radius: 4px;
  border: 1px solid var(--line);
}
.length {
  color: var(--ink-2);
  font-size: 11px;
}
.add {
  width: 230px;
  margin-top: 10px;
}
</style>
