// What the demo's person had decided before: the setup that the demo mailbox rides the sorting line with.
import { newContact } from '../src/core/contacts/contact';
import { colleagues, desk, self } from './cast';
import { timeOfDay, weekdays } from '../src/core/delivery/week';
import { emptySetup, type Setup } from '../src/core/line/setup';
import { readyStamps } from '../src/core/stamps/ready';

const rules: Setup['rules'] = [
  {
    id: 'weather',
    name: 'Weather',
    on: true,
    when: { match: 'all', of: [{ field: 'list', how: 'contains', text: 'marine.skerries-weather.example' }] },
    unless: null,
    then: [{ do: 'move', place: 'folder:weather' }],
  },
  {
    id: 'bulletins',
    name: 'Bulletins to read later',
    on: true,
    when: {
      match: 'any',
      of: [
        { field: 'list', how: 'contains', text: 'shortsea-review' },
        { field: 'list', how: 'contains', text: 'green-ports' },
        { field: 'list', how: 'contains', text: 'ticketwell' },
        { field: 'list', how: 'contains', text: 'crew-welfare' },
        { field: 'list', how: 'contains', text: 'quayside-canteen' },
      ],
    },
    // The newest are in the trays.
    unless: { match: 'any', of: [{ field: 'age', how: 'under', days: 8 }] },
    then: [{ do: 'move', place: 'folder:bulletins' }],
  },
  {
    id: 'machines',
    name: 'Ticket machines',
    on: true,
    when: { match: 'all', of: [{ field: 'from', how: 'contains', text: 'machines.ticketwell.example' }] },
    unless: null,
    then: [
      { do: 'label', label: 'alarm' },
      { do: 'move', place: 'folder:notices' },
    ],
  },
  {
    id: 'telemetry',
    name: '',
    on: true,
    when: { match: 'all', of: [{ field: 'from', how: 'contains', text: 'rota@' }] },
    unless: null,
    then: [{ do: 'move', place: 'folder:notices' }],
  },
  {
    id: 'charters',
    name: 'Charters',
    on: true,
    when: {
      match: 'any',
      of: [
        { field: 'subject', how: 'contains', text: 'charter' },
        { field: 'subject', how: 'contains', text: 'wedding' },
        { field: 'subject', how: 'contains', text: 'school trip' },
      ],
    },
    unless: null,
    then: [{ do: 'label', label: 'charter' }],
  },
  {
    id: 'engine',
    name: 'Engine room',
    on: true,
    when: { match: 'any', of: [{ field: 'from', how: 'contains', text: 'brandt-keel.example' }] },
    unless: null,
    then: [{ do: 'label', label: 'engine' }],
  },
  {
    id: 'gales',
    name: 'Gale warnings',
    on: true,
    when: {
      match: 'all',
      of: [
        { field: 'list', how: 'is', text: 'marine.skerries-weather.example' },
        { field: 'subject', how: 'contains', text: 'gale' },
      ],
    },
    unless: null,
    then: [{ do: 'flag', due: 'today' }],
  },
  {
    id: 'harbour',
    name: 'Harbour business',
    on: true,
    when: {
      match: 'any',
      of: [
        { field: 'from', how: 'domain', text: 'stonness-harbour.example' },
        {
          match: 'all',
          of: [
            { field: 'addressed', is: 'alone' },
            { field: 'subject', how: 'contains', text: 'berth' },
          ],
        },
      ],
    },
    unless: { match: 'any', of: [{ field: 'age', how: 'over', days: 30 }] },
    then: [{ do: 'ink', ink: 'sea' }],
  },
  {
    id: 'limits',
    name: 'Above its limit',
    on: true,
    when: { match: 'all', of: [{ field: 'subject', how: 'contains', text: 'above its limit' }] },
    unless: null,
    then: [{ do: 'ink', ink: 'ochre' }],
  },
];

const contactOf = (n: number) => newContact(`crew-${n}`, colleagues[n].name, colleagues[n].address);

/** One of the stamps that stand ready, as it was taken. */
function taken(name: string): Setup['stamps'][number] {
  const found = readyStamps([]).find((ready) => ready.name === name);
  if (!found) throw new Error(`No ready stamp is called “${name}”.`);
  const { icon, ink, acts } = found;
  return { id: name.toLowerCase().replace(/\W+/g, '-'), name, icon, ink, acts };
}

const stamps: Setup['stamps'] = [
  taken('Answered and done'),
  {
    id: 'charter',
    name: 'Charter enquiry',
    icon: 'ship',
    ink: 'plum',
    acts: [
      { do: 'label', label: 'charter' },
      { do: 'flag', due: 'tomorrow' },
      { do: 'task', due: 'this week' },
    ],
  },
  {
    id: 'engine',
    name: 'Engine room',
    icon: 'tag',
    ink: 'slate',
    acts: [
      { do: 'label', label: 'engine' },
      { do: 'ink', ink: 'slate' },
      { do: 'read' },
      { do: 'move', place: 'archive' },
    ],
  },
  taken('To my manager'),
  taken('To my team'),
  taken('Read this week'),
  {
    id: 'thanks',
    name: 'Thank them',
    icon: 'forward',
    ink: null,
    acts: [{ do: 'answer', block: 'thanks' }, { do: 'read' }, { do: 'move', place: 'archive' }],
  },
  taken('Not for me'),
];

