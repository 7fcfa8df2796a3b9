/** The colours that mark objects in lists. */
export const TAGS = [
  { name: "fern", colour: "#3D8B5F" },
  { name: "lagoon", colour: "#2F8FA3" },
  { name: "orchid", colour: "#9A5BB0" },
  { name: "hibiscus", colour: "#D0365B" },
  { name: "mango", colour: "#E08A1E" },
  { name: "bark", colour: "#7A5B3A" },
] as const;
