import fc from 'fast-check';
import { AccountIndex } from '../mail/account';
import { parseEnvelope } from '../mail/envelope';
import { DeepTexts } from './deep';
import { heldBy, RuleSet } from './match';
import { messageFor } from './ruleTesting';
import { ruleSchema, type Condition, type Group, type Rule } from './rule';
import { conditionWords, ruleName, ruleSentence } from './ruleWords';
import { Message } from '../mail/message';

const raw = new TextEncoder().encode(
  [
    'From: "Harbour Office" <Office@Stonness.example>',
    'To: Desk <desk@ferry.example>',
    'Cc: Ana <ana@ferry.example>',
    'Subject: Berth 4: =?utf-8?Q?ge=C3=A4ndert?=',
    'Date: Thu, 3 Sep 2026 23:30:00 +0000',
    'X-Priority: 1 (highest)',
    'X-Loop: one',
    'X-Loop: two',
    'List-Id: Notices <notices.stonness.example>',
    'Content-Type: text/plain; charset=utf-8',
    '',
    'The tide is high,',
    'the berth is closed.',
  ].join('\r\n'),
);
const envelope = parseEnvelope(raw);
const now = Date.parse('2026-09-13T23:30Z');
const accounts = new AccountIndex([{ id: 'desk', name: 'Desk', address: 'desk@ferry.example' }]);
const message = messageFor(envelope, accounts, { now, score: 40, deep: new DeepTexts(() => new Message(raw)).holds });

const group = (match: Group['match'], ...of: Group['of']): Group => ({ match, of });
const rule = (part: Partial<Rule>): Rule => ({
  id: 'r',
  name: '',
  on: true,
  when: group('all', { field: 'subject', how: 'contains', text: 'berth' }),
  unless: null,
  then: [{ do: 'read' }],
  ...part,
});
const matches = (part: Partial<Rule>) => new RuleSet([rule(part)]).matching(message).length === 1;
const holds = (condition: Condition) => matches({ when: group('all', condition) });

test.each<[Condition, boolean]>([
  [{ field: 'from', how: 'contains', text: 'harbour office' }, true],
  [{ field: 'from', how: 'contains', text: 'office@stonness' }, true],
  [{ field: 'from', how: 'contains', text: 'desk@' }, false],
  [{ field: 'from', how: 'is', text: 'office@stonness.example' }, true],
  [{ field: 'from', how: 'is', text: 'stonness.example' }, false],
  [{ field: 'from', how: 'domain', text: 'STONNESS.example' }, true],
  [{ field: 'from', how: 'domain', text: 'example' }, false],
  [{ field: 'from', how: 'like', text: 'of*@*.example' }, true],
  [{ field: 'to', how: 'contains', text: 'DESK@FERRY' }, true],
  [{ field: 'to', how: 'contains', text: 'ana@ferry' }, false],
  [{ field: 'cc', how: 'contains', text: 'ana@ferry' }, true],
  [{ field: 'recipient', how: 'is', text: 'ana@ferry.example' }, true],
  [{ field: 'subject', how: 'contains', text: 'GEÄNDERT' }, true],
  [{ field: 'subject', how: 'contains', text: 'geändert' }, true],
  [{ field: 'subject', how: 'begins', text: 'berth 4' }, true],
  [{ field: 'subject', how: 'ends', text: 'berth 4' }, false],
  [{ field: 'subject', how: 'like', text: 'berth ?:*' }, true],
  [{ field: 'subject', how: 'like', text: 'berth' }, false],
  [{ field: 'list', how: 'contains', text: 'stonness' }, true],
  [{ field: 'list', how: 'is', text: 'Notices <' }, false],
  [{ field: 'body', how: 'contains', text: 'high, the berth' }, true],
  [{ field: 'body', how: 'contains', text: 'low' }, false],
  [{ field: 'header', name: 'x-priority', how: 'begins', text: '1' }, true],
  [{ field: 'header', name: 'X-Loop', how: 'is', text: 'two' }, true],
  [{ field: 'header', name: 'X-Loop', how: 'there', text: '' }, true],
  [{ field: 'header', name: 'X-None', how: 'there', text: '' }, false],
  [{ field: 'size', how: 'over', bytes: 100 }, true],
  [{ field: 'size', how: 'under', bytes: 100 }, false],
  [{ field: 'attachment', how: 'any', text: '' }, false],
  [{ field: 'date', how: 'on', day: '2026-09-03' }, true],
  [{ field: 'date', how: 'before', day: '2026-09-03' }, false],
  [{ field: 'date', how: 'since', day: '2026-09-03' }, true],
  [{ field: 'age', how: 'over', days: 9 }, true],
  [{ field: 'age', how: 'over', days: 10 }, false],
  [{ field: 'account', account: 'desk' }, true],
  [{ field: 'standing', is: 'safe' }, false],
  [{ field: 'score', how: 'over', score: 39 }, true],
  [{ field: 'score', how: 'under', score: 40 }, false],
  [{ field: 'addressed', is: 'among' }, true],
  [{ field: 'addressed', is: 'alone' }, false],
  [{ field: 'answer' }, false],
  [{ field: 'every' }, true],
])('%j: %s', (condition, held) => {
  expect(holds(condition)).toBe(held);
});

