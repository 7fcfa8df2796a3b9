<script setup lang="ts">
/** The guide: its pages, one of them open, and a field to search them. */
import { marked } from "marked";
import { computed, nextTick, ref, watch } from "vue";
import { anchorOf, type Hit, PAGES, pictureAt, search, slugOf } from "@/help/pages";

const open = defineModel<string>({ required: true });
const words = ref("");
const article = ref<HTMLElement>();
const field = ref<HTMLInputElement>();
const page = computed(() => PAGES.find((one) => one.slug === open.value) ?? PAGES[0]!);
const hits = computed(() => (words.value.trim() ? search(words.value) : null));

/** Its text is our own, and shipped with the page. */
const html = computed(() => {
  const renderer = new marked.Renderer();
  renderer.heading = ({ tokens, depth, text }) =>
    `<h${depth} id="${anchorOf(text)}" tabindex="-1">${renderer.parser.parseInline(tokens)}</h${depth}>`;
  renderer.image = ({ href, text }) => `<img src="${pictureAt(href) ?? ""}" alt="${text}" loading="lazy">`;
  // Of what is in the project's folder, only the guide itself is shipped.
  renderer.link = ({ href, tokens }) => {
    const [inner, slug] = [renderer.parser.parseInline(tokens), slugOf(href.replace(/#.*$/, ""))];
    return PAGES.some((one) => one.slug === slug) ? `<a href="#" data-page="${slug}">${inner}</a>` : inner;
  };
  return marked.parse(page.value.text, { renderer, async: false });
});

async function go(slug: string, section = ""): Promise<void> {
  open.value = slug;
  await nextTick();
  const heading = section ? article.value?.querySelector<HTMLElement>(`#${CSS.escape(anchorOf(section))}`) : null;
  if (heading) {
    heading.scrollIntoView();
    heading.focus();
  } else article.value?.scrollTo(0, 0);
}
const show = (hit: Hit): Promise<void> => go(hit.page, hit.section);
function follow(event: MouseEvent): void {
  const link = (event.target as HTMLElement).closest<HTMLElement>("[data-page]");
  if (!link) return;
  event.preventDefault();
  void go(link.dataset["page"]!);
}
watch(open, () => article.value?.scrollTo(0, 0));
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <div class="help">
    <nav aria-label="Pages of the guide">
      <input
        ref="field"
        v-model="words"
        type="search"
        aria-label="Search the guide"
        placeholder="Search: a word or two"
        spellcheck="false"
        autocomplete="off"
        @keydown.enter="hits?.[0] && show(hits[0])"
      />
      <ul v-if="hits" aria-label="Found">
        <li v-for="hit in hits" :key="hit.id">
          <button @click="show(hit)">
            <strong>{{ hit.section || hit.title }}</strong>
            <span v-if="hit.section" class="of">{{ hit.title }}</span>
            <span class="excerpt">{{ hit.excerpt }}</span>
          </button>
        </li>
        <li v-if="!hits.length" class="none">No results. Try fewer words, or only the beginning of a word.</li>
      </ul>
      <ul v-else aria-label="All pages">
        <li v-for="one in PAGES" :key="one.slug" :class="{ inner: one.inner }">
          <button :aria-current="one === page ? 'page' : undefined" @click="go(one.slug)">{{ one.title }}</button>
        </li>
      </ul>
    </nav>
    <!-- eslint-disable-next-line vue/no-v-html -->
    <article ref="article" tabindex="0" :aria-label="page.title" @click="follow" v-html="html" />
  </div>
</template>

<style scoped>
.help {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 28px;
  height: 100%;
  min-height: 0;
}
nav {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
}
input {
  flex: none;
  padding: 8px 12px;
  border: 1px solid var(--line);
  border-radius: 99px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  overflow-y: auto;
}
nav button {
  display: block;
  width: 100%;
  padding: 6px 10px;
  border: 0;
  border-radius: 8px;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
nav button:hover,
nav button[aria-current] {
  background: var(--look-pale);
}
.inner {
  color: var(--ink-2);
}
li:not(.inner) + .inner {
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.of,
.excerpt {
  display: block;
  color: var(--ink-2);
  font-size: 12.5px;
}
.none {
  padding: 6px 10px;
  color: var(--ink-2);
}
article {
  overflow-y: auto;
  padding-right: 12px;
  color: var(--ink);
  line-height: 1.55;
}
article :deep(h1) {
  margin: 0 0 6px;
  font: 700 22px var(--heading);
  color: var(--travel);
}
article :deep(h2) {
  margin: 26px 0 6px;
  font: 700 16px var(--heading);
}
article :deep(p),
article :deep(li) {
  max-width: 76ch;
}
article :deep(h2:focus) {
  outline: none;
}
article :deep(img) {
  width: 100%;
  /* All pictures are of the page at this size: nothing moves when one comes in. */
  aspect-ratio: 1280 / 800;
  border: 1px solid var(--line);
  border-radius: 12px;
}
article :deep(code) {
  padding: 1px 5px;
  border-radius: 4px;
  background: var(--paper-3);
  font: 0.92em var(--mono);
}
article :deep(pre) {
  overflow-x: auto;
  padding: 12px;
  border-radius: 8px;
  background: var(--paper-3);
}
article :deep(pre code) {
  padding: 0;
}
article :deep(table) {
  border-collapse: collapse;
}
article :deep(td),
article :deep(th) {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}
</style>
