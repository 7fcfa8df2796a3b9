/** What was chosen in the select element that an event is of. */
export const chosenIn = (event: Event): string => (event.target as HTMLSelectElement).value;
