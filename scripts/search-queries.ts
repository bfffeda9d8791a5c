// The 200 queries of src/core/search/corpus.test.ts, a line each, for scripts/search-table.py. They hold words of real
// mail and are never committed.
import { realMessages } from '../bench/realMessages';
import { someQueries } from '../bench/someQueries';
import { wordsOf } from '../bench/someRules';
import { parseEnvelope } from '../src/core/mail/envelope';

const messages = realMessages().map((raw) => ({ raw, envelope: parseEnvelope(raw) }));
process.stdout.write(`${someQueries(200, wordsOf(messages)).join('\n')}\n`);
