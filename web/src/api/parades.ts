/** What there is to choose from for parades: arrangements, orders, and which rows of values each needs. */
import { isParade } from "./kinds";
import type { Parade, SceneObject } from "@/api/types";

export type Arrange = Parade["arrange"];

export interface Arrangement {
  readonly arrange: Arrange;
  readonly label: string;
  readonly about: string;
  /** A small drawing, 20 × 20. */
  readonly icon: string;
  /** The rows of values that only some arrangements read. */
  readonly rows: readonly string[];
  /** What an arrangement needs in addition to the element: a guide, or a text among its children. */
  readonly needs?: "guide" | "text";
  /** Whether there are as many copies as it finds places for, however many are asked for. */
  readonly counts?: boolean;
}

export const ARRANGEMENTS: readonly Arrangement[] = [
  {
    arrange: "row",
    label: "Row",
    about: "Side by side, with a gap",
    icon: "M2 7h4v6H2ZM8 7h4v6H8ZM14 7h4v6h-4Z",
    rows: ["Gap"],
  },
  {
    arrange: "column",
    label: "Column",
    about: "One below the other, with a gap",
    icon: "M7 2h6v4H7ZM7 8h6v4H7ZM7 14h6v4H7Z",
    rows: ["Gap"],
  },
  {
    arrange: "grid",
    label: "Grid",
    about: "Rows of a given length",
    icon: "M3 3h5v5H3ZM12 3h5v5h-5ZM3 12h5v5H3ZM12 12h5v5h-5Z",
    rows: ["Gap"],
  },
  {
    arrange: "ring",
    label: "Ring",
    about: "In a ring, starting at the top",
    icon: "M10 2h.01M15.600 4.400h.01M18 10h.01M15.600 15.600h.01M10 18h.01M4.400 15.600h.01M2 10h.01M4.400 4.400h.01",
    rows: ["Ring"],
  },
  {
    arrange: "free",
    label: "Free",
    about: "Each copy is offset right and down by the same distance: drag the last one",
    icon: "M2 3h4v4H2ZM8 8h4v4H8ZM14 13h4v4h-4Z",
    rows: ["Spread"],
  },
  {
    arrange: "nest",
    label: "Nest",
    about: "Nested at one position, each larger",
    icon: "M10 2a8 8 0 1 0 .01 0ZM10 5a5 5 0 1 0 .01 0ZM10 8a2 2 0 1 0 .01 0Z",
    rows: [],
  },
  {
    arrange: "along",
    label: "Along",
    about: "Along another object's path or outline",
    icon: "M2 14c4-12 8 6 16-8",
    rows: ["Along"],
    needs: "guide",
  },
  {
    arrange: "points",
    label: "Points",
    about: "One at each point of an outline",
    icon: "M3 16h.01M8 6h.01M13 12h.01M17 4h.01",
    rows: [],
    needs: "guide",
    counts: true,
  },
  {
    arrange: "letters",
    label: "Letters",
    about: "The letters of its text, one by one",
    icon: "M3 15 6 6l3 9M4 12h4M12 15V6h3a2 2 0 0 1 0 4.500h-3M15.500 10.500a2 2 0 0 1 0 4.500H12",
    rows: ["Along"],
    needs: "text",
    counts: true,
  },
  {
    arrange: "words",
    label: "Words",
    about: "The words of its text, one by one",
    icon: "M2 10h6M11 10h7",
    rows: ["Along"],
    needs: "text",
    counts: true,
  },
  {
    arrange: "lines",
    label: "Lines",
    about: "The lines of its text, one by one",
    icon: "M3 5h14M3 10h10M3 15h12",
    rows: ["Along"],
    needs: "text",
    counts: true,
  },
];

export const ORDERS: readonly { order: Parade["order"]; says: string }[] = [
  { order: "first", says: "the first starts" },
  { order: "last", says: "the last starts" },
  { order: "middle", says: "the middle starts" },
  { order: "ends", says: "both ends start" },
  { order: "chance", says: "by chance" },
];

export const NEW_PARADE: Parade = {
  arrange: "row",
  columns: 4,
  turned: false,
  guide: null,
  order: "first",
  seed: 1,
  feel: "even",
  wraps: false,
  front: "last",
  geometric: false,
  measured_at: 0,
  lists: [],
  overrules: [],
};

export const arrangementOf = (arrange: Arrange): Arrangement =>
  ARRANGEMENTS.find((one) => one.arrange === arrange) ?? ARRANGEMENTS[0]!;

/** How an object shows copies, if it is a parade. */
export const paradeOf = (thing: SceneObject | null | undefined): Parade | null =>
  isParade(thing) ? thing.parade : null;

/** The rows that say how copies are laid out and timed: those that are wanted most while a parade is picked. */
const FIRST = [
  "Copies",
  "Delay",
  "Gap",
  "Spread",
  "Ring",
  "Along",
  "Shift",
  "Copy size",
  "Copy turn",
  "Copy opacity",
  "Copy slant",
];

/** Whether a row of values has any say in how a parade is laid out. */
function isRead(parade: Parade, row: string): boolean {
  if (row === "Along" && !parade.guide) return false;
  if (row === "Copies" && arrangementOf(parade.arrange).counts) return false;
  return ARRANGEMENTS.every((one) => !one.rows.includes(row)) || arrangementOf(parade.arrange).rows.includes(row);
}

/** The rows of an object that mean something: of a parade those that its arrangement reads, its own first. */
export function rowsRead<T extends { readonly name: string }>(thing: SceneObject, rows: readonly T[]): readonly T[] {
  const parade = paradeOf(thing);
  if (!parade) return rows;
  const place = (row: T): number => FIRST.indexOf(row.name) + 1 || FIRST.length + 1;
  return rows.filter((row) => isRead(parade, row.name)).sort((a, b) => place(a) - place(b));
}
