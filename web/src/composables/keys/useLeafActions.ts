/** What can be done with the picked keys, wherever they are, or with the whole row they are in. */
import { useKeyCopies } from "@/composables/keys/useKeyCopies";
import { useKeyRemoving } from "@/composables/keys/useKeyRemoving";
import { useKeyScopes } from "@/composables/keys/useKeyScopes";
import { useKeyTiming } from "@/composables/keys/useKeyTiming";

export function useLeafActions() {
  const scopes = useKeyScopes();
  const copies = useKeyCopies();
  const removing = useKeyRemoving();

  /** Copy the picked keys of the picked object, and delete them. */
  async function cut(): Promise<void> {
    const picked = copies.own();
    if (picked.length && copies.copy()) await removing.remove(picked);
  }

  return { ...scopes, ...useKeyTiming(scopes), ...copies, ...removing, cut };
}
