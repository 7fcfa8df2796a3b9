/**
 * The pages of the guide (docs/guide and two of docs, for engineers), as they are written, and finding words in them.
 */
import MiniSearch from "minisearch";

const written = import.meta.glob<string>(
  ["../../../docs/guide/*.md", "../../../docs/architecture.md", "../../../docs/extending.md"],
  { query: "?raw", import: "default", eager: true },
);
const pictures = import.meta.glob<string>("../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});

export interface HelpPage {
  /** The name of its file, without number and ending. */
  readonly slug: string;
  readonly title: string;
  readonly text: string;
  /** Whether it is for engineers. */
  readonly inner: boolean;
}

export const PAGES: readonly HelpPage[] = Object.entries(written)
  .sort(([one], [two]) => order(one).localeCompare(order(two)))
  .map(([path, text]) => ({
    slug: slugOf(path),
    title: /^# (.+)$/m.exec(text)?.[1] ?? path,
    text,
    inner: !path.includes("/guide/"),
  }));

/** Guide pages by their numbers, then the others. */
function order(path: string): string {
  return path.includes("/guide/") ? `0 ${path}` : `1 ${path}`;
}

/** The name of a page by the path of its file: without folder, number and ending. */
export function slugOf(path: string): string {
  return path.replace(/^.*\//, "").replace(/^\d+-|\.md$/g, "");
}

/** The address of a picture that a page shows; undefined if it is not shipped. */
export function pictureAt(href: string): string | undefined {
  const name = href.replace(/^.*\//, "");
  return Object.entries(pictures).find(([path]) => path.endsWith(`/${name}`))?.[1];
}

export interface Hit {
  readonly id: string;
  readonly page: string;
  readonly title: string;
  readonly section: string;
  /** The words around what was found. */
  readonly excerpt: string;
}

interface Section {
  readonly id: string;
  readonly page: string;
  readonly title: string;
  readonly section: string;
  readonly text: string;
}

/** A heading in a URL. */
export const anchorOf = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");

const SECTIONS: readonly Section[] = PAGES.flatMap((page) =>
  page.text.split(/^## /m).map((part, at) => {
    const [heading = "", ...rest] = part.split("\n");
    const section = at ? heading.trim() : "";
    return {
      id: `${page.slug}#${anchorOf(section)}`,
      page: page.slug,
      title: page.title,
      section,
      text: plain(rest.join("\n")),
    };
  }),
);

/** Markdown without its marks. */
function plain(text: string): string {
  return text
    .replace(/```[\s\S]*?```/g, " ")
    .replace(/!\[[^\]]*\]\([^)]*\)/g, " ")
    .replace(/\[([^\]]*)\]\([^)]*\)/g, "$1")
    .replace(/[*`|#]/g, "")
    .replace(/\s+/g, " ")
    .trim();
}

let index: MiniSearch<Section> | null = null;

/**
 * The sections in which words are found, the best first: beginnings of words count, and so do words with a letter
 * wrong.
 */
export function search(words: string): readonly Hit[] {
  if (!index) {
    index = new MiniSearch<Section>({
      fields: ["section", "title", "text"],
      storeFields: ["page", "title", "section", "text"],
      searchOptions: { boost: { section: 4, title: 2 }, prefix: true, fuzzy: 0.15, combineWith: "AND" },
    });
    index.addAll(SECTIONS);
  }
  return index
    .search(words)
    .slice(0, 30)
    .map((found) => ({
      id: String(found.id),
      page: found["page"] as string,
      title: found["title"] as string,
      section: found["section"] as string,
      excerpt: around(found["text"] as string, found.terms),
    }));
}

const BEFORE = 40;
const MOST = 130;

function around(text: string, terms: readonly string[]): string {
  const at = text.toLowerCase().indexOf(terms[0] ?? "");
  const from = at > BEFORE ? text.indexOf(" ", at - BEFORE) + 1 : 0;
  return `${from ? "… " : ""}${text.slice(from, from + MOST)}${text.length > from + MOST ? " …" : ""}`;
}
