// Days where the person is. A day is named by its midnight in UTC, milliseconds since 1970; in the person's zone it begins
// earlier or later, and may be an hour shorter or longer.

const dayLong = 86_400_000;

/** The moment at which a day begins where the person is. */
function beginning(day: number): number {
  const date = new Date(day);
  return new Date(date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate()).getTime();
}

/** The moments at which a day begins where the person is, and ends. */
export const boundsOfDay = (day: number): [from: number, to: number] => [beginning(day), beginning(day + dayLong)];

/** How far east of UTC the person is at the beginning of a day, in minutes. */
export const zoneOnDay = (day: number): number => (day - beginning(day)) / 60_000;