/** The time of day so many minutes after a moment, by the clock of this machine. */
function timeAfter(now: number, minutes: number): string {
  const then = new Date(now + minutes * 60_000);
  return timeOfDay(then.getHours() * 60 + then.getMinutes());
}

/** The demo's trays. One is delivered some minutes after the demo was begun. */
function demoTrays(now: number): Setup['trays'] {
  const list = (text: string) => ({ field: 'list' as const, how: 'contains' as const, text });
  const tray = { labels: [], since: now - 60 * 86_400_000 };
  return [
    {
      ...tray,
      id: 'trade',
      name: 'Trade press',
      when: { match: 'any', of: [list('shortsea-review'), list('green-ports'), list('ticketwell')] },
      round: { by: 'hours', days: ['MO'], times: ['07:00'] },
    },
    {
      ...tray,
      id: 'crew',
      name: 'Crew and canteen',
      when: { match: 'any', of: [list('crew-welfare'), list('quayside-canteen')] },
      round: { by: 'hours', days: ['MO', 'TU', 'WE', 'TH', 'FR'], times: ['12:00', '16:00'] },
    },
    {
      ...tray,
      id: 'telemetry',
      name: 'Fleet telemetry',
      when: { match: 'any', of: [{ field: 'from', how: 'domain', text: 'telemetry.halden-pumps.example' }] },
      round: { by: 'hours', days: [...weekdays], times: [timeAfter(now, 4)] },
    },
  ];
}

/** The demo's setup; `now` in milliseconds since 1970, for the dates of its entries. */
export function demoSetup(now: number): Setup {
  const days = (n: number) => now - n * 86_400_000;
  const entry = (
    id: string,
    kind: 'address' | 'domain' | 'list' | 'own' | 'country' | 'script',
    value: string,
    standing: 'safe' | 'blocked',
    age: number,
    why: string,
  ) => ({
    id,
    kind,
    value,
    standing,
    since: days(age),
    why,
  });
  return {
    ...emptySetup,
    accounts: [
      { id: 'mara', name: self.name, address: self.address },
      { id: 'desk', name: desk.name, address: desk.address },
    ],
    lanes: [],
    searches: [],
    left: [],
    told: [],
    contacts: [
      newContact('marwick', 'Elspeth Marwick', 'e.marwick@stonness-harbour.example'),
      { ...contactOf(0), role: 'manager' },
      ...[1, 2, 4].map((n) => ({ ...contactOf(n), role: 'team' as const })),
    ],
    blocks: [
      { id: 'thanks', name: 'thanks', html: '<p>Thank you, that is noted at the operations desk.</p>' },
      { id: 'late', name: 'late', html: '<p>We are looking into it, and come back to you today.</p>' },
    ],
    stamps,
    junk: {
      strictness: 12,
      keepDays: 30,
      keepFrom: Math.max(1, days(90)),
      toBin: false,
      contactsSafe: true,
      writtenToSafe: true,
      shipped: true,
      carried: null,
    },
    register: [
      entry('pills', 'domain', 'pill-harbour.example', 'blocked', 71, 'Pills, every day'),
      entry('remedies', 'domain', 'cheap-remedies.example', 'blocked', 70, 'Pills again'),
      entry('draw', 'domain', 'global-draw.example', 'blocked', 64, 'Lottery'),
      entry('bargain', 'domain', 'bargain-quay.example', 'blocked', 52, 'Never bought anything there'),
      entry('verify', 'domain', 'isle-savings-verify.example', 'blocked', 33, 'Not our bank'),
      entry('parts', 'domain', 'parts-direct.example', 'blocked', 21, 'Their advertising was too much'),
      entry('travel', 'address', 'deals@isle-and-shore.example', 'blocked', 12, 'No time for holidays'),
      entry('coastwatch', 'domain', 'coastwatch.example', 'safe', 80, 'Must always come through'),
      entry('council', 'domain', 'island-council.example', 'safe', 80, 'The council'),
      entry('marine', 'list', 'marine.skerries-weather.example', 'safe', 75, 'Storm warnings come by it'),
      entry('harbourmaster', 'address', 'e.marwick@stonness-harbour.example', 'safe', 76, 'Harbour master'),
    ],
    trays: demoTrays(now),
    rules,
    folders: [
      { id: 'bulletins', name: 'Bulletins' },
      { id: 'notices', name: 'Machine notices' },
      { id: 'weather', name: 'Weather' },
      { id: 'tides', name: 'Tides', parent: 'weather' },
    ],
    labels: [
      { id: 'alarm', name: 'Alarm', ink: 'brick' },
      { id: 'charter', name: 'Charter', ink: 'plum' },
      { id: 'wedding', name: 'Weddings', ink: 'rose', parent: 'charter' },
      { id: 'engine', name: 'Engine room', ink: 'slate' },
    ],
  };
}
