// Reach: which rules can never do anything, because their conditions exclude each other or because earlier rules take all
// that they would match. It is proved from the conditions alone, whatever mail there is; what can't be proved either way
// is not claimed.
import { effectOf, effects, type EffectName } from '../effects/effects';
import { foldAscii, spellings } from '../text/collation';
import { textTest } from './match';
import { fits, readPattern } from './pattern';
import { endsStation, isGroup, type Condition, type Group, type Rule } from './rule';
import { Clauses, type Literal } from './satisfiable';

/** Why a rule never does anything. */
export type Unreached =
  | { why: 'impossible' }
  /** The earlier rules that together take all that it matches. */
  | { why: 'shadowed'; by: string[] };

type TextCondition = Extract<Condition, { how: string; text: string }>;

/** Conditions of one dimension speak of the same thing and can bear on each other. */
function dimensionOf(condition: Condition): string {
  return condition.field === 'header' ? `header ${condition.name.toLowerCase()}` : condition.field;
}

const ascii = (text: string): boolean => spellings(text).length === 1;

/** Whether one condition on a text holds wherever another does; only where that is sure. */
function implies(a: TextCondition, b: TextCondition): boolean {
  if (!ascii(a.text) || !ascii(b.text)) return false;
  const [x, y] = [foldAscii(a.text), foldAscii(b.text)];
  const people = ['from', 'to', 'cc'].includes(a.field);
  if (b.how === 'there' || b.how === 'any') return true;
  if (a.how === b.how && x === y) return true;
  if (a.how === 'is') {
    if (people && b.how === 'domain') return x.endsWith(`@${y.replace(/^@/, '')}`);
    // A plain pattern may match an empty text, but “is” never asks for one.
    return b.how === 'domain' ? false : b.how === 'like' ? fits(readPattern(y), x) : textTest(b.how, b.text)(x);
  }
  if (a.how === 'domain') {
    const domain = `@${x.replace(/^@/, '')}`;
    if (b.how === 'domain') return domain === `@${y.replace(/^@/, '')}`;
    return b.how === 'contains' && domain.includes(y);
  }
  if (a.how === 'begins') return b.how === 'begins' ? x.startsWith(y) : b.how === 'contains' && x.includes(y);
  if (a.how === 'ends') return b.how === 'ends' ? x.endsWith(y) : b.how === 'contains' && x.includes(y);
  return a.how === 'contains' && b.how === 'contains' && x.includes(y);
}

/** Whether two conditions on a text of which a message has just one can never hold together. */
function excludes(a: TextCondition, b: TextCondition): boolean {
  if (!['subject', 'list'].includes(a.field) || !ascii(a.text) || !ascii(b.text)) return false;
  if (a.how === 'is') return !implies(a, b);
  if (b.how === 'is') return !implies(b, a);
  return a.how === b.how && (a.how === 'begins' || a.how === 'ends') && !implies(a, b) && !implies(b, a);
}

const dayOf = (day: string): number => Date.parse(`${day}T00:00Z`) / 86_400_000;

/**
 * What a message can be like in a dimension that is no text: some values that stand for all, and which conditions hold
 * for each. Null for none that can be read, as a date.
 */
function valuesOf(conditions: readonly Condition[]): { holds: (condition: Condition) => boolean }[] {
  const [{ field }] = conditions;
  const near = (numbers: readonly number[], step: number): (number | null)[] => [
    ...new Set(numbers.flatMap((n) => [n - step, n, n + step])),
  ];
  switch (field) {
    case 'size':
      return near(
        conditions.flatMap((c) => (c.field === 'size' ? [c.bytes] : [])),
        1,
      )
        .filter((bytes) => bytes !== null && bytes >= 0)
        .map((bytes) => ({
          holds: (c) => c.field === 'size' && (c.how === 'over' ? (bytes ?? 0) > c.bytes : (bytes ?? 0) < c.bytes),
        }));
    case 'score':
      return [
        null,
        ...near(
          conditions.flatMap((c) => (c.field === 'score' ? [c.score] : [])),
          1,
        ),
      ]
        .filter((score) => score === null || (score >= 0 && score <= 100))
        .map((score) => ({
          holds: (c) => c.field === 'score' && score !== null && (c.how === 'over' ? score > c.score : score < c.score),
        }));
    case 'age':
      return [
        null,
        ...near(
          conditions.flatMap((c) => (c.field === 'age' ? [c.days] : [])),
          0.5,
        ),
      ].map((days) => ({
        holds: (c) => c.field === 'age' && days !== null && (c.how === 'over' ? days > c.days : days < c.days),
      }));
    case 'date':
      return [
        null,
        ...near(
          conditions.flatMap((c) => (c.field === 'date' ? [dayOf(c.day)] : [])),
          1,
        ),
      ].map((day) => ({
        holds: (c) => {
          if (c.field !== 'date' || day === null) return false;
          const its = dayOf(c.day);
          return c.how === 'before' ? day < its : c.how === 'since' ? day >= its : day === its;
        },
      }));
    case 'addressed':
      return ['alone', 'among', 'not'].map((is) => ({ holds: (c) => c.field === 'addressed' && c.is === is }));
    case 'standing':
      return ['safe', 'none'].map((is) => ({ holds: (c) => c.field === 'standing' && c.is === is }));
    case 'account': {
      const accounts = conditions.flatMap((c) => (c.field === 'account' ? [c.account] : []));
      return [null, ...new Set(accounts)].map((id) => ({ holds: (c) => c.field === 'account' && c.account === id }));
    }
    case 'every':
      return [{ holds: () => true }];
    default:
      return [{ holds: () => true }, { holds: () => false }];
  }
}

