/** A colour with parts 0…1 as `#RRGGBB`, or `#RRGGBBAA` where it can be seen through. */
export function hexOf(rgba: ArrayLike<number>): string {
  const parts = [0, 1, 2, 3].map((i) => Math.round((rgba[i] ?? 1) * 255).toString(16).padStart(2, "0").toUpperCase());
  return `#${parts.slice(0, parts[3] === "FF" ? 3 : 4).join("")}`;
}
