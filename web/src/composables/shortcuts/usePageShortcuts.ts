/** Shortcuts of the page: tools, what is shown, undo, and what can be opened. */
import { rowsOf, type WorkspaceActions } from "@/composables/shortcuts/table";
import type { Shortcut } from "@/composables/useShortcuts";
import { useGuide } from "@/stores/guide";
import { useNotes } from "@/stores/notes";
import { usePanels } from "@/stores/panels";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const one = rowsOf("Page");

export function usePageShortcuts(actions: WorkspaceActions): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const panels = usePanels();
  const guide = useGuide();
  const notes = useNotes();
  const rehearsals = useRehearsals();
  const sounds = useSounds();

  return [
    one(["Backspace"], "Take back the last point of what is drawn", () => void actions.drawing("back")),
    one(["c"], "The whole stage, or what the camera sees", () => (scene.wholeStage = !scene.wholeStage)),
    one(["q"], "Big picture: all of the page for picture and transport, or the panels back", () => {
      panels.big = !panels.big;
    }),
    one(["1", "2", "3", "4"], "Fold troupe, values, time sheet or vine away, or bring it back", (key) => {
      const panel = (["troupe", "values", "sheet", "vine"] as const)[Number(key) - 1];
      if (panel) panels.fold(panel);
    }),
    one(["5"], "Zoom: fit the picture", () => actions.zoom("fit")),
    one(["6"], "Zoom to the picked thing", () => actions.zoom("picked")),
    one(["7"], "Zoom to 100 %", () => actions.zoom("whole")),
    one(["z"], "Hold it and drag to move the picture about", () => undefined),
    one(["v"], "Pick and move", () => (selection.tool = "pick")),
    one(["p"], "Move the pivot", () => (selection.tool = "pivot")),
    one(["w"], "Draw and bend paths", () => (selection.tool = "path")),
    one(["b"], "Draw outlines, by points or freely", () => (selection.tool = "draw")),
    one(["e"], "Edit the points of an outline", () => (selection.tool = "points")),
    one(["d"], "Link: drag from what drives onto what it shall drive", () => (selection.tool = "link")),
    one(["j"], "Joints of a figure: drag them where they rest", () => (selection.tool = "joints")),
    one(["x"], "Play live: cues wait for their keys", actions.live),
    one(["g"], "Onion skin: show or hide", () => (selection.onion = { ...selection.onion, on: !selection.onion.on })),
    one(["n"], "Add something new", actions.add),
    one(["t"], "Path and spacing: show or hide", () => (selection.showPath = !selection.showPath)),
    one(["Ctrl+z"], "Undo", () => void scene.undo()),
    one(["Ctrl+Shift+z", "Ctrl+y"], "Redo", () => void scene.redo()),
    one(["Ctrl+e"], "Export", actions.export),
    one(["Ctrl+k"], "Find anything by its name", actions.find),
    one(["Alt+r"], "Rehearsals: kept versions, to compare and bring back", rehearsals.toggle),
    one(["Alt+s"], "Sound: what is heard, markers and the beat", () => void sounds.toggle()),
    one(["Alt+n"], "Notes: what could be better about the motion", notes.toggle),
    one(["F1"], "A first scene, step by step: begin, go on or leave", () => (guide.on ? guide.leave() : guide.begin())),
    one(["Shift+F1"], "Help: a guide by task, to read and to search", actions.help),
    one(["?"], "This sheet", actions.shortcuts),
  ];
}
