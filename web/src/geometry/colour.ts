/** A colour with parts 0…1 as `#RRGGBB`, or `#RRGGBBAA` where it can be seen through. */
export function hexOf(rgba: ArrayLike<number>): string {
  const parts = [0, 1, 2, 3].map((i) =>
    Math.round((rgba[i] ?? 1) * 255)
      .toString(16)
      .padStart(2, "0")
      .toUpperCase(),
  );
  return `#${parts.slice(0, parts[3] === "FF" ? 3 : 4).join("")}`;
}

/** How light a colour is (ITU-R BT.709), of as much as its parts. */
export const luma = (red: number, green: number, blue: number): number => 0.2126 * red + 0.7152 * green + 0.0722 * blue;

/** `#rgb`, `#rgba`, `#rrggbb` or `#rrggbbaa` as a colour with parts 0…1. */
export function rgbaOf(hex: string): [number, number, number, number] {
  const digits = hex.slice(1);
  const long = digits.length <= 4 ? [...digits].map((digit) => digit + digit).join("") : digits;
  const part = (n: number): number => parseInt(long.slice(2 * n, 2 * n + 2) || "ff", 16) / 255;
  return [part(0), part(1), part(2), part(3)];
}