const yes: Condition = { field: 'subject', how: 'contains', text: 'berth' };
const no: Condition = { field: 'from', how: 'contains', text: 'nobody' };

test('all, any, none; nested once; unless', () => {
  expect(matches({ when: group('all', yes, no) })).toBe(false);
  expect(matches({ when: group('any', yes, no) })).toBe(true);
  expect(matches({ when: group('none', no) })).toBe(true);
  expect(matches({ when: group('all', yes, { match: 'any', of: [no, yes] }) })).toBe(true);
  expect(matches({ unless: group('any', no, yes) })).toBe(false);
  expect(matches({ unless: group('all', no, yes) })).toBe(true);
  expect(heldBy(rule({ when: group('any', yes, no) }), message)).toEqual([yes]);
});

test('rules that are off are not asked; what moves or stops is the last one asked', () => {
  const rules = [
    rule({ id: 'off', on: false }),
    rule({ id: 'reads' }),
    rule({ id: 'moves', then: [{ do: 'move', place: 'archive' }] }),
    rule({ id: 'below' }),
  ];
  const set = new RuleSet(rules);
  expect(set.size).toBe(3);
  expect(set.matching(message).map(({ id }) => id)).toEqual(['reads', 'moves']);
  expect(set.all(message).map(({ id }) => id)).toEqual(['reads', 'moves', 'below']);
  const stops = new RuleSet([rule({ id: 'stops', then: [{ do: 'stop' }] }), rule({ id: 'below' })]);
  expect(stops.matching(message).map(({ id }) => id)).toEqual(['stops']);
});

test('groups obey logic', () => {
  const conditions = fc.array(fc.constantFrom(yes, no), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(conditions, (of) => {
      const each = of.map(holds);
      expect(matches({ when: group('all', ...of) })).toBe(each.every(Boolean));
      expect(matches({ when: group('any', ...of) })).toBe(each.some(Boolean));
      expect(matches({ when: group('none', ...of) })).toBe(!each.some(Boolean));
    }),
  );
});

test('a rule names itself until the person names it', () => {
  const when = group('any', { field: 'list', how: 'contains', text: 'news' }, { match: 'all', of: [yes, no] });
  expect(conditionWords(yes)).toBe('Subject contains “berth”');
  expect(ruleName(rule({ when, unless: group('any', no) }))).toBe(
    'Mailing list contains “news” or (Subject contains “berth” and From contains “nobody”), unless From contains “nobody”',
  );
  expect(ruleName(rule({ name: ' Mine ' }))).toBe('Mine');
  expect(
    ruleSentence(
      rule({
        then: [
          { do: 'ink', ink: 'sea' },
          { do: 'flag', due: 'today' },
        ],
      }),
      { folders: [], labels: [], accounts: [] },
    ),
  ).toBe('When Subject contains “berth”, then ink its row in sea, flag it for today.');
});

test('the schema says what a rule needs, and takes up rules of the first version', () => {
  expect(ruleSchema.safeParse(rule({})).success).toBe(true);
  expect(ruleSchema.safeParse(rule({ then: [] })).success).toBe(false);
  expect(ruleSchema.safeParse(rule({ when: group('all') })).success).toBe(false);
  expect(ruleSchema.safeParse({ ...rule({}), then: [{ do: 'explode' }] }).success).toBe(false);
  const day = (value: string) =>
    ruleSchema.safeParse(rule({ when: group('all', { field: 'date', how: 'on', day: value }) }));
  expect(day('2026-02-28').success).toBe(true);
  expect(day('2026-02-30').success).toBe(false);
  const old = {
    id: 'r',
    name: '',
    on: true,
    match: 'any',
    when: [{ field: 'to', contains: 'x' }],
    then: [{ do: 'read' }],
  };
  expect(ruleSchema.parse(old)).toEqual(
    rule({ when: group('any', { field: 'recipient', how: 'contains', text: 'x' }) }),
  );
});

test('a hostile pattern takes no longer than its length times that of the text', () => {
  const hostile: Condition = { field: 'subject', how: 'like', text: `${'*a'.repeat(240)}b` };
  const long = messageFor({ ...envelope, subject: 'a'.repeat(2_000), written: undefined }, accounts);
  // With backtracking over every * this would take longer than the universe is old.
  expect(new RuleSet([rule({ when: group('all', hostile) })]).matching(long)).toEqual([]);
});
