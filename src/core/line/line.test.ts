import { newContact } from '../contacts/contact';
import fc from 'fast-check';
import { parseEnvelope } from '../mail/envelope';
import { type Envelope } from '../mail/envelopeSchema';
import type { Place } from '../mail/place';
import type { Rule } from '../rules/rule';
import type { Entry } from '../senders/register';
import { Line } from './decide';
import { dryRun, type Candidate } from './dryRun';
import { checkSetup, emptySetup, parseSetup, type Setup } from './setup';

const envelope = (fields: Record<string, string>): Envelope =>
  parseEnvelope(
    new TextEncoder().encode(
      `${Object.entries(fields)
        .map(([n, v]) => `${n}: ${v}\r\n`)
        .join('')}\r\nHello\r\n`,
    ),
  );

const entry = (value: string, standing: Entry['standing']): Entry => ({
  id: value,
  kind: value.includes('@') ? 'address' : 'domain',
  value,
  standing,
  since: 0,
  why: '',
});

const rule = (id: string, part: Partial<Rule>): Rule => ({
  id,
  name: '',
  on: true,
  when: { match: 'all', of: [{ field: 'subject', how: 'contains', text: id }] },
  unless: null,
  then: [{ do: 'move', place: 'archive' }],
  ...part,
});

const setup = (part: Partial<Setup>): Setup => ({
  ...emptySetup,
  folders: [{ id: 'f', name: 'Fuel' }],
  labels: [{ id: 'l', name: 'Later', ink: 'sea' }],
  ...part,
});

describe('the sorting line', () => {
  test('without a setup everything comes to the Inbox, and says so station by station', () => {
    expect(new Line(emptySetup).decide(envelope({ From: 'a@b.test' }))).toEqual({
      place: 'inbox',
      labels: [],
      read: false,
      tray: null,
      until: null,
      delivered: null,
      putOff: null,
      sends: [],
      follows: [],
      ink: null,
      flag: null,
      trace: [
        { station: 'register', by: null, says: 'No entry for it.' },
        { station: 'junk', by: 'junk', says: 'The filter is off.' },
        { station: 'rules', by: null, says: 'There are no rules.' },
        { station: 'trays', by: null, says: 'There are no trays.' },
        { station: 'hold', by: null, says: 'It keeps only what comes in.' },
        { station: 'inbox', by: null, says: 'No station took it, so it came to the Inbox.' },
      ],
    });
  });

  test('a blocked sender ends the ride in Junk: no rule is asked', () => {
    const line = new Line(
      setup({
        register: [entry('b.test', 'blocked')],
        rules: [rule('x', { when: { match: 'all', of: [{ field: 'from', how: 'contains', text: 'b.test' }] } })],
      }),
    );
    const { place, trace } = line.decide(envelope({ From: 'a@b.test' }));
    expect(place).toBe('junk');
    expect(trace).toEqual([
      { station: 'register', by: 'entry:b.test', says: 'The domain b.test is Blocked, so it went to Junk.' },
    ]);
  });

  test('a safe sender goes on to the rules', () => {
    const line = new Line(
      setup({ register: [entry('a@b.test', 'safe'), entry('b.test', 'blocked')], rules: [rule('x', {})] }),
    );
    expect(line.decide(envelope({ From: 'a@b.test', Subject: 'about x' }))).toMatchObject({
      place: 'archive',
      trace: [{ says: 'a@b.test is Safe: never Junk.' }, { by: 'junk' }, { by: 'rule:x' }],
    });
  });

  test('rules are asked from the top; the first that moves ends the station; labels and reading add up', () => {
    const line = new Line(
      setup({
        rules: [
          rule('one', {
            when: { match: 'all', of: [{ field: 'recipient', how: 'contains', text: 'DESK' }] },
            then: [{ do: 'label', label: 'l' }, { do: 'read' }],
          }),
          rule('two', {
            name: 'Fuel',
            when: {
              match: 'any',
              of: [
                { field: 'list', how: 'contains', text: 'nope' },
                { field: 'subject', how: 'contains', text: 'fuel' },
              ],
            },
            then: [{ do: 'move', place: 'folder:f' }],
          }),
          rule('three', {
            when: { match: 'all', of: [{ field: 'subject', how: 'contains', text: 'fuel' }] },
            then: [{ do: 'move', place: 'bin' }],
          }),
        ],
      }),
    );
    const decision = line.decide(envelope({ From: 'a@b.test', To: 'Ops', Cc: 'desk@c.test', Subject: 'Fuel again' }));
    expect(decision).toMatchObject({ place: 'folder:f', labels: ['l'], read: true });
    expect(decision.trace.map((t) => t.says)).toEqual([
      'No entry for it.',
      'The filter is off.',
      '“To or Cc contains “DESK”” labelled it Later, marked it read (To or Cc contains “DESK”).',
      '“Fuel” moved it to Fuel (Subject contains “fuel”).',
    ]);
  });

  test('a rule that is off, or whose folder is gone, moves nothing', () => {
    const off = new Line(setup({ rules: [rule('x', { on: false })] }));
    expect(off.decide(envelope({ Subject: 'x' })).place).toBe('inbox');
    const orphan = new Line(setup({ folders: [], rules: [rule('x', { then: [{ do: 'move', place: 'folder:f' }] })] }));
    const { place, trace } = orphan.decide(envelope({ Subject: 'x' }));
    expect(place).toBe('inbox');
    expect(trace[2].says).toMatch(/its folder is gone/);
  });

  test('every message has one place, safe mail is never junk by the Register, and the last line of the trace took it', () => {
    const domain = fc.constantFrom('a.test', 'b.a.test', 'c.test');
    const some = fc.record({
      register: fc.uniqueArray(fc.tuple(domain, fc.constantFrom<Entry['standing']>('safe', 'blocked')), {
        selector: ([d]) => d,
      }),
      subject: fc.constantFrom('x', 'y', ''),
      from: domain,
    });
    fc.assert(
      fc.property(some, ({ register, subject, from }) => {
        const line = new Line(setup({ register: register.map(([d, s]) => entry(d, s)), rules: [rule('x', {})] }));
        const decision = line.decide(envelope({ From: `p@${from}`, Subject: subject }));
        const safe = decision.trace.some((t) => / is Safe/.test(t.says));
        if (safe) expect(decision.place).not.toBe('junk');
        const last = decision.trace.at(-1)?.station;
        expect(last).toBe({ junk: 'register', archive: 'rules', inbox: 'inbox' }[decision.place as string]);
      }),
    );
  });
});

