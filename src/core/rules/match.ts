// Matching rules against messages, fast enough to ask every rule of every message in a dry run.
import type { Address } from '../mail/address';
import type { Envelope } from '../mail/envelope';
import { foldAscii, spellings } from './fold';
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

/** The texts of a message, folded as they are asked for and kept, since many rules ask for the same. */
class MessageTexts {
  private readonly kept: Partial<Record<'from' | 'to' | 'cc' | 'subject' | 'list', string>> = {};

  constructor(readonly message: RuleMessage) {}

  of(field: 'from' | 'to' | 'cc' | 'subject' | 'list'): string {
    return (this.kept[field] ??= foldAscii(this.read(field)));
  }

  private read(field: 'from' | 'to' | 'cc' | 'subject' | 'list'): string {
    const { written, from, to, cc, subject, listId } = this.message.envelope;
    switch (field) {
      case 'from':
        return written?.from ?? canonical([from]);
      case 'to':
        return written?.to ?? canonical(to);
      case 'cc':
        return written?.cc ?? canonical(cc);
      case 'subject':
        return written?.subject ?? subject;
      case 'list':
        return listId;
    }
  }
}

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

function peopleTest(fields: readonly ('from' | 'to' | 'cc')[], how: string, sought: string): Test {
  if (how === 'contains') {
    const holds = textTest('contains', sought);
    if (fields.length === 1) return (texts) => holds(texts.of(fields[0]));
    return (texts) => fields.some((field) => holds(texts.of(field)));
  }
  const holds =
    how === 'domain'
      ? textTest('ends', `@${sought.replace(/^@/, '')}`)
      : textTest(how === 'is' ? 'is' : 'like', sought);
  const fitting = (address: string) => address !== '' && holds(foldAscii(address));
  const test = ({ address }: Address) => fitting(address);
  const one: Record<'from' | 'to' | 'cc', Test> = {
    // Without a From field the envelope names its Sender, which is another field.
    from: ({ message: { envelope } }) =>
      envelope.written?.from !== '' && (test(envelope.from) || (envelope.written?.others?.some(fitting) ?? false)),
    to: ({ message }) => message.envelope.to.some(test),
    cc: ({ message }) => message.envelope.cc.some(test),
  };
  return (texts) => fields.some((field) => one[field](texts));
}

const compiled = new WeakMap<Condition, Test>();

/** A condition as a test; made once, since the reasons of a rule are asked for message after message. */
function compile(condition: Condition): Test {
  let test = compiled.get(condition);
  if (!test) compiled.set(condition, (test = made(condition)));
  return test;
}

function made(condition: Condition): Test {
  switch (condition.field) {
    case 'from':
    case 'to':
    case 'cc':
      return peopleTest([condition.field], condition.how, condition.text);
    case 'recipient':
      return peopleTest(['to', 'cc'], condition.how, condition.text);
    case 'subject':
    case 'list': {
      const { field } = condition;
      const holds = textTest(condition.how, condition.text);
      return (texts) => {
        const text = texts.of(field);
        // A message with several subjects has them on lines of their own.
        return text.includes('\n') ? text.split('\n').some(holds) : text !== '' && holds(text);
      };
    }
    case 'body':
    case 'header':
      return ({ message }) => message.deep(condition);
    case 'size': {
      const { how, bytes } = condition;
      return ({ message: { envelope } }) => (how === 'over' ? envelope.size > bytes : envelope.size < bytes);
    }
    case 'attachment': {
      if (condition.how === 'any') return ({ message }) => message.envelope.attachments.length > 0;
      const holds = textTest('contains', condition.text);
      return ({ message }) => message.envelope.attachments.some(({ name }) => holds(foldAscii(name ?? '')));
    }
    case 'date': {
      const [from, to] = [Date.parse(`${condition.day}T00:00Z`), Date.parse(`${condition.day}T00:00Z`) + dayLong];
      const within: Record<typeof condition.how, (date: number) => boolean> = {
        before: (date) => date < from,
        on: (date) => date >= from && date < to,
        since: (date) => date >= from,
      };
      const holds = within[condition.how];
      return ({ message: { envelope } }) => envelope.date !== null && holds(envelope.date);
    }
    case 'age': {
      const span = condition.days * dayLong;
      const over = condition.how === 'over';
      return ({ message: { envelope, now } }) =>
        envelope.date !== null && (over ? now - envelope.date > span : now - envelope.date < span);
    }
    case 'account':
      return ({ message }) => message.account === condition.account;
    case 'standing':
      return ({ message }) => message.safe === (condition.is === 'safe');
    case 'score': {
      const { how, score } = condition;
      return ({ message }) =>
        message.score !== null && (how === 'over' ? message.score > score : message.score < score);
    }
    case 'addressed':
      return ({ message }) => message.addressed === condition.is;
    case 'answer':
      return ({ message }) => message.answersOwn;
    case 'every':
      return () => true;
  }
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

/** Rules made ready for matching; those that are off are left out. */
export class RuleSet {
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

  /** How many rules are asked. */
  get size(): number {
    return this.compiled.length;
  }

  /** The rules that match, in their order. The first that ends the station is the last one asked. */
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

  /** All rules that match, also those that are never asked because an earlier one ends the station. */
  all(message: RuleMessage): Rule[] {
    const texts = new MessageTexts(message);
    return this.compiled.filter(({ when, unless }) => when(texts) && !unless?.(texts)).map(({ rule }) => rule);
  }

  /** Whether any of them matches. */
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

/** Conditions one by one: which of them hold for a message, in their order. */
export class ConditionTests {
  private readonly tests: Test[];

  constructor(readonly conditions: readonly Condition[]) {
    this.tests = conditions.map(compile);
  }

  holding(message: RuleMessage): boolean[] {
    const texts = new MessageTexts(message);
    return this.tests.map((test) => test(texts));
  }
}
