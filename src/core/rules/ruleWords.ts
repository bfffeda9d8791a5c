// Rules in words: conditions, actions, names.
import { isGroup, type Condition, type ConditionField, type Group, type Part, type Rule } from './rule';
import { actionWords } from '../effects/effects';

/** The words for what a condition looks at, as they begin a sentence. */
export const fieldWords: Record<ConditionField, string> = {
  from: 'From',
  to: 'To',
  cc: 'Cc',
  recipient: 'To or Cc',
  subject: 'Subject',
  body: 'Text',
  header: 'Header field',
  list: 'Mailing list',
  size: 'Size',
  attachment: 'Attachment',
  date: 'Date',
  age: 'Age',
  account: 'Account',
  standing: 'Standing of the sender',
  score: 'Junk score',
  addressed: 'Addressed',
  answer: 'Answers me',
  every: 'Every message',
};

/** How a condition compares, in words. */
export const howWords = {
  contains: 'contains',
  is: 'is',
  domain: 'is of the domain',
  like: 'is like',
  begins: 'begins with',
  ends: 'ends with',
  there: 'is there',
  over: 'over',
  under: 'under',
  any: 'of any name',
  before: 'before',
  on: 'on',
  since: 'since',
} as const;

export const addressingWords = { alone: 'to me alone', among: 'to me among others', not: 'without naming me' } as const;

/** What names the ids in a rule. */
export interface RuleNames {
  folders: readonly { id: string; name: string }[];
  labels: readonly { id: string; name: string }[];
  accounts: readonly { id: string; name: string }[];
}

const nameOf = (list: readonly { id: string; name: string }[], id: string, gone: string): string =>
  list.find((item) => item.id === id)?.name ?? gone;

/** A size in bytes: `412 bytes`, `18 KB`, `2.4 MB`. */
function bytesWords(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`;
  return bytes < 1_000_000 ? `${bytes / 1_000} KB` : `${bytes / 1_000_000} MB`;
}

/** A condition in words: `Subject contains “fuel”`. */
export function conditionWords(condition: Condition, names?: RuleNames): string {
  const field = fieldWords[condition.field];
  switch (condition.field) {
    case 'header':
      return condition.how === 'there'
        ? `Header field ${condition.name} is there`
        : `Header field ${condition.name} ${howWords[condition.how]} “${condition.text}”`;
    case 'size':
      return `${field} ${howWords[condition.how]} ${bytesWords(condition.bytes)}`;
    case 'attachment':
      return condition.how === 'any' ? 'It has an attachment' : `Name of an attachment contains “${condition.text}”`;
    case 'date':
      return `${field} ${howWords[condition.how]} ${condition.day}`;
    case 'age':
      return `${field} ${howWords[condition.how]} ${condition.days} ${condition.days === 1 ? 'day' : 'days'}`;
    case 'account':
      return `It came by ${nameOf(names?.accounts ?? [], condition.account, 'an account that is gone')}`;
    case 'standing':
      return condition.is === 'safe' ? 'The Register holds it Safe' : 'The Register says nothing of it';
    case 'score':
      return `${field} ${howWords[condition.how]} ${condition.score}`;
    case 'addressed':
      return `${field} ${addressingWords[condition.is]}`;
    case 'answer':
      return 'It answers a message of mine';
    case 'every':
      return field;
    default:
      return `${field} ${howWords[condition.how]} “${condition.text}”`;
  }
}

const joints = { all: ' and ', any: ' or ', none: ' nor ' } as const;

/** The texts that conditions of one kind look for are said together: `Subject contains “a”, “b” or “c”`. */
function runs(of: readonly Part[], say: (part: Part) => string, joint: string): string[] {
  const out: { head: string | null; texts: string[]; whole: string }[] = [];
  for (const part of of) {
    const whole = say(part);
    const text = !isGroup(part) && 'text' in part && part.text ? `“${part.text}”` : null;
    const head = text !== null && whole.endsWith(text) ? whole.slice(0, -text.length) : null;
    const last = out.at(-1);
    if (last && head !== null && text !== null && last.head === head) last.texts.push(text);
    else out.push({ head, texts: text === null ? [] : [text], whole });
  }
  return out.map(({ head, texts, whole }) =>
    head !== null && texts.length > 1 ? `${head}${texts.slice(0, -1).join(', ')}${joint}${texts.at(-1)}` : whole,
  );
}

/** Conditions in words, those of a group within it in parentheses. */
export function groupWords({ match, of }: Group, names?: RuleNames): string {
  const part = (one: Part): string =>
    isGroup(one)
      ? one.of.length > 1 && of.length > 1
        ? `(${groupWords(one, names)})`
        : groupWords(one, names)
      : conditionWords(one, names);
  const words = runs(of, part, joints[match]).join(joints[match]);
  return match === 'none' ? `not ${of.length > 1 ? `(${words})` : words}` : words;
}

/** A rule's name: the person's, or its conditions in words. */
export function ruleName(rule: Pick<Rule, 'name' | 'when' | 'unless'>, names?: RuleNames): string {
  if (rule.name.trim()) return rule.name.trim();
  const unless = rule.unless ? `, unless ${groupWords(rule.unless, names)}` : '';
  return groupWords(rule.when, names) + unless;
}

/** A rule as a sentence: `When Subject contains “fuel”, unless …, then move it to Fuel.` */
export function ruleSentence(rule: Pick<Rule, 'when' | 'unless' | 'then'>, names: RuleNames): string {
  const unless = rule.unless ? `, unless ${groupWords(rule.unless, names)}` : '';
  return `When ${groupWords(rule.when, names)}${unless}, then ${rule.then.map((a) => actionWords(a, names)).join(', ')}.`;
}
