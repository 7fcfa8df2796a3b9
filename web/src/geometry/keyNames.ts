/** How the keys that cues are pressed with are called. */
const NAMES: Readonly<Record<string, string>> = {
  space: "Space",
  enter: "Enter",
  arrowleft: "←",
  arrowright: "→",
  arrowup: "↑",
  arrowdown: "↓",
};

/** How a cue's key is written for people. */
export const keyName = (key: string): string => NAMES[key] ?? key.toUpperCase();

/** Whether a cue can have a key: one character, or one of those with a name of its own. */
export const canCue = (key: string): boolean => key in NAMES || (key.length === 1 && key.trim() !== "");
