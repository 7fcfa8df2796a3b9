/** The first scene, step by step: what to do, where, and how to tell that it is done. */
import { keysOf } from "@/api/channels";
import type { SceneObject } from "@/api/types";

/** What the page shows, as far as the steps ask for it. */
export interface Seen {
  readonly objects: readonly SceneObject[];
  /** The picked object. */
  readonly picked: SceneObject | null;
  readonly frame: number;
  readonly playing: boolean;
}

export interface GuideStep {
  readonly title: string;
  readonly says: string;
  /** The same by keyboard. */
  readonly keys: string;
  /** What the words speak of, as a CSS selector. */
  readonly at: string;
  readonly done: (seen: Seen) => boolean;
}

const heights = (seen: Seen): readonly number[] =>
  seen.objects.flatMap((one) => keysOf(one, "y").map((key) => key.frame));
const anyChannel = (seen: Seen, test: (name: string, thing: SceneObject) => boolean): boolean =>
  seen.objects.some((thing) => Object.keys(thing.channels ?? {}).some((name) => test(name, thing)));
/** Whether something has two keys of different value on one channel. */
export const moves = (seen: Seen): boolean =>
  anyChannel(seen, (name, thing) => new Set(keysOf(thing, name).map((key) => String(key.value))).size > 1);

export const FIRST_SCENE: readonly GuideStep[] = [
  {
    title: "Something to move",
    says: "Add an ellipse: the mango. Press Enter to keep its name.",
    keys: "N, then Down and Enter",
    at: "[aria-label='Add to the picture']",
    done: (seen) => seen.objects.length > 0,
  },
  {
    title: "First position",
    says: "Drag it to the top of the picture. This adds a leaf: a key that stores its position at this frame.",
    keys: "Shift+Up a few times",
    at: "[data-testid='picture-canvas']",
    done: (seen) => heights(seen).length > 0,
  },
  {
    title: "Another time",
    says: "The second position needs a second time: go to frame 18.",
    keys: "F, 18, Enter",
    at: "#frame-field",
    done: (seen) => {
      const keyed = heights(seen);
      return keyed.length > 0 && !keyed.includes(seen.frame);
    },
  },
  {
    title: "Where it lands",
    says: "Drag it to the bottom. It now falls between the two keys. Each dot is a frame; the dots are close together where it is slow.",
    keys: "Shift+Down a few times",
    at: "[data-testid='picture-canvas']",
    done: moves,
  },
  {
    title: "For ever",
    says: "Under Ends, choose ping-pong after the last key: it now moves up and down forever.",
    keys: "Ctrl+Alt+E, then Tab and Enter",
    at: "[data-open='ends']",
    done: (seen) => anyChannel(seen, (name, thing) => thing.channels?.[name]?.after.mode === "ping-pong"),
  },
  {
    title: "With weight",
    says: "A falling object starts slowly and lands fast. Under Feel, choose Slow out.",
    keys: "Ctrl+Alt+F, then Tab and Enter",
    at: "[data-open='feel']",
    done: (seen) =>
      anyChannel(seen, (name, thing) =>
        keysOf(thing, name).some((key) => key.ease !== "linear" && key.ease !== "hold"),
      ),
  },
  {
    title: "Soft",
    says: "Add the rule Squash & stretch. It changes the motion but not your keys.",
    keys: "Ctrl+Alt+R, type squash, Enter",
    at: "[data-open='rules']",
    done: (seen) => seen.objects.some((one) => one.rules.length > 0),
  },
  {
    title: "Watch it",
    says: "Play. Drag a leaf on the time sheet during playback, and watch the timing change.",
    keys: "Space",
    at: "[aria-label='Play'], [aria-label='Pause']",
    done: (seen) => seen.playing,
  },
];

/** The first step from one on that is not done yet; their number once all are. */
export function nextStep(from: number, seen: Seen): number {
  let at = from;
  while (at < FIRST_SCENE.length && FIRST_SCENE[at]!.done(seen)) at += 1;
  return at;
}
