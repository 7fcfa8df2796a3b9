/** What is being brought in, and what came of it; shared, so that every way in shows the same. */
import { shallowRef } from "vue";
import { ServiceError, STOPPED } from "@/api/errors";
import type { KeptSound, TableWords } from "@/api/types";
import { Work } from "@/api/work";

/** A file that is being imported: the `done`th of `total` files, counted from 0, and the request that reads it. */
export interface Progress {
  readonly done: number;
  readonly total: number;
  readonly name: string;
  readonly work: Work;
}
/** The file that is being imported. */
export const progress = shallowRef<Progress | null>(null);
/** Sentences about what came of it. */
export const said = shallowRef<readonly string[]>([]);
/** The result of importing a drawing or scene, while its dialog is open. */
export interface Report {
  readonly name: string;
  readonly parts: readonly { readonly id: string; readonly name: string; readonly depth: number }[];
  readonly lost: readonly string[];
}
export const report = shallowRef<Report | null>(null);
/** A table that waits until its columns are assigned. */
export const table = shallowRef<{
  readonly name: string;
  readonly words: TableWords;
  readonly sound: KeptSound | null;
} | null>(null);
/** Files dropped before their scene was open: they are imported once it is. */
export const later = shallowRef<readonly File[]>([]);

/** Add a message. */
export const say = (sentence: string): void => void (said.value = [...said.value, sentence]);
/** Say what is wrong with a file. */
export const sayWrong = (file: File, error: unknown): void =>
  say(error instanceof Error ? error.message : `${file.name} could not be read.`);

/** True if an error is that of a request that the user stopped. */
export const isStopped = (error: unknown): boolean => error instanceof ServiceError && error.status === STOPPED;

/** Import a file by a request that can be stopped, and say what is wrong with the file. */
export async function attempt(file: File, run: (work: Work) => Promise<void>): Promise<void> {
  const work = new Work();
  progress.value = { done: 0, total: 1, name: file.name, work };
  try {
    await run(work);
  } catch (error) {
    sayWrong(file, error);
  } finally {
    progress.value = null;
  }
}
