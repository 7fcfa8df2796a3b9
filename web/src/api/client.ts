/** Calls to the service. Every failure becomes a ServiceError with a message for the user. */
import { decode } from "@msgpack/msgpack";
import { thisPage } from "./page";
import { ServiceError, STOPPED } from "./errors";
import { lookedAt } from "./looks";
import type { Work } from "./work";
import type {
  BackupWords,
  BeatWords,
  BroughtPictures,
  BroughtScene,
  BroughtPart,
  BroughtSound,
  Changed,
  CopiedObjects,
  Differences,
  DrawnFeel,
  Drive,
  Edit,
  ElementWords,
  ExportLook,
  ExportOptions,
  ExportReport,
  FeelLook,
  FontWords,
  How,
  KeptFeel,
  LaidTrack,
  LaySamples,
  NoteKindWords,
  NotesState,
  OpenedFile,
  OutlinePoints,
  Place,
  PrincipleWords,
  ReadySound,
  RehearsalWords,
  Scene,
  SceneState,
  Shelf,
  SizeWords,
  TableWords,
  Vine,
  Vocabulary,
  WorkState,
} from "./types";

export { ServiceError, STOPPED } from "./errors";
const MSGPACK = "application/vnd.msgpack";

async function call(method: string, path: string, body?: unknown, accept = "*/*", work?: Work): Promise<Response> {
  return answered(path, {
    method,
    signal: work?.signal,
    headers: { accept, ...(body === undefined ? {} : { "content-type": "application/json" }), ...called(work) },
    body: body === undefined ? undefined : typeof body === "string" ? body : JSON.stringify(body),
  });
}

/** The header that identifies a request for progress queries. */
const called = (work?: Work): Record<string, string> => (work ? { "x-work": work.id } : {});

/** Send the bytes of a file. */
const send = (path: string, file: Blob, work?: Work): Promise<Response> =>
  answered(path, {
    method: "POST",
    signal: work?.signal,
    headers: { "content-type": "application/octet-stream", ...called(work) },
    body: file,
  });

async function answered(path: string, request: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, request);
  } catch {
    if (request.signal?.aborted) throw new ServiceError(STOPPED, "Stopped. Nothing was changed.");
    throw new ServiceError(
      0,
      "Vine Swing's server does not answer. Is it still running? Nothing that was saved is lost.",
    );
  }
  if (response.ok) return response;
  const problem = await response.json().catch(() => null);
  throw new ServiceError(response.status, problem?.detail ?? `The server answered ${response.status}.`, problem);
}

const json = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T;
const bytes = async (response: Promise<Response>): Promise<Uint8Array> =>
  new Uint8Array(await (await response).arrayBuffer());

/** What an edit changed, with the motion that changed along with it. */
export interface ChangedMotion {
  readonly changed: Changed;
  readonly motion: Uint8Array;
}

/** What answers with what changed in a scene and its motion at once, as a change of it does. */
async function change(method: string, path: string, body?: unknown, work?: Work): Promise<ChangedMotion> {
  const answer = decode(await bytes(call(method, path, body, MSGPACK, work))) as {
    changed: Uint8Array;
    motion: Uint8Array;
  };
  return { changed: JSON.parse(new TextDecoder().decode(answer.changed)) as Changed, motion: answer.motion };
}

