// The conditions of src/core/rules/corpus.test.ts, a line each, for scripts/rules-table.py. They hold words of real mail
// and are never committed.
import { realMessages } from '../bench/realMessages';
import { someConditions } from '../bench/someConditions';
import { wordsOf } from '../bench/someRules';
import { parseEnvelope } from '../src/core/mail/envelope';

const messages = realMessages().map((raw) => ({ raw, envelope: parseEnvelope(raw) }));
for (const condition of someConditions(300, wordsOf(messages))) process.stdout.write(`${JSON.stringify(condition)}\n`);
