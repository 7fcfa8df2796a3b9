/** The colours chosen last, on this machine, the newest first. */
import { useLocalStorage } from "@vueuse/core";

const MOST = 12;

export function useRecentColours() {
  const recent = useLocalStorage<string[]>("recent-colours", []);
  const remember = (hex: string): void =>
    void (recent.value = [hex, ...recent.value.filter((one) => one !== hex)].slice(0, MOST));
  return { recent, remember };
}
