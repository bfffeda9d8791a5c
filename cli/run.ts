// The verbs of the command line.
import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { demoMailbox } from '../demo/mailbox';
import {
  Conversations,
  DeepTexts,
  deliveriesOf,
  envelopeOf,
  evidenceOf,
  featuresOf,
  isoIn,
  JunkModel,
  Line,
  messageOfStored,
  readForJunk,
  readModel,
  scoreOf,
  SearchedMessages,
  threadable,
  toMbox,
  type Envelope,
  type Message,
  type Setup,
} from '../src/core';
import { reasonOf } from '../src/core/text/sentences';
import { calendar, calendarWrite, invite } from './calendar';
import { contacts, contactsWrite } from './contacts';
import { fileText, messagesOf, OptionError, setupOf, UsageError } from './files';
import { junkEval } from './junkEval';
import { queryOf } from './search';
import { moments } from './moments';
import { sieveRead, sieveWrite } from './sieve';
import { type Output, type Options, timeOf, wholeNumber } from './options';
import { write } from './write';

const usage = `usage: npm run cli -- VERB [FILE…] [options]
  summary FILE… [--json]                    how many messages, how many damaged, how many bytes
  messages FILE… [--json]                   every message: who, when, what
  sort FILE… --setup SETUP.json [--json]    where the sorting line puts every message, and why
  moments SETUP.json --from T --to T [--json]
                                            every delivery that its trays and its timetable hold between two moments
  junk-eval --good FILE… --junk FILE… [--folds N] [--seed S] [--headers]
  junk-eval --train-good FILE… --train-junk FILE… --test-good FILE… --test-junk FILE… [--headers]
  junk-eval --online --good FILE… --junk FILE… [--errors-only] [--shuffled] [--seed S] [--headers]
                                            how good the junk filter is on that mail, as one object; --online:
                                            in the order of arrival, each judged and then marked
  sieve-write SETUP.json                    its rules as a Sieve script; what that can’t say, on standard error
  sieve-read SCRIPT [--setup SETUP.json] [--json]
                                            the setup with the script’s rules, and what was not taken
  search FILE… 'QUERY' [--json]             the messages that a query asks for (keys of IMAP SEARCH, RFC 9051);
                                            --queries FILE: one query a line, --json: the indexes for each
  threads FILE… [--json]                    the conversations (RFC 5256, REFERENCES), who answers whom
  contacts FILE.vcf…                        the contacts of vCards (4.0, 3.0, 2.1), an object a line
  contacts-write CONTACTS.json              contacts as vCard 4.0
  calendar FILE.ics… [--from T --to T]      the tasks and appointments of calendars (RFC 5545), an object a line;
                                            with both moments what of them falls between these
  calendar-write ITEMS.json [--now TIME]    tasks and appointments as a calendar
  invite ITEM.json [--now TIME]             the raw invitation to an appointment (RFC 5546, 6047)
  invite --answer ANSWER FILE.eml [--as ADDRESS]
                                            the raw answer to one: accepted, tentative or declined
  write DRAFT.json [--now TIME] [--sent]    the raw message of a draft, as it goes out; --sent: as it stands in Sent
  demo --count N [--seed S] [--now TIME]    the demo mailbox as an mbox on standard output
`;

/** Runs one command; the exit code: 0, or 2 for anything that the caller has to mend. */
export async function run(args: string[], output: Output): Promise<number> {
  try {
    const { values, positionals } = parseArguments(args);
    const [verb, ...files] = positionals;
    switch (verb) {
      case 'summary':
        await summary(some(files), values, output);
        return 0;
      case 'messages':
        await list(some(files), values, output);
        return 0;
      case 'sort':
        await sort(some(files), values, output);
        return 0;
      case 'moments':
        await moments(files, values, output);
        return 0;
      case 'sieve-write':
        await sieveWrite(files, output);
        return 0;
      case 'sieve-read':
        await sieveRead(files, values, output);
        return 0;
      case 'search':
        await search(files, values, output);
        return 0;
      case 'threads':
        await threads(some(files), values, output);
        return 0;
      case 'junk-eval':
        await junkEval([...files], values, output);
        return 0;
      case 'contacts':
        await contacts(some(files), output);
        return 0;
      case 'contacts-write':
        await contactsWrite(files, output);
        return 0;
      case 'calendar':
        await calendar(some(files), values, output);
        return 0;
      case 'calendar-write':
        await calendarWrite(files, values, output);
        return 0;
      case 'invite':
        await invite(files, values, output);
        return 0;
      case 'write':
        await write(files, values, output);
        return 0;
      case 'demo':
        await demo(values, output);
        return 0;
      case 'help':
        output.out(usage);
        return 0;
      default:
        output.error(verb ? `There is no verb “${verb}”.\n${usage}` : usage);
        return 2;
    }
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    output.error(`${error.message}\n`);
    if (error instanceof OptionError) output.error(usage);
    return 2;
  }
}