describe('the junk filter’s station', () => {
  const on = (part: Partial<Setup['junk']> = {}, rest: Partial<Setup> = {}) =>
    new Line(setup({ junk: { ...emptySetup.junk, strictness: 10, ...part }, ...rest }));
  const mail = envelope({ From: 'a@b.test', Subject: 'x' });

  test.each([
    ['below the line', { score: 89 }, 'inbox', 'Score 89 of 100: below your line at 90.'],
    ['at the line', { score: 90 }, 'junk', 'Score 90 of 100: at or above your line at 90, so it went to Junk.'],
    ['not judged', {}, 'inbox', 'It was not judged.'],
    ['written to', { score: 99, writtenTo: true }, 'inbox', 'Not asked, because you wrote to a@b.test.'],
  ])('%s', (_what, knowledge, place, says) => {
    const decision = on().decide(mail, knowledge);
    expect(decision.place).toBe(place);
    expect(decision.trace[1]).toEqual({ station: 'junk', by: 'junk', says });
  });

  test('contacts, safe entries and the Bin', () => {
    const contacts = [newContact('c', '', 'a@b.test')];
    expect(on({}, { contacts }).decide(mail, { score: 99 }).place).toBe('inbox');
    expect(on({ contactsSafe: false }, { contacts }).decide(mail, { score: 99 }).place).toBe('junk');
    expect(on({ toBin: true }).decide(mail, { score: 99 })).toMatchObject({ place: 'bin' });
    const safe = on({}, { register: [entry('b.test', 'safe')] }).decide(mail, { score: 99 });
    expect(safe.trace[1].says).toBe('Not asked, because the domain b.test is Safe.');
    expect(safe.place).toBe('inbox');
  });

  test('what it takes no rule is asked about; what it lets pass goes on to them', () => {
    const rules = [rule('x', {})];
    expect(on({}, { rules }).decide(mail, { score: 95 }).place).toBe('junk');
    expect(on({}, { rules }).decide(mail, { score: 5 }).place).toBe('archive');
  });

  test('a safe sender’s mail is never junk, a message has exactly one place, and a stricter line never lets more pass', () => {
    const some = fc.record({
      strictness: fc.integer({ min: 0, max: 99 }),
      score: fc.integer({ min: 0, max: 100 }),
      standing: fc.constantFrom<Entry['standing'] | null>('safe', 'blocked', null),
      writtenTo: fc.boolean(),
    });
    fc.assert(
      fc.property(some, ({ strictness, score, standing, writtenTo }) => {
        const register = standing ? [entry('b.test', standing)] : [];
        const place = (by: number) => on({ strictness: by }, { register }).decide(mail, { score, writtenTo }).place;
        expect(['inbox', 'junk']).toContain(place(strictness));
        if (standing === 'safe') expect(place(strictness)).toBe('inbox');
        if (standing === 'blocked') expect(place(strictness)).toBe('junk');
        if (strictness > 0 && strictness < 99 && place(strictness) === 'junk')
          expect(place(strictness + 1)).toBe('junk');
      }),
    );
  });
});

