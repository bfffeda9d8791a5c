// “Where did my mail go?”: what could have taken a message that is missed, and what it did take.
import { addressKey, domainOf, withinDomain } from '../../core/mail/address';
import { placeName } from '../../core/mail/place';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { normalDomain } from '../../core/senders/normal';
import { conditionsOf } from '../../core/rules/rule';
import { rulesRun } from '../../core/rules/stampsRun';
import { ruleName } from '../../core/rules/ruleWords';
import { entryWords, RegisterIndex } from '../../core/senders/register';
import type { Suspect, WhereWent } from '../border/junk';
import { bit } from '../state/columns';
import type { MailState, Loading } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import { rowOf } from './row';
import { expunged } from '../state/internedTables';

const sampleSize = 20;

/** Whether a message is what the words ask for: of that sender or domain, or with all the words in sender or subject. */
function asked(words: string): (envelope: Envelope) => boolean {
  const text = words.trim().toLowerCase();
  const bare = text.replace(/^@/, '');
  const parts = bare.split(/\s+/).filter(Boolean);
  return ({ from, subject }) => {
    const address = addressKey(from.address);
    if (bare !== '' && (address === bare || withinDomain(domainOf(address), bare))) return true;
    const said = `${from.name} ${address} ${subject}`.toLowerCase();
    return parts.length > 0 && parts.every((part) => said.includes(part));
  };
}

/**
 * Every setting that could have kept a message from the Inbox, with what it did take of that: first what took
 * something, the most first; then what took nothing but stands there for that sender.
 */
export async function whereWent(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Pick<Loading, 'ready'> & Judging,
  words: string,
): Promise<WhereWent> {
  await mailbox.ready();
  const { columns, tables, envelopes, derived } = mailbox;
  const fits = asked(words);
  const out: WhereWent = { found: 0, inInbox: 0, suspects: [] };
  if (words.trim() === '') return out;
  const took = new Map<string, number[]>();
  const inbox = tables.placeIndex('inbox');
  const senders = new Map<string, Envelope>();
  for (let id = 0; id < columns.count; id++) {
    const envelope = envelopes.get(id);
    if (derived.isOwn(id) || !fits(envelope)) continue;
    // What was deleted for good is counted too: it is what the person misses most.
    out.found++;
    senders.set(addressKey(envelope.from.address), envelope);
    if (columns.place[id] === inbox) {
      out.inInbox++;
      continue;
    }
    const key = takenBy(mailbox, id);
    const its = took.get(key);
    if (its) its.push(id);
    else took.set(key, [id]);
  }
  // Settings before what somebody did by hand: those take more tomorrow.
  const first = (key: string) => (/^(?:hand|brought)\|/.test(key) ? 1 : 0);
  for (const [key, ids] of [...took].sort((a, b) => first(a[0]) - first(b[0]) || b[1].length - a[1].length)) {
    const [setting, place] = [key.slice(0, key.indexOf('|')), key.slice(key.indexOf('|') + 1)];
    const there = ids.sort((a, b) => columns.date[b] - columns.date[a]).filter((id) => columns.place[id] !== expunged);
    const rows = there.slice(0, sampleSize).map((id) => rowOf(mailbox, id));
    out.suspects.push({ ...suspectWords(mailbox, setting, place), took: ids.length, ids: there, rows });
  }
  const named = new Set(out.suspects.map(({ setting }) => setting));
  for (const suspect of standing(mailbox, words, [...senders.values()]))
    if (!named.has(suspect.setting)) out.suspects.push(suspect);
  return out;
}

