// What the demo's person had decided before: the setup that the demo mailbox rides the sorting line with.
import type { Setup } from '../src/core/line/setup';

/** The demo's setup; `now` in milliseconds since 1970, for the dates of its entries. */
export function demoSetup(now: number): Setup {
  const days = (n: number) => now - n * 86_400_000;
  const entry = (
    id: string,
    kind: 'address' | 'domain',
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
    format: 'wide-sort-setup',
    version: 1,
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
      entry('harbourmaster', 'address', 'e.marwick@stonness-harbour.example', 'safe', 76, 'Harbour master'),
    ],
    rules: [
      {
        id: 'weather',
        name: 'Weather',
        on: true,
        match: 'all',
        when: [{ field: 'list', contains: 'marine.skerries-weather.example' }],
        then: [{ do: 'move', place: 'folder:weather' }],
      },
      {
        id: 'bulletins',
        name: 'Bulletins to read later',
        on: true,
        match: 'any',
        when: [
          { field: 'list', contains: 'shortsea-review' },
          { field: 'list', contains: 'green-ports' },
          { field: 'list', contains: 'ticketwell' },
          { field: 'list', contains: 'crew-welfare' },
          { field: 'list', contains: 'quayside-canteen' },
        ],
        then: [{ do: 'move', place: 'folder:bulletins' }],
      },
      {
        id: 'machines',
        name: 'Ticket machines',
        on: true,
        match: 'all',
        when: [{ field: 'from', contains: 'machines.ticketwell.example' }],
        then: [
          { do: 'label', label: 'alarm' },
          { do: 'move', place: 'folder:notices' },
        ],
      },
      {
        id: 'telemetry',
        name: '',
        on: true,
        match: 'any',
        when: [
          { field: 'from', contains: 'noreply@telemetry' },
          { field: 'from', contains: 'rota@' },
        ],
        then: [{ do: 'move', place: 'folder:notices' }],
      },
      {
        id: 'charters',
        name: 'Charters',
        on: true,
        match: 'any',
        when: [
          { field: 'subject', contains: 'charter' },
          { field: 'subject', contains: 'wedding' },
          { field: 'subject', contains: 'school trip' },
        ],
        then: [{ do: 'label', label: 'charter' }],
      },
      {
        id: 'engine',
        name: 'Engine room',
        on: true,
        match: 'any',
        when: [{ field: 'from', contains: 'brandt-keel.example' }],
        then: [{ do: 'label', label: 'engine' }],
      },
    ],
    folders: [
      { id: 'bulletins', name: 'Bulletins' },
      { id: 'notices', name: 'Machine notices' },
      { id: 'weather', name: 'Weather' },
    ],
    labels: [
      { id: 'alarm', name: 'Alarm', ink: 'brick' },
      { id: 'charter', name: 'Charter', ink: 'plum' },
      { id: 'engine', name: 'Engine room', ink: 'slate' },
    ],
  };
}
