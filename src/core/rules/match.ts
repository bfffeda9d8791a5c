// Matching rules against messages, fast enough to ask every rule of every message in a dry run.
import type { Address } from '../mail/address';
import type { Envelope } from '../mail/envelopeSchema';
import { foldAscii, spellings } from '../text/collation';
import { boundsOfDay } from '../text/day';
import { fits, readPattern } from './pattern';
import {
  conditionsOf,
  endsStation,
  isGroup,
  type Addressing,
  type Condition,
  type DeepCondition,
  type Group,
  type Part,
  type Rule,
} from './rule';

/** What the rules are told of a message. */
export interface RuleMessage {
  /** Its row where it is one of many that were asked at once (messageTable.ts). */
  id?: number;
  envelope: Envelope;
  /** The moment for which it is asked, milliseconds since 1970: ages are counted back from it. */
  now: number;
  /** The id of the account by which it came; null for none. */
  account: string | null;
  /** The Register holds it Safe. */
  safe: boolean;
  /** Its junk score, 0 to 100; null where it was not judged. */
  score: number | null;
  addressed: Addressing;
  /** It answers a message of the person's own. */
  answersOwn: boolean;
  /** Whether a condition holds that looks into more than the envelope. */
  deep(condition: DeepCondition): boolean;
}

const dayLong = 86_400_000;

const canonical = (list: readonly Address[]): string => list.map((a) => `${a.name} <${a.address}>`).join('\n');
const addresses = (list: readonly Address[]): string => list.map(({ address }) => address).join('\n');

/** What conditions on text look into: each a text of lines, one for each address, field or name. */
export const sources = {
  from: ({ written, from }: Envelope) => written?.from ?? canonical([from]),
  to: ({ written, to }: Envelope) => written?.to ?? canonical(to),
  cc: ({ written, cc }: Envelope) => written?.cc ?? canonical(cc),
  // A message with several subjects has them on lines of their own.
  subject: ({ written, subject }: Envelope) => written?.subject ?? subject,
  list: ({ listId }: Envelope) => listId,
  fromAddresses: ({ written, from }: Envelope) =>
    // Without a From field the envelope names its Sender, which is another field.
    written?.from === '' ? '' : [from.address, ...(written?.others ?? [])].join('\n'),
  toAddresses: ({ to }: Envelope) => addresses(to),
  ccAddresses: ({ cc }: Envelope) => addresses(cc),
  attachments: ({ attachments }: Envelope) => attachments.map(({ name }) => name ?? '').join('\n'),
} satisfies Record<string, (envelope: Envelope) => string>;
export type Source = keyof typeof sources;

/** The texts of a message, folded as they are asked for and kept, since many rules ask for the same. */
class MessageTexts {
  private readonly kept: Partial<Record<Source, string>> = {};

  constructor(readonly message: RuleMessage) {}

  of(source: Source): string {
    return (this.kept[source] ??= foldAscii(sources[source](this.message.envelope)));
  }
}

/** A condition made ready, by what it is told: any of some texts, folded; the envelope; its date; or all that is known. */
export type ConditionTest =
  | { by: 'texts'; sources: readonly Source[]; holds: (text: string) => boolean }
  | { by: 'envelope'; holds: (envelope: Envelope) => boolean }
  | { by: 'age'; holds: (date: number, now: number) => boolean }
  | { by: 'message'; holds: (message: RuleMessage) => boolean };

type Test = (texts: MessageTexts) => boolean;

/** How a text is compared with what is looked for. The text must have been folded by foldAscii. */
export function textTest(
  how: 'contains' | 'is' | 'begins' | 'ends' | 'like',
  sought: string,
): (text: string) => boolean {
  const texts = spellings(sought);
  const one = texts.length === 1 ? texts[0] : null;
  switch (how) {
    case 'contains':
      return one !== null ? (value) => value.includes(one) : (value) => texts.some((text) => value.includes(text));
    case 'is':
      return (value) => texts.includes(value);
    case 'begins':
      return (value) => texts.some((text) => value.startsWith(text));
    case 'ends':
      return (value) => texts.some((text) => value.endsWith(text));
    case 'like': {
      const patterns = texts.map(readPattern);
      return (value) => patterns.some((pattern) => fits(pattern, value));
    }
  }
}

/** A test of one line made one of a text of lines; an empty line, where nothing was written, never holds. */
const ofLines =
  (holds: (line: string) => boolean) =>
  (text: string): boolean =>
    text.includes('\n') ? text.split('\n').some((line) => line !== '' && holds(line)) : text !== '' && holds(text);

const addressSources = { from: 'fromAddresses', to: 'toAddresses', cc: 'ccAddresses' } as const;

function peopleTest(fields: readonly ('from' | 'to' | 'cc')[], how: string, sought: string): ConditionTest {
  if (how === 'contains') return { by: 'texts', sources: fields, holds: textTest('contains', sought) };
  const holds =
    how === 'domain'
      ? textTest('ends', `@${sought.replace(/^@/, '')}`)
      : textTest(how === 'is' ? 'is' : 'like', sought);
  return { by: 'texts', sources: fields.map((field) => addressSources[field]), holds: ofLines(holds) };
}

const ready = new WeakMap<Condition, ConditionTest>();

/** A condition made ready; once, since it is asked of message after message. */
export function conditionTest(condition: Condition): ConditionTest {
  let test = ready.get(condition);
  if (!test) ready.set(condition, (test = made(condition)));
  return test;
}