/** What took messages, and where they are now, in words. */
function suspectWords(
  { tables, setup }: Pick<MailState, 'tables' | 'setup'>,
  setting: string,
  place: string,
): Pick<Suspect, 'setting' | 'says'> {
  const where =
    place === 'gone' ? 'deleted for good' : `now in ${placeName(tables.place(Number(place)), setup.folders)}`;
  const [kind, id] = [setting.slice(0, setting.indexOf(':')), setting.slice(setting.indexOf(':') + 1)];
  if (kind === 'entry') {
    const entry = setup.register.find((one) => one.id === id);
    return {
      setting: entry ? setting : null,
      says: `${entry ? `The Register: ${entryWords(entry)} is Blocked` : 'An entry of the Register that was taken off since'}; ${where}.`,
    };
  }
  if (kind === 'rule') {
    const rule = setup.rules.find((one) => one.id === id);
    return {
      setting: rule ? setting : null,
      says: `${rule ? `The rule “${ruleName(rule)}”` : 'A rule that was taken off since'}; ${where}.`,
    };
  }
  if (kind === 'tray') {
    const tray = setup.trays.find((one) => one.id === id);
    return {
      setting: tray ? setting : null,
      says: `${tray ? `The tray “${tray.name}”` : 'A tray that was taken off since'}; ${where}.`,
    };
  }
  if (setting === 'delivery') return { setting, says: `Delivery was held back as it came; ${where}.` };
  if (setting === 'junk') return { setting, says: `The junk filter, by its score; ${where}.` };
  if (setting === 'silence') return { setting: null, says: `Its conversation was silenced; ${where}.` };
  if (setting === 'hand') return { setting: null, says: `You moved it; ${where}.` };
  return { setting: null, says: `It was brought in there; ${where}.` };
}

/** By what a message is where it is, and where that is: `entry:ID|3`. */
function takenBy({ columns, tables }: Pick<MailState, 'columns' | 'tables'>, id: number): string {
  const place = columns.place[id] === expunged ? 'gone' : String(columns.place[id]);
  const last = tables.traces.items[columns.trace[id]]?.at(-1);
  const byLine = last && ['register', 'junk', 'rules', 'trays', 'hold', 'silence'].includes(last.station);
  const hand = (columns.bits[id] & bit.byHand) !== 0;
  if (hand && last?.station !== 'import' && last?.station !== 'post office') return `hand|${place}`;
  if (!byLine) return hand ? `brought|${place}` : `hand|${place}`;
  return `${last.station === 'silence' ? 'silence' : (last.by ?? 'hand')}|${place}`;
}

/** Settings that stand there for such a sender, though they took nothing that is here. */
function standing({ setup }: Pick<MailState, 'setup'>, words: string, found: readonly Envelope[]): Suspect[] {
  const out: Suspect[] = [];
  const index = new RegisterIndex(setup.register);
  const text = words.trim().toLowerCase().replace(/^@/, '');
  const typed = text.includes('@') ? text : /^[^\s@]+\.[^\s@]+$/.test(text) ? `anyone@${normalDomain(text)}` : null;
  const entries = new Map(
    [...found.map((envelope) => index.lookUp(envelope)), typed ? index.ofAddress(typed) : null].flatMap((entry) =>
      entry ? [[entry.id, entry] as const] : [],
    ),
  );
  for (const entry of entries.values())
    out.push({
      setting: `entry:${entry.id}`,
      says: `The Register: ${entryWords(entry)} is ${entry.standing === 'safe' ? 'Safe, so it is never Junk' : 'Blocked'}; it took nothing that is here.`,
      took: 0,
      ids: [],
      rows: [],
    });
  for (const rule of rulesRun(setup)) {
    const moves = rule.then.some((action) => action.do === 'move');
    const about = [...conditionsOf(rule)].some((condition) => {
      const sought = 'text' in condition ? condition.text.toLowerCase() : '';
      return sought !== '' && (text.includes(sought) || sought.includes(text));
    });
    if (rule.on && moves && about)
      out.push({
        setting: `rule:${rule.id}`,
        says: `The rule “${ruleName(rule)}” moves such mail; it took nothing that is here.`,
        took: 0,
        ids: [],
        rows: [],
      });
  }
  return out;
}