describe('the dry run', () => {
  const candidate = (id: number, from: string, place: Place, byHand = false): Candidate => ({
    id,
    envelope: envelope({ From: from, Subject: `x ${id}` }),
    place,
    labels: [],
    read: false,
    byHand,
  });

  test('says what would move, and leaves alone what the person placed, wrote or binned', () => {
    const mail = [
      candidate(0, 'a@b.test', 'inbox'),
      candidate(1, 'a@b.test', 'inbox', true),
      candidate(2, 'a@b.test', 'sent'),
      candidate(3, 'a@b.test', 'bin'),
      candidate(4, 'z@c.test', 'inbox'),
      candidate(5, 'a@b.test', 'archive'),
    ];
    const changes = dryRun(mail, emptySetup, setup({ register: [entry('b.test', 'blocked')] }));
    expect(changes.map((c) => [c.id, c.from, c.to])).toEqual([
      [0, 'inbox', 'junk'],
      [5, 'archive', 'junk'],
    ]);
  });

  test('taking an entry off brings back what it took', () => {
    const blocked = setup({ register: [entry('b.test', 'blocked')] });
    expect(dryRun([candidate(0, 'a@b.test', 'junk')], blocked, emptySetup)).toMatchObject([
      { from: 'junk', to: 'inbox' },
    ]);
  });

  test('what it says is what a run of the line gives, and a second run changes nothing', () => {
    const after = setup({
      register: [entry('b.test', 'blocked')],
      rules: [rule('x 1', { then: [{ do: 'label', label: 'l' }, { do: 'read' }] }), rule('x 2', {})],
    });
    const mail = Array.from({ length: 30 }, (_, id) => candidate(id, id % 3 ? 'a@b.test' : 'z@c.test', 'inbox'));
    const changes = dryRun(mail, emptySetup, after);
    const line = new Line(after);
    const moved = mail.map((m) => {
      const change = changes.find((c) => c.id === m.id);
      expect(line.decide(m.envelope).place).toBe(change?.to ?? m.place);
      if (!change) return m;
      const { label = [], read = false } = change.changes;
      return { ...m, place: change.to, labels: label, read: m.read || read };
    });
    expect(changes.length).toBeGreaterThan(20);
    expect(dryRun(moved, after, after)).toEqual([]);
  });
});

describe('the setup', () => {
  const good = setup({
    register: [entry('b.test', 'safe')],
    rules: [rule('x', { then: [{ do: 'move', place: 'folder:f' }] })],
  });

  test('a whole one is read', () => {
    expect(parseSetup(JSON.stringify(good))).toEqual({ ok: true, setup: good });
  });

  test.each([
    ['no JSON', '{', /^no JSON: /],
    ['a newer version', { ...good, version: 3 }, /^version 3 is newer than this program reads \(2\)$/],
    ['another document', { hello: 1 }, /^format: /],
    ['a missing part', { ...good, rules: undefined }, /^rules: /],
    [
      'an unknown place',
      { ...good, rules: [{ ...good.rules[0], then: [{ do: 'move', place: 'attic' }] }] },
      /^rules\[0\]\.then\[0\]\.place: must be inbox/,
    ],
    [
      'a folder that is not there',
      { ...good, folders: [] },
      /^rules\[0\]\.then\[0\]\.place: there is no folder with the id “f”$/,
    ],
    [
      'a label that is not there',
      { ...good, labels: [], rules: [rule('x', { then: [{ do: 'label', label: 'l' }] })] },
      /there is no label/,
    ],
    [
      'a rule without conditions',
      { ...good, rules: [rule('x', { when: { match: 'all', of: [] } })] },
      /^rules\[0\]\.when\.of: needs at least one condition$/,
    ],
    [
      'an entry not in its normal form',
      { ...good, register: [{ ...entry('b.test', 'safe'), value: 'B.test' }] },
      /should be “b\.test”/,
    ],
    [
      'an entry twice',
      { ...good, register: [entry('b.test', 'safe'), { ...entry('b.test', 'blocked'), id: 'other' }] },
      /^register\[1\]\.value: “b\.test” stands in the Register twice$/,
    ],
    [
      'an id twice',
      { ...good, folders: [...good.folders, { id: 'f', name: 'Another' }] },
      /^folders\[\d\]\.id: “f” stands there twice$/,
    ],
    [
      'an entry from no moment',
      { ...good, register: [{ ...entry('b.test', 'safe'), since: 1e300 }] },
      /^register\[0\]\.since: must be a moment/,
    ],
    ['junk kept from no moment', { ...good, junk: { ...good.junk, keepFrom: 1e300 } }, /^junk\.keepFrom/],
    ...['javascript:alert(1)', '//evil.test/', 'inbox'].map((of): [string, unknown, RegExp] => [
      `a lane of ${of}`,
      { ...good, lanes: [{ id: 'l', of, name: 'x', what: { by: 'query', query: 'unseen' } }] },
      /^lanes\[0\]\.of: must be the address of a place/,
    ]),
  ])('%s is refused with the place and the reason', (_what, document, error) => {
    const result =
      typeof document === 'string' ? parseSetup(document) : checkSetup(JSON.parse(JSON.stringify(document)));
    expect(result.ok ? '' : result.error).toMatch(error);
  });
});
