/** Files that a drag or a choice brings. */

/** The files that a drag brings, if it brings any. */
export const filesOf = (event: DragEvent): readonly File[] => [...(event.dataTransfer?.files ?? [])];
export const bringsFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes("Files") ?? false;
