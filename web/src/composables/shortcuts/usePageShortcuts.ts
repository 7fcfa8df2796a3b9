/** Shortcuts of the page: tools, what is shown, undo, and what can be opened. */
import { inGroup, type WorkspaceActions } from "@/composables/shortcuts/table";
import type { Shortcut } from "@/composables/useShortcuts";
import { useGuide } from "@/stores/guide";
import { useNotes } from "@/stores/notes";
import { usePanels } from "@/stores/panels";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const shortcut = inGroup("Page");

export function usePageShortcuts(actions: WorkspaceActions): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const panels = usePanels();
  const guide = useGuide();
  const notes = useNotes();
  const rehearsals = useRehearsals();
  const sounds = useSounds();

  return [
    shortcut(["Backspace"], "Take back the last point of what is drawn", () => void actions.drawing("back")),
    shortcut(["c"], "The whole stage, or what the camera sees", () => (scene.wholeStage = !scene.wholeStage)),
    shortcut(["q"], "Big picture: all of the page for picture and transport, or the panels back", () => {
      panels.big = !panels.big;
    }),
    shortcut(["1", "2", "3", "4"], "Fold troupe, values, time sheet or vine away, or bring it back", (key) => {
      const panel = (["troupe", "values", "sheet", "vine"] as const)[Number(key) - 1];
      if (panel) panels.fold(panel);
    }),
    shortcut(["5"], "Zoom: fit the picture", () => actions.zoom("fit")),
    shortcut(["6"], "Zoom to the picked thing", () => actions.zoom("picked")),
    shortcut(["7"], "Zoom to 100 %", () => actions.zoom("whole")),
    shortcut(["z"], "Hold it and drag to move the picture about", () => undefined),
    shortcut(["v"], "Pick and move", () => (selection.tool = "pick")),
    shortcut(["p"], "Move the pivot", () => (selection.tool = "pivot")),
    shortcut(["w"], "Draw and bend paths", () => (selection.tool = "path")),
    shortcut(["b"], "Draw outlines, by points or freely", () => (selection.tool = "draw")),
    shortcut(["e"], "Edit the points of an outline", () => (selection.tool = "points")),
    shortcut(["d"], "Link: drag from what drives onto what it shall drive", () => (selection.tool = "link")),
    shortcut(["j"], "Joints of a figure: drag them where they rest", () => (selection.tool = "joints")),
    shortcut(["x"], "Play live: cues wait for their keys", actions.live),
    shortcut(
      ["g"],
      "Onion skin: show or hide",
      () => (selection.onion = { ...selection.onion, on: !selection.onion.on }),
    ),
    shortcut(["n"], "Add something new", actions.add),
    shortcut(["t"], "Path and spacing: show or hide", () => (selection.showPath = !selection.showPath)),
    shortcut(["Ctrl+z"], "Undo", () => void scene.undo()),
    shortcut(["Ctrl+Shift+z", "Ctrl+y"], "Redo", () => void scene.redo()),
    shortcut(["Ctrl+e"], "Export", actions.export),
    shortcut(["Ctrl+k"], "Find anything by its name", actions.find),
    shortcut(["Alt+r"], "Rehearsals: kept versions, to compare and bring back", rehearsals.toggle),
    shortcut(["Alt+s"], "Sound: what is heard, markers and the beat", () => void sounds.toggle()),
    shortcut(["Alt+n"], "Notes: what could be better about the motion", notes.toggle),
    shortcut(["F1"], "A first scene, step by step: begin, go on or leave", () =>
      guide.on ? guide.leave() : guide.begin(),
    ),
    shortcut(["Shift+F1"], "Help: a guide by task, to read and to search", actions.help),
    shortcut(["?"], "This sheet", actions.shortcuts),
  ];
}