export const api = {
  shelf: () => json<Shelf>(call("GET", "/scenes")),
  backups: () => json<BackupWords[]>(call("GET", "/backups")),
  bringBackup: (name: string) => json<BackupWords[]>(call("POST", `/backups/${name}/bring-back`)),
  principles: () => json<PrincipleWords[]>(call("GET", "/principles")),
  principleMotion: (name: string) => bytes(call("GET", `/principles/${name}/motion`)),
  principleFile: async (name: string) => (await call("GET", `/principles/${name}/file`)).text(),
  vocabulary: () => json<Vocabulary>(call("GET", "/vocabulary")),
  elements: () => json<ElementWords[]>(call("GET", "/elements")),
  elementMotion: (name: string) => bytes(call("GET", `/elements/${name}/motion`)),
  elementFile: async (name: string) => (await call("GET", `/elements/${name}/file`)).text(),
  fonts: () => json<FontWords[]>(call("GET", "/fonts")),
  bringPicture: (file: File, work?: Work) =>
    json<BroughtPictures>(send(`/pictures?${new URLSearchParams({ name: file.name })}`, file, work)),
  bringDrawing: (file: File, work?: Work) =>
    json<BroughtScene>(send(`/drawings?${new URLSearchParams({ name: file.name })}`, file, work)),
  bringTable: (file: File, work?: Work) =>
    json<TableWords>(send(`/tables?${new URLSearchParams({ name: file.name })}`, file, work)),
  bringSound: (file: File, work?: Work) =>
    json<BroughtSound>(send(`/sounds?${new URLSearchParams({ name: file.name })}`, file, work)),
  readySounds: () => json<ReadySound[]>(call("GET", "/ready-sounds")),
  peaks: (file: string) => bytes(call("GET", `/sounds/${file}/peaks`)),
  soundTable: (file: string, fps: number) => json<TableWords>(call("GET", `/sounds/${file}/table?fps=${fps}`)),
  beats: (id: string, sound: string) => json<BeatWords>(call("GET", `/scenes/${id}/sounds/${sound}/beats`)),
  openBundle: (file: File, work?: Work) =>
    json<OpenedFile>(send(`/bundles?${new URLSearchParams({ name: file.name })}`, file, work)),
  lookAtSamples: (id: string, edit: LaySamples) => json<LaidTrack[]>(call("POST", `/scenes/${id}/samples/look`, edit)),
  feels: () => json<KeptFeel[]>(call("GET", "/feels")),
  lookAtFeel: (feel: DrawnFeel) => json<FeelLook>(call("POST", "/feels/look", feel)),
  keepFeel: (name: string, feel: DrawnFeel) => json<KeptFeel>(call("PUT", `/feels/${encodeURIComponent(name)}`, feel)),
  forgetFeel: (name: string) => call("DELETE", `/feels/${encodeURIComponent(name)}`),
  /** The progress of a request, 0…1; null where it is not known. */
  share: async (work: Work) => (await json<WorkState>(call("GET", `/work/${work.id}`))).share,
  createScene: (scene: Partial<Scene>, work?: Work) => json<SceneState>(call("POST", "/scenes", scene, "*/*", work)),
  openFile: (text: string, work?: Work) => json<SceneState>(call("POST", "/scene-files", text, "*/*", work)),
  duplicate: (id: string, work?: Work) => json<SceneState>(call("POST", `/scenes/${id}/copies`, {}, "*/*", work)),
  notes: (id: string) => json<NotesState>(call("GET", `/scenes/${id}/notes`)),
  noteKinds: () => json<NoteKindWords[]>(call("GET", "/note-kinds")),
  noteKindMotion: (name: string, which: "fault" | "sound") => bytes(call("GET", `/note-kinds/${name}/${which}/motion`)),
  parcel: (id: string, objects: readonly string[], frame: number) =>
    json<CopiedObjects>(call("POST", `/scenes/${id}/parcel`, { objects, frame })),
  deleteScene: (id: string) => call("DELETE", `/scenes/${id}`),
  sceneSize: (id: string) => json<SizeWords>(call("GET", `/scenes/${id}/size`)),
  forgetHistory: (id: string, keep: number) => json<SizeWords>(call("POST", `/scenes/${id}/forget-history`, { keep })),
  eraseScene: (id: string) => call("DELETE", `/scenes/${id}/for-good`),
  restoreScene: (id: string) => call("POST", `/scenes/${id}/restore`),
  scene: (id: string, work?: Work) =>
    json<SceneState>(call("GET", `/scenes/${id}?page=${thisPage}`, undefined, "*/*", work)),
  edit: (id: string, revision: number, edits: Edit[], work?: Work) =>
    change("POST", `/scenes/${id}/edits`, { revision, page: thisPage, edits }, work),
  undo: (id: string, revision: number, work?: Work) =>
    change("POST", `/scenes/${id}/undo`, { revision, page: thisPage }, work),
  redo: (id: string, revision: number, work?: Work) =>
    change("POST", `/scenes/${id}/redo`, { revision, page: thisPage }, work),
  changes: (id: string, since: number) => change("GET", `/scenes/${id}/changes?since=${since}&page=${thisPage}`),
  rehearsals: (id: string) => json<RehearsalWords[]>(call("GET", `/scenes/${id}/rehearsals`)),
  keepRehearsal: (id: string, name: string | null) =>
    json<RehearsalWords>(call("POST", `/scenes/${id}/rehearsals`, { name })),
  renameRehearsal: (id: string, rehearsal: string, name: string) =>
    json<RehearsalWords>(call("PATCH", `/scenes/${id}/rehearsals/${rehearsal}`, { name })),
  removeRehearsal: (id: string, rehearsal: string) => call("DELETE", `/scenes/${id}/rehearsals/${rehearsal}`),
  putBackRehearsal: (id: string, rehearsal: string) => call("POST", `/scenes/${id}/rehearsals/${rehearsal}/put-back`),
  rehearsalMotion: (id: string, rehearsal: string) =>
    bytes(call("GET", `/scenes/${id}/rehearsals/${rehearsal}/motion`)),
  rehearsalDifferences: (id: string, rehearsal: string) =>
    json<Differences>(call("GET", `/scenes/${id}/rehearsals/${rehearsal}/differences`)),
  bringBack: (id: string, revision: number, rehearsal: string, parts: readonly BroughtPart[] | null, work?: Work) =>
    change("POST", `/scenes/${id}/rehearsals/${rehearsal}/bring-back`, { revision, page: thisPage, parts }, work),
  /** The motion as it would be after some edits, and how that differs from what is. */
  beside: async (id: string, revision: number, edits: Edit[]) => {
    const answer = decode(await bytes(call("POST", `/scenes/${id}/beside`, { revision, edits }))) as {
      motion: Uint8Array;
      differences: Uint8Array;
    };
    return {
      motion: answer.motion,
      differences: JSON.parse(new TextDecoder().decode(answer.differences)) as Differences,
    };
  },
  motion: (id: string, since?: number, work?: Work) =>
    bytes(call("GET", `/scenes/${id}/motion${since === undefined ? "" : `?since=${since}`}`, undefined, "*/*", work)),
  look: (id: string, revision: number, edits: Edit[]) =>
    lookedAt(id, { revision, edits }, () => bytes(call("POST", `/scenes/${id}/look`, { revision, edits }))),
  vine: (id: string, object: string, channel: string, frame = 0) =>
    json<Vine>(call("GET", `/scenes/${id}/vine?${new URLSearchParams({ object, channel, frame: String(frame) })}`)),
  outline: (id: string, object: string, frame: number) =>
    json<OutlinePoints>(call("GET", `/scenes/${id}/outline?${new URLSearchParams({ object, frame: String(frame) })}`)),
  drives: (id: string) => json<{ revision: number; drives: Drive[] }>(call("GET", `/scenes/${id}/drives`)),
  draftLink: (id: string, draft: { driver: Place; driven: Place[]; how: How; keep_at: number | null }) =>
    json<{ formulas: string[] }>(call("POST", `/scenes/${id}/link-drafts`, draft)),
  lookAtExport: (id: string, options: ExportOptions, frame: number) =>
    json<ExportLook>(call("POST", `/scenes/${id}/exports/look`, { options, frame })),
  exportSize: (id: string, options: ExportOptions, frame: number) =>
    json<{ size: number }>(call("POST", `/scenes/${id}/exports/size`, { options, frame })),
  startExports: (id: string, formats: readonly string[], options: ExportOptions, name: string | null) =>
    json<ExportReport[]>(call("POST", `/scenes/${id}/exports`, { formats, options, name })),
  exports: () => json<ExportReport[]>(call("GET", "/exports")),
  cancelExport: (job: string) => json<ExportReport>(call("POST", `/exports/${job}/cancel`)),
  exportFirst: (job: string) => json<ExportReport>(call("POST", `/exports/${job}/first`)),
  forgetExport: (job: string) => call("DELETE", `/exports/${job}`),
};
