import { expect, it } from "vitest";
import { anchorOf, PAGES, pictureAt, search } from "@/help/pages";

it("has every page of the guide in its order, then those for engineers", () => {
  expect(PAGES[0]?.slug).toBe("first-scene");
  expect(PAGES.filter((page) => page.inner).map((page) => page.slug)).toEqual(["architecture", "extending"]);
  expect(PAGES.filter((page) => !page.inner).length).toBeGreaterThan(12);
});

it.each([
  ["onion", "paths", "Onion skin"],
  ["skeletton", "walking", "Acting on top"],
  ["forget history", "room", "What a scene takes"],
  ["beat", "sound", "Sound"],
  ["squash stretch", "rules", "Principles as rules"],
])("finds %s", (words, page, section) => {
  const hits = search(words);
  expect(hits.map((hit) => [hit.page, hit.section])).toContainEqual([page, section]);
});

it("finds nothing in nonsense, and shows the words around what it found", () => {
  expect(search("xqzzyv")).toEqual([]);
  expect(search("hatched")[0]?.excerpt).toContain("hatched");
});

it("ships every picture that a page shows, and no page has two headings of one name", () => {
  for (const page of PAGES) {
    for (const [, href] of page.text.matchAll(/!\[[^\]]*\]\(([^)]+)\)/g)) expect(pictureAt(href!), href).toBeTruthy();
    const anchors = [...page.text.matchAll(/^## (.+)$/gm)].map(([, heading]) => anchorOf(heading!));
    expect(new Set(anchors).size).toBe(anchors.length);
  }
});
