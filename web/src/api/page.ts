/** Who this page is to the service: an id that lasts as long as the tab, so that each page takes back its own steps. */
const NAME = "page";

function remembered(): string {
  // Tests of parts run without a browser.
  if (typeof sessionStorage === "undefined") return "test";
  const known = sessionStorage.getItem(NAME);
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem(NAME, made);
  return made;
}

export const thisPage = remembered();
