/** The workspace's keyboard, as one table. */
import type { Shortcut } from "@/composables/useShortcuts";
import { useCopies } from "@/composables/useCopies";
import { useSeveral } from "@/composables/useSeveral";
import { useTroupe } from "@/composables/useTroupe";
import { useChanging } from "@/composables/useChanging";
import { useLeafActions } from "@/composables/useLeafActions";
import { useFigure } from "@/composables/useFigure";
import { useKeyTravel } from "@/composables/useKeyTravel";
import { ARROWS } from "@/geometry/arrows";
import { nextPose } from "@/geometry/poses";
import type { Grip } from "@/composables/usePictureDrag";
import { useGuide } from "@/stores/guide";
import { useInside } from "@/stores/inside";
import { useNotes } from "@/stores/notes";
import { useRehearsals } from "@/stores/rehearsals";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { usePanels } from "@/stores/panels";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";
import { useTimeView } from "@/stores/timeView";

export interface WorkspaceActions {
  readonly nudge: (kind: Grip["kind"], by: Record<string, number>) => void;
  readonly shortcuts: () => void;
  readonly help: () => void;
  readonly find: () => void;
  readonly export: () => void;
  readonly add: () => void;
  readonly live: () => void;
  readonly zoom: (what: "fit" | "picked" | "whole") => void;
  /** Something done to what is being drawn; false where nothing is. */
  readonly drawing: (what: "finish" | "back" | "drop") => boolean;
  /** Something done to the picked points of an outline; false where none are. */
  readonly points: (what: "remove" | "clear") => boolean;
}