function parseArguments(args: string[]): { values: Options; positionals: string[] } {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        json: { type: 'boolean', default: false },
        setup: { type: 'string' },
        count: { type: 'string' },
        seed: { type: 'string' },
        now: { type: 'string' },
        from: { type: 'string' },
        answer: { type: 'string' },
        as: { type: 'string' },
        to: { type: 'string' },
        good: { type: 'string', multiple: true },
        junk: { type: 'string', multiple: true },
        'train-good': { type: 'string', multiple: true },
        'train-junk': { type: 'string', multiple: true },
        'test-good': { type: 'string', multiple: true },
        'test-junk': { type: 'string', multiple: true },
        folds: { type: 'string' },
        headers: { type: 'boolean' },
        online: { type: 'boolean' },
        shuffled: { type: 'boolean' },
        'errors-only': { type: 'boolean' },
        queries: { type: 'string' },
        sent: { type: 'boolean' },
      },
    });
    return { values: { ...values, json: values.json ?? false }, positionals };
  } catch (error) {
    throw new OptionError(reasonOf(error).split('\n')[0]);
  }
}

function some(files: string[]): string[] {
  if (files.length === 0) throw new UsageError('Name at least one file.');
  return files;
}

interface Read {
  index: number;
  envelope: Envelope;
  message: Message;
}

/** Every message of every file, numbered from 0 across them all. */
async function* envelopes(files: string[]): AsyncGenerator<Read> {
  let index = 0;
  for (const file of files)
    for await (const { stored, form } of messagesOf(file)) {
      const message = messageOfStored({ bytes: stored, form });
      yield { index: index++, envelope: envelopeOf(message), message };
    }
}

const json = (value: unknown): string => `${JSON.stringify(value)}\n`;

async function summary(files: string[], options: Options, output: Output): Promise<void> {
  const totals = { messages: 0, damaged: 0, bytes: 0 };
  for await (const { envelope, message } of envelopes(files)) {
    totals.messages++;
    totals.bytes += message.raw.length;
    if (envelope.damage !== null) totals.damaged++;
  }
  if (options.json) output.out(json(totals));
  else output.out(`${totals.messages} messages, ${totals.damaged} of them damaged, ${totals.bytes} bytes\n`);
}

const isoDate = (date: number | null): string | null => (date === null ? null : new Date(date).toISOString());

async function list(files: string[], options: Options, output: Output): Promise<void> {
  for await (const { index, envelope } of envelopes(files)) {
    const { messageId, date, from, to, cc, subject, attachments, textLength } = envelope;
    if (options.json)
      output.out(json({ index, messageId, date: isoDate(date), from, to, cc, subject, attachments, textLength }));
    else output.out(`${index}\t${isoDate(date) ?? '-'}\t${from.address || '-'}\t${subject}\n`);
  }
}