const ofEnvelope = (holds: (envelope: Envelope) => boolean): ConditionTest => ({ by: 'envelope', holds });
const ofMessage = (holds: (message: RuleMessage) => boolean): ConditionTest => ({ by: 'message', holds });

function made(condition: Condition): ConditionTest {
  switch (condition.field) {
    case 'from':
    case 'to':
    case 'cc':
      return peopleTest([condition.field], condition.how, condition.text);
    case 'recipient':
      return peopleTest(['to', 'cc'], condition.how, condition.text);
    case 'subject':
    case 'list':
      return { by: 'texts', sources: [condition.field], holds: ofLines(textTest(condition.how, condition.text)) };
    case 'body':
    case 'header':
      return ofMessage((message) => message.deep(condition));
    case 'size': {
      const { how, bytes } = condition;
      return ofEnvelope(({ size }) => (how === 'over' ? size > bytes : size < bytes));
    }
    case 'attachment':
      if (condition.how === 'any') return ofEnvelope(({ attachments }) => attachments.length > 0);
      return { by: 'texts', sources: ['attachments'], holds: ofLines(textTest('contains', condition.text)) };
    case 'date': {
      const [from, to] = boundsOfDay(Date.parse(`${condition.day}T00:00Z`));
      const within: Record<typeof condition.how, (date: number) => boolean> = {
        before: (date) => date < from,
        on: (date) => date >= from && date < to,
        since: (date) => date >= from,
      };
      const holds = within[condition.how];
      return ofEnvelope(({ date: its }) => its !== null && holds(its));
    }
    case 'age': {
      const span = condition.days * dayLong;
      const over = condition.how === 'over';
      return { by: 'age', holds: (date, now) => (over ? now - date > span : now - date < span) };
    }
    case 'account':
      return ofMessage(({ account }) => account === condition.account);
    case 'standing':
      return ofMessage(({ safe }) => safe === (condition.is === 'safe'));
    case 'score': {
      const { how, score: line } = condition;
      return ofMessage(({ score }) => score !== null && (how === 'over' ? score > line : score < line));
    }
    case 'addressed':
      return ofMessage(({ addressed }) => addressed === condition.is);
    case 'answer':
      return ofMessage(({ answersOwn }) => answersOwn);
    case 'every':
      return ofEnvelope(() => true);
  }
}

/** A condition as a test of one message. */
function compile(condition: Condition): Test {
  const test = conditionTest(condition);
  if (test.by === 'message') return ({ message }) => test.holds(message);
  if (test.by === 'envelope') return ({ message }) => test.holds(message.envelope);
  if (test.by === 'age')
    return ({ message: { envelope, now } }) => envelope.date !== null && test.holds(envelope.date, now);
  const [first, ...others] = test.sources;
  if (others.length === 0) return (texts) => test.holds(texts.of(first));
  return (texts) => test.sources.some((source) => test.holds(texts.of(source)));
}

function compileGroup({ match, of }: Group): Test {
  const tests = of.map((part: Part) => (isGroup(part) ? compileGroup(part) : compile(part)));
  if (match === 'all') return (texts) => tests.every((test) => test(texts));
  if (match === 'any') return (texts) => tests.some((test) => test(texts));
  return (texts) => !tests.some((test) => test(texts));
}

interface CompiledRule {
  rule: Rule;
  when: Test;
  unless: Test | null;
  ends: boolean;
}

/** Says which rules match a message. Those that are off are left out. */
export interface Matcher<M = RuleMessage> {
  /** How many rules are asked. */
  readonly size: number;
  /** The rules that match, in their order. The first that ends the station is the last one asked. */
  matching(message: M): Rule[];
  /** All rules that match, also those that are never asked because an earlier one ends the station. */
  all(message: M): Rule[];
  /** Whether any of them matches. */
  any(message: M): boolean;
}

/** Rules made ready for matching one message at a time. */
export class RuleSet implements Matcher {
  private readonly compiled: CompiledRule[];

  constructor(rules: readonly Rule[]) {
    this.compiled = rules
      .filter((rule) => rule.on)
      .map((rule) => ({
        rule,
        when: compileGroup(rule.when),
        unless: rule.unless && compileGroup(rule.unless),
        ends: endsStation(rule),
      }));
  }

  get size(): number {
    return this.compiled.length;
  }

  matching(message: RuleMessage): Rule[] {
    const out: Rule[] = [];
    if (this.compiled.length === 0) return out;
    const texts = new MessageTexts(message);
    for (const { rule, when, unless, ends } of this.compiled) {
      if (!when(texts) || unless?.(texts)) continue;
      out.push(rule);
      if (ends) break;
    }
    return out;
  }

  all(message: RuleMessage): Rule[] {
    const texts = new MessageTexts(message);
    return this.compiled.filter(({ when, unless }) => when(texts) && !unless?.(texts)).map(({ rule }) => rule);
  }

  any(message: RuleMessage): boolean {
    const texts = new MessageTexts(message);
    return this.compiled.some(({ when, unless }) => when(texts) && !unless?.(texts));
  }
}

/** The conditions of a rule that hold for a message: the reasons for which it matched. */
export function heldBy(rule: Rule, message: RuleMessage): Condition[] {
  const texts = new MessageTexts(message);
  return [...conditionsOf({ when: rule.when, unless: null })].filter((condition) => compile(condition)(texts));
}
