/** How the keys of a shortcut are written on the page. */
const NAMES: Readonly<Record<string, string>> = {
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  PageUp: "Page Up",
  PageDown: "Page Down",
};

/** The keys that are pressed together, one by one. */
export const keyWords = (key: string): string[] =>
  key.split(/\+(?=.)/).map((part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part));
