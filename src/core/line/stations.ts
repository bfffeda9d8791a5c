// The stations of the sorting line, and their names on the screen.

/** The stations in their order. */
export const stations = ['register', 'junk', 'rules', 'inbox'] as const;
export type Station = (typeof stations)[number];

/** The stations' names on the screen. */
export const stationNames: Record<Station, string> = {
  register: 'Register',
  junk: 'Junk filter',
  rules: 'Rules',
  inbox: 'Inbox',
};
