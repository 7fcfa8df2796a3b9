import { expect, test } from "vitest";
import { bytesText, secondsText } from "@/geometry/amounts";

test.each([
  [0, "0 bytes"],
  [940, "940 bytes"],
  [12_440, "12.4 kB"],
  [999_999, "1000 kB"],
  [3_120_000, "3.1 MB"],
  [250_000_000, "250 MB"],
  [4_000_000_000_000, "4000 GB"],
])("%d bytes", (bytes, said) => expect(bytesText(bytes)).toBe(said));

test.each([
  [0.4, "0 s"],
  [59.4, "59 s"],
  [60, "1 min"],
  [125, "2 min 5 s"],
  [3600, "1 h"],
  [4200, "1 h 10 min"],
])("%d s", (seconds, said) => expect(secondsText(seconds)).toBe(said));
