/** Editing a path in the picture: its points and handles, and putting points on it. */
import { usePathDrag } from "@/composables/path/usePathDrag";
import { usePathGrowing } from "@/composables/path/usePathGrowing";
import { usePathPoints } from "@/composables/path/usePathPoints";
import type { Point } from "@/geometry/matrix";

export function usePathEdit(toPicture: (event: PointerEvent | MouseEvent) => Point) {
  const points = usePathPoints();
  return { ...points, ...usePathDrag(toPicture, points), ...usePathGrowing(toPicture, points) };
}

export type PathEdit = ReturnType<typeof usePathEdit>;