export function useWorkspaceShortcuts(actions: WorkspaceActions): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();
  const time = useTimeView();
  const panels = usePanels();
  const troupe = useTroupe();
  const several = useSeveral();
  const changing = useChanging();
  const leaf = useLeafActions();
  const copies = useCopies();
  const inside = useInside();
  const guide = useGuide();
  const notes = useNotes();
  const rehearsals = useRehearsals();
  const sounds = useSounds();
  const { toKey } = useKeyTravel();

  const keyRow = (): void => {
    if (selection.several && selection.row) void several.toggleKeys(selection.row.name);
    else if (selection.thing && selection.row)
      void changing.toggleKeys(
        selection.thing,
        selection.row.channels.map((channel) => channel.name),
      );
  };
  const { figure } = useFigure();
  function toPose(by: 1 | -1): void {
    const steps = figure.value ? scene.motion?.objects.get(figure.value.id)?.steps : undefined;
    const frame = steps && nextPose(steps.poses, playback.frame, by);
    if (frame !== undefined) playback.goTo(frame);
  }
  const withThing = (work: (id: string) => void) => (): void => {
    if (selection.objectId) work(selection.objectId);
  };
  const letGo = (): void => {
    if (actions.drawing("drop")) return;
    if (panels.big) panels.big = false;
    else if (scene.look) scene.letGo();
    else if (actions.points("clear")) return;
    else if (picks.count) picks.clear();
    else selection.pick(null);
  };
  const one = (group: string, keys: string[], says: string, run: (key: string) => void): Shortcut => ({
    group,
    keys,
    says,
    run,
  });

  return [
    one("Time", ["Space"], "Play or pause", playback.toggle),
    one("Time", [","], "One frame back", () => playback.goTo(playback.frame - 1)),
    one("Time", ["."], "One frame on", () => playback.goTo(playback.frame + 1)),
    one("Time", ["<"], "Previous key (Shift and ,)", () => toKey(-1)),
    one("Time", [">"], "Next key (Shift and .)", () => toKey(1)),
    one("Time", ["Home"], "First frame of the play range", () => playback.goTo(playback.from)),
    one("Time", ["End"], "Last frame of the play range", () => playback.goTo(playback.to)),
    one("Time", ["f"], "Type a frame", () => document.getElementById("frame-field")?.focus()),
    one("Time", ["l"], "Start over at the end, or stop there", () => (playback.loop = !playback.loop)),
    one("Time", ["i", "o"], "Zoom the time sheet in or out", (key) => time.zoomBy(key === "i" ? 1.5 : 1 / 1.5)),
    one("Time", ["u"], "Show the whole scene on the time sheet", time.fit),
    one(
      "Time",
      ["y"],
      "Show the picked leaves on the time sheet",
      () => picks.frames.length && time.show(picks.frames[0]!, picks.frames.at(-1)!),
    ),
    one("Time", ["s"], "Lay a marker here, or take it away; tap along while it plays", () => void sounds.tap()),
    one("Time", [";", "'"], "Previous, next pose of the picked figure's steps", (key) => toPose(key === ";" ? -1 : 1)),
    one("Keys", ["k"], "Key the chosen row here, or take its key away", keyRow),
    one("Keys", ["m"], "Key as I move: on or off", () => (selection.keyAsIMove = !selection.keyAsIMove)),
    one("Keys", ["Enter"], "Key what is for looking only; finish what is drawn", () => {
      if (!actions.drawing("finish")) void scene.keepLook();
    }),
    one("Page", ["Backspace"], "Take back the last point of what is drawn", () => void actions.drawing("back")),
    one("Keys", ["Escape"], "Let go: of a look, of leaves, of the object", letGo),
    one("Keys", ["Ctrl+a"], "Pick every leaf of the row", () => leaf.pickAll()),
    one("Keys", ["a"], "Pick every leaf on this frame", () => leaf.pickAll("frame")),
    one("Keys", ["Ctrl+Shift+a"], "Pick every leaf of the object", () => leaf.pickAll("object")),
    one("Keys", ["Ctrl+c"], "Copy the picked leaves; without any, the picked objects", () => {
      leaf.copy();
      if (picks.count) copies.last.value = "keys";
      else void copies.copy();
    }),
    one("Keys", ["Ctrl+v"], "Paste leaves on the picked object, from the playhead on, or the copied objects", () => {
      if (copies.last.value === "keys") void leaf.paste();
      else void copies.paste();
    }),
    one("Picked object", ["Ctrl+x"], "Cut: copy and delete", () => void (picks.count ? undefined : copies.cut())),
    one(
      "Keys",
      ["Ctrl+Shift+v"],
      "Paste onto several objects, or another way",
      () => void (leaf.copied.value && (leaf.pasting.value = true)),
    ),
    one("Keys", ["Ctrl+Alt+f"], "Choose the feel between keys", () => openMenu("feel")),
    one("Keys", ["Ctrl+Alt+e"], "Choose what happens past the keys", () => openMenu("ends")),
    one("Keys", ["Ctrl+Alt+r"], "Put a rule on the chosen row", () => openMenu("rules")),
    one("Keys", ["(", ")"], "Previous, next key of the chosen row", (key) => toKey(key === "(" ? -1 : 1, true)),
    one("Picked object", ["Ctrl+Alt+a"], "Pick every object that hangs on nothing", () =>
      selection.pickAll(scene.wholes.map((it) => it.id)),
    ),
    one("Picked object", ["Ctrl+Alt+i"], "Pick all others instead", () =>
      selection.pickAll(scene.wholes.map((it) => it.id).filter((id) => !selection.picked.includes(id))),
    ),
    one("Picked object", ["Alt+PageUp"], "One nearer in the drawing order", () => void several.order("forward")),
    one("Picked object", ["Alt+PageDown"], "One farther back", () => void several.order("backward")),
    one("Picked object", ["Alt+Home"], "In front of all others beside it", () => void several.order("front")),
    one("Picked object", ["Alt+End"], "Behind all others beside it", () => void several.order("back")),
    one("Picked object", ["Ctrl+Alt+l"], "Lock against picking and moving in the picture, or unlock", () => {
      void several.lock(!selection.picked.every((id) => scene.locked.has(id)));
    }),
    one("Picked object", ["Ctrl+g"], "Make a group of what is picked", () => void several.group()),
    one("Picked object", ["Ctrl+Alt+k"], "Pick all of the same kind", () => several.pickAlike("kind")),
    one("Picked object", ["Ctrl+Alt+c"], "Pick all of the same colour", () => several.pickAlike("colour")),
    one("Picked object", ["Ctrl+Alt+t"], "Pick all with the same colour tag", () => several.pickAlike("tag")),
    one("Picked object", ["PageDown"], "Pick the next object of the troupe", () => troupe.pickNext(1)),
    one("Picked object", ["PageUp"], "Pick the previous one", () => troupe.pickNext(-1)),
    ...nudges(actions.nudge),
    one(
      "Picked object",
      ["r"],
      "Rename",
      withThing((id) => (selection.renaming = id)),
    ),
    one(
      "Picked object",
      ["Ctrl+d"],
      "Duplicate",
      withThing((id) => void (selection.several ? several.duplicate() : troupe.duplicate(id))),
    ),
    one(
      "Picked object",
      ["Delete"],
      "Delete the picked leaves or points, else the object",
      withThing((id) => {
        if (picks.count) void leaf.remove();
        else if (selection.several) void several.remove();
        else if (!actions.points("remove")) void troupe.remove(id);
      }),
    ),
    one(
      "Picked object",
      ["h"],
      "Go inside an inset",
      withThing((id) => inside.enter(id)),
    ),
    one("Picked object", ["Shift+h"], "Go back out", () => inside.leave()),
    one("Page", ["c"], "The whole stage, or what the camera sees", () => (scene.wholeStage = !scene.wholeStage)),
    one("Page", ["q"], "Big picture: all of the page for picture and transport, or the panels back", () => {
      panels.big = !panels.big;
    }),
    one("Page", ["1", "2", "3", "4"], "Fold troupe, values, time sheet or vine away, or bring it back", (key) => {
      const panel = (["troupe", "values", "sheet", "vine"] as const)[Number(key) - 1];
      if (panel) panels.fold(panel);
    }),
    one("Page", ["5"], "Zoom: fit the picture", () => actions.zoom("fit")),
    one("Page", ["6"], "Zoom to the picked thing", () => actions.zoom("picked")),
    one("Page", ["7"], "Zoom to 100 %", () => actions.zoom("whole")),
    one("Page", ["z"], "Hold it and drag to move the picture about", () => undefined),
    one("Page", ["v"], "Pick and move", () => (selection.tool = "pick")),
    one("Page", ["p"], "Move the pivot", () => (selection.tool = "pivot")),
    one("Page", ["w"], "Draw and bend paths", () => (selection.tool = "path")),
    one("Page", ["b"], "Draw outlines, by points or freely", () => (selection.tool = "draw")),
    one("Page", ["e"], "Edit the points of an outline", () => (selection.tool = "points")),
    one("Page", ["d"], "Link: drag from what drives onto what it shall drive", () => (selection.tool = "link")),
    one("Page", ["j"], "Joints of a figure: drag them where they rest", () => (selection.tool = "joints")),
    one("Page", ["x"], "Play live: cues wait for their keys", actions.live),
    one(
      "Page",
      ["g"],
      "Onion skin: show or hide",
      () => (selection.onion = { ...selection.onion, on: !selection.onion.on }),
    ),
    one("Page", ["n"], "Add something new", actions.add),
    one("Page", ["t"], "Path and spacing: show or hide", () => (selection.showPath = !selection.showPath)),
    one("Page", ["Ctrl+z"], "Undo", () => void scene.undo()),
    one("Page", ["Ctrl+Shift+z", "Ctrl+y"], "Redo", () => void scene.redo()),
    one("Page", ["Ctrl+e"], "Export", actions.export),
    one("Page", ["Ctrl+k"], "Find anything by its name", actions.find),
    one("Page", ["Alt+r"], "Rehearsals: kept versions, to compare and bring back", rehearsals.toggle),
    one("Page", ["Alt+s"], "Sound: what is heard, markers and the beat", () => void sounds.toggle()),
    one("Keys", ["Alt+b"], "Put motion on beats", () => sounds.lay()),
    one("Page", ["Alt+n"], "Notes: what could be better about the motion", notes.toggle),
    one("Page", ["F1"], "A first scene, step by step: begin, go on or leave", () =>
      guide.on ? guide.leave() : guide.begin(),
    ),
    one("Page", ["Shift+F1"], "Help: a guide by task, to read and to search", actions.help),
    one("Page", ["?"], "This sheet", actions.shortcuts),
  ];
}