const isText = (condition: Condition): condition is TextCondition => 'text' in condition;

/** Rules as clauses: one variable says whether each would match. */
class RuleClauses {
  readonly clauses = new Clauses();
  private readonly atoms = new Map<string, { condition: Condition; literal: Literal }>();
  readonly matches: Literal[];

  constructor(rules: readonly Rule[]) {
    this.matches = rules.map(({ when, unless }) => {
      const yes = this.group(when);
      return unless ? this.clauses.all([yes, -this.group(unless)]) : yes;
    });
    this.bear();
  }

  private group({ match, of }: Group): Literal {
    const parts = of.map((part) => (isGroup(part) ? this.group(part) : this.condition(part)));
    if (match === 'all') return this.clauses.all(parts);
    const any = this.clauses.any(parts);
    return match === 'any' ? any : -any;
  }

  private condition(condition: Condition): Literal {
    // A recipient is one named in To or one named in Cc.
    if (condition.field === 'recipient')
      return this.clauses.any([
        this.condition({ ...condition, field: 'to' }),
        this.condition({ ...condition, field: 'cc' }),
      ]);
    const key = JSON.stringify(condition);
    let atom = this.atoms.get(key);
    if (!atom) this.atoms.set(key, (atom = { condition, literal: this.clauses.variable() }));
    return atom.literal;
  }

  /** How the conditions bear on each other. */
  private bear(): void {
    const dimensions = new Map<string, { condition: Condition; literal: Literal }[]>();
    for (const atom of this.atoms.values()) {
      const dimension = dimensionOf(atom.condition);
      dimensions.set(dimension, [...(dimensions.get(dimension) ?? []), atom]);
    }
    for (const atoms of dimensions.values()) {
      if (isText(atoms[0].condition)) {
        for (const a of atoms)
          for (const b of atoms) {
            if (a === b || !isText(a.condition) || !isText(b.condition)) continue;
            if (implies(a.condition, b.condition)) this.clauses.add(-a.literal, b.literal);
            else if (excludes(a.condition, b.condition)) this.clauses.add(-a.literal, -b.literal);
          }
        continue;
      }
      // The message has just one of these values, and a condition holds just where one of its own is that.
      const values = valuesOf(atoms.map(({ condition }) => condition)).map((value) => ({
        ...value,
        literal: this.clauses.variable(),
      }));
      this.clauses.add(...values.map(({ literal }) => literal));
      for (const [i, a] of values.entries())
        for (const b of values.slice(i + 1)) this.clauses.add(-a.literal, -b.literal);
      for (const { condition, literal } of atoms) {
        for (const value of values) this.clauses.add(-value.literal, value.holds(condition) ? literal : -literal);
      }
    }
  }
}

/** The rules that can never do anything, by id; those that are off neither do nor hinder. */
export function unreached(rules: readonly Rule[]): Map<string, Unreached> {
  const on = rules.filter((rule) => rule.on);
  const out = new Map<string, Unreached>();
  const { clauses, matches } = new RuleClauses(on);
  const never = (at: number, earlier: readonly number[]): boolean =>
    clauses.holdWith([matches[at], ...earlier.map((i) => -matches[i])]) === false;
  for (const [at, rule] of on.entries()) {
    if (never(at, [])) {
      out.set(rule.id, { why: 'impossible' });
      continue;
    }
    const earlier = [...on.keys()].filter((i) => i < at && endsStation(on[i]) && !out.has(on[i].id));
    // One that takes all by itself is the plainest answer.
    const one = earlier.find((i) => never(at, [i]));
    let by = one === undefined ? earlier : [one];
    if (one === undefined) {
      if (by.length < 2 || !never(at, by)) continue;
      for (const i of [...by]) {
        const without = by.filter((other) => other !== i);
        if (never(at, without)) by = without;
      }
    }
    out.set(rule.id, { why: 'shadowed', by: by.map((i) => on[i].id) });
  }
  return out;
}

/** Two rules that would do the same thing otherwise to a message that both match; the earlier one has its way. */
export interface Contradiction {
  first: string;
  second: string;
  about: EffectName;
}

/**
 * Rules that contradict each other: both can be asked of one message, and ink its row or flag it differently. `of`: only
 * those in which this rule takes part; `never`: what is known of the rules that never act.
 */
export function contradictions(
  rules: readonly Rule[],
  of: string | null = null,
  never: ReadonlyMap<string, Unreached> = unreached(rules),
): Contradiction[] {
  const on = rules.filter((rule) => rule.on);
  const { clauses, matches } = new RuleClauses(on);
  const out: Contradiction[] = [];
  /** What a rule wants of an effect: the first that it names counts. */
  const wants = ({ then }: Rule, about: EffectName): string | undefined => {
    const action = then.find((one) => one.do === about);
    return action && effectOf(about).clash?.of(action);
  };
  for (const [j, second] of on.entries())
    for (const [i, first] of on.slice(0, j).entries()) {
      if (of !== null && first.id !== of && second.id !== of) continue;
      if (endsStation(first) || never.has(first.id) || never.has(second.id)) continue;
      const differs = effects.flatMap(({ do: about }) => {
        const [a, b] = [wants(first, about), wants(second, about)];
        return a !== undefined && b !== undefined && a !== b ? [about] : [];
      });
      if (differs.length === 0) continue;
      const taken = on.flatMap((rule, n) => (n < j && endsStation(rule) ? [-matches[n]] : []));
      if (clauses.holdWith([matches[i], matches[j], ...taken]) === true)
        out.push(...differs.map((about) => ({ first: first.id, second: second.id, about })));
    }
  return out;
}