async function sort(files: string[], options: Options, output: Output): Promise<void> {
  if (!options.setup) throw new UsageError('sort needs --setup SETUP.json.');
  const setup = await setupOf(options.setup);
  const now = timeOf(options.now);
  const line = new Line(setup);
  const names = new Map(setup.labels.map((label) => [label.id, label.name]));
  const trays = new Map(setup.trays.map((tray) => [tray.id, tray.name]));
  const { zone } = deliveriesOf(setup);
  const model = await junkModel(setup);
  const own = await ownMessages(files, setup);
  for await (const { index, envelope, message } of envelopes(files)) {
    const reading = readForJunk(message, envelope);
    const score = scoreOf(model.margin(featuresOf(reading)));
    const { place, labels, read, flag, ink, tray, until, trace } = line.decide(envelope, {
      arrives: now,
      score: Math.floor(score),
      now,
      answersOwn: envelope.references.some((id) => own.has(id)),
      deep: new DeepTexts(() => message).holds,
    });
    const named = labels.map((id) => names.get(id) ?? id);
    const evidence = evidenceOf(model, reading, 5);
    if (options.json)
      output.out(
        json({
          index,
          messageId: envelope.messageId,
          place,
          labels: named,
          read,
          flag: flag && { due: isoDate(flag.due) },
          ink,
          tray: tray === null ? null : (trays.get(tray) ?? tray),
          until: until === null || until === Infinity ? null : isoIn(zone, until),
          score,
          evidence,
          trace,
        }),
      );
    else output.out(`${index}\t${place}\t${named.join(', ') || '-'}\t${trace.at(-1)?.says ?? ''}\n`);
  }
}

/** The Message-IDs of what the person wrote, where rules ask for answers to it. */
async function ownMessages(files: string[], setup: Setup): Promise<Set<string>> {
  const own = new Set<string>();
  const { rules, trays, delivery } = setup;
  if (!JSON.stringify([rules, trays, delivery]).includes('"field":"answer"')) return own;
  const addresses = new Set(setup.accounts.map(({ address }) => address));
  for await (const { envelope } of envelopes(files))
    if (envelope.messageId && addresses.has(envelope.from.address.toLowerCase())) own.add(envelope.messageId);
  return own;
}

/** The model that a setup's junk filter begins with: one that an earlier version made is none. */
async function junkModel({ junk }: Setup): Promise<JunkModel> {
  const carried = junk.carried === null ? null : readModel(Buffer.from(junk.carried, 'base64'));
  if (carried?.ok) return carried.model;
  if (!junk.shipped) return new JunkModel();
  const shipped = readModel(await readFile(new URL('../public/junk-model.bin', import.meta.url)));
  return shipped.ok ? shipped.model : new JunkModel();
}

async function search(args: string[], options: Options, output: Output): Promise<void> {
  const files = options.queries ? args : args.slice(0, -1);
  if (files.length === 0)
    throw new UsageError("search needs files and a query: search mail.mbox 'from harbour unseen'");
  const lines = options.queries ? (await fileText(options.queries)).split('\n').filter(Boolean) : [args.at(-1) ?? ''];
  const queries = lines.map(queryOf);
  const searched = new SearchedMessages();
  for await (const read of envelopes(files)) searched.add(read.message, read.envelope);
  for (const query of queries) {
    const found = searched.search(query);
    if (options.queries) output.out(json({ indexes: found }));
    else
      for (const index of found) {
        const { messageId, date, subject } = searched.envelopes[index];
        if (options.json) output.out(json({ index, messageId }));
        else output.out(`${index}\t${isoDate(date) ?? '-'}\t${subject}\n`);
      }
  }
}

async function threads(files: string[], options: Options, output: Output): Promise<void> {
  const all = new Conversations();
  const subjects: string[] = [];
  const dates: number[] = [];
  for await (const { envelope } of envelopes(files)) {
    dates.push(envelope.date ?? 0);
    subjects.push(envelope.subject);
    all.add(threadable(envelope, envelope.date ?? 0));
  }
  for (let index = 0; index < all.count; index++) {
    if (all.conversation(index) !== index) continue;
    const members = all.members(index).sort((a, b) => dates[a] - dates[b] || a - b);
    const parents = members.map((member) => (all.parent(member) < 0 ? null : all.parent(member)));
    if (options.json) output.out(json({ conversation: index, members, parents }));
    else output.out(`${index}\t${members.length}\t${subjects[index]}\n`);
  }
}

async function demo(options: Options, output: Output): Promise<void> {
  const count = wholeNumber(options.count, 'count', null, 1);
  const seed = wholeNumber(options.seed, 'seed', 7);
  const now = timeOf(options.now);
  const mailbox = demoMailbox(count, seed, now);
  for (const [i, { raw, sender, date }] of mailbox.entries()) {
    await output.binary(toMbox(raw, 'eml', sender, date, i === mailbox.length - 1));
  }
}