/** Open a menu of the vine, and take the focus into it. */
function openMenu(which: "feel" | "ends" | "rules"): void {
  const button = document.querySelector<HTMLButtonElement>(`[data-open="${which}"]`);
  if (!button || button.disabled) return;
  button.click();
  const inside = `[data-menu="${which}"] :is(input[type=search], [role=radio])`;
  const into = (left: number): void => {
    const first = [...document.querySelectorAll<HTMLElement>(inside)].find((one) => one.checkVisibility());
    if (first) first.focus();
    else if (left) requestAnimationFrame(() => into(left - 1));
  };
  requestAnimationFrame(() => into(20));
}

/** Moving, turning and sizing from the keyboard: small steps, and larger ones with Shift. */
function nudges(nudge: WorkspaceActions["nudge"]): Shortcut[] {
  const group = "Picked object";
  const along = (prefix: string, step: number, kind: "move" | "pivot", says: string): Shortcut => ({
    group,
    keys: Object.keys(ARROWS).map((arrow) => prefix + arrow),
    says,
    run: (key) => {
      const [dx, dy] = ARROWS[key.slice(prefix.length)] ?? [0, 0];
      const [x, y] = kind === "move" ? ["x", "y"] : ["pivot.x", "pivot.y"];
      nudge(kind, dx ? { [x]: dx * step } : { [y]: dy * step });
    },
  });
  const turn = (keys: [string, string], by: number, says: string): Shortcut => ({
    group,
    keys,
    says,
    run: (key) => nudge("turn", { rotation: key === keys[0] ? -by : by }),
  });
  const size = (key: string): void =>
    nudge("scale", { "scale.x": key === "-" ? 1 / 1.02 : 1.02, "scale.y": key === "-" ? 1 / 1.02 : 1.02 });
  return [
    along("", 1, "move", "Move by 1 px"),
    along("Shift+", 10, "move", "Move by 10 px"),
    along("Alt+", 1, "pivot", "Move the pivot by 1 px"),
    turn(["[", "]"], 1, "Turn by 1° to either side"),
    turn(["{", "}"], 15, "Turn by 15° to either side"),
    { group, keys: ["-", "="], says: "A little smaller, a little larger", run: size },
  ];
}
