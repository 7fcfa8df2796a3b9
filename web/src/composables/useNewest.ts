/** Of several requests on their way, answers may come in any order; only that of the newest counts. */

/** Begins a request, and hands back whether it is the newest still. */
export function useNewest(): () => () => boolean {
  let newest = 0;
  return () => {
    const mine = ++newest;
    return () => mine === newest;
  };
}
