/** File names: their numbers and extensions, and names for imported objects. */

/** Whether a file is a drawing or a scene. */
export const isScene = (name: string): boolean => /\.(svg|json|vine)$/i.test(name);

export const withoutSuffix = (name: string): string => name.replace(/\.[^.]*$/, "");

/** As much of a name as something can be called, without the characters that formulas give a meaning to. */
export const plainName = (name: string): string => name.replace(/[{}@]/g, "").slice(0, 70);
