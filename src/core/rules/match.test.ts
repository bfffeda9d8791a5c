import fc from 'fast-check';
import { parseEnvelope } from '../mail/envelope';
import { RuleSet } from './match';
import { conditionWords, ruleName, ruleSchema, type Rule } from './rule';

const envelope = parseEnvelope(
  new TextEncoder().encode(
    'From: "Harbour Office" <Office@Stonness.example>\r\nTo: Desk <desk@ferry.example>\r\nCc: Ana <ana@ferry.example>\r\nSubject: Berth 4: =?utf-8?Q?ge=C3=A4ndert?=\r\nList-Id: Notices <notices.stonness.example>\r\n\r\n',
  ),
);
const rule = (part: Partial<Rule>): Rule => ({
  id: 'r',
  name: '',
  on: true,
  match: 'all',
  when: [{ field: 'subject', contains: 'berth' }],
  then: [{ do: 'read' }],
  ...part,
});
const matches = (part: Partial<Rule>) => new RuleSet([rule(part)]).matching(envelope).length === 1;

test.each([
  ['from', 'harbour office', true],
  ['from', 'office@stonness', true],
  ['from', '<office@', true],
  ['from', 'desk@', false],
  ['to', 'DESK@FERRY', true],
  ['to', 'ana@ferry', true],
  ['to', 'stonness', false],
  ['subject', 'GEÄNDERT', true],
  ['subject', 'berth 5', false],
  ['list', 'notices.stonness', true],
  ['list', 'Notices <', false],
] as const)('%s contains “%s”: %s', (field, contains, held) => {
  expect(matches({ when: [{ field, contains }] })).toBe(held);
});

test('all and any', () => {
  const when = [
    { field: 'subject' as const, contains: 'berth' },
    { field: 'from' as const, contains: 'nobody' },
  ];
  expect(matches({ when, match: 'all' })).toBe(false);
  expect(matches({ when, match: 'any' })).toBe(true);
  const [found] = new RuleSet([rule({ when, match: 'any' })]).matching(envelope);
  expect(found.held).toEqual([when[0]]);
});

test('rules below one that moves are not asked; those that are off never', () => {
  const set = new RuleSet([
    rule({ id: 'off', on: false }),
    rule({ id: 'reads' }),
    rule({ id: 'moves', then: [{ do: 'move', place: 'archive' }] }),
    rule({ id: 'below' }),
  ]);
  expect(set.size).toBe(3);
  expect(set.matching(envelope).map((m) => m.rule.id)).toEqual(['reads', 'moves']);
});

test('matching agrees with the plain reading of all and any', () => {
  const condition = fc.record({
    field: fc.constantFrom('from' as const, 'subject' as const, 'list' as const),
    contains: fc.constantFrom('berth', 'office', 'notices', 'nobody', 'x'),
  });
  fc.assert(
    fc.property(
      fc.array(condition, { minLength: 1, maxLength: 4 }),
      fc.constantFrom('all' as const, 'any' as const),
      (when, match) => {
        const each = when.map((c) => matches({ when: [c] }));
        expect(matches({ when, match })).toBe(match === 'all' ? each.every(Boolean) : each.some(Boolean));
      },
    ),
  );
});

test('a rule is called as the person says, or by its conditions', () => {
  const when = [
    { field: 'list' as const, contains: 'news' },
    { field: 'to' as const, contains: 'desk' },
  ];
  expect(conditionWords(when[0])).toBe('Mailing list contains “news”');
  expect(ruleName(rule({ when }))).toBe('Mailing list contains “news” and To or Cc contains “desk”');
  expect(ruleName(rule({ when, match: 'any' }))).toBe('Mailing list contains “news” or To or Cc contains “desk”');
  expect(ruleName(rule({ name: ' Mine ' }))).toBe('Mine');
});

test('what is no rule is refused', () => {
  expect(ruleSchema.safeParse(rule({})).success).toBe(true);
  expect(ruleSchema.safeParse(rule({ then: [] })).success).toBe(false);
  expect(ruleSchema.safeParse({ ...rule({}), when: [{ field: 'body', contains: 'x' }] }).success).toBe(false);
  expect(ruleSchema.safeParse({ ...rule({}), then: [{ do: 'explode' }] }).success).toBe(false);
});
