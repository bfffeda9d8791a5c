// Matching rules against messages, fast enough to ask every rule of every message in a dry run.
import type { Envelope } from '../mail/envelope';
import type { Action, Condition, ConditionField, Rule } from './rule';

const people = (list: Envelope['to']): string => list.map((a) => `${a.name} <${a.address}>`).join('\n');

/** The text that a condition looks into, in lower case; kept, since many rules ask for the same. */
export class MatchTexts {
  private readonly kept: Partial<Record<ConditionField, string>> = {};

  constructor(private readonly envelope: Envelope) {}

  get(field: ConditionField): string {
    return (this.kept[field] ??= this.read(field).toLowerCase());
  }

  private read(field: ConditionField): string {
    const { from, to, cc, subject, listId } = this.envelope;
    switch (field) {
      case 'from':
        return `${from.name} <${from.address}>`;
      case 'to':
        return cc.length ? `${people(to)}\n${people(cc)}` : people(to);
      case 'subject':
        return subject;
      case 'list':
        return listId;
    }
  }
}

interface CompiledRule {
  rule: Rule;
  needles: { condition: Condition; text: string }[];
}

/** Rules made ready for matching; those that are off are left out. */
export class RuleSet {
  private readonly compiled: CompiledRule[];

  constructor(rules: readonly Rule[]) {
    this.compiled = rules
      .filter((rule) => rule.on)
      .map((rule) => ({
        rule,
        needles: rule.when.map((condition) => ({ condition, text: condition.contains.toLowerCase() })),
      }));
  }

  /** How many rules are asked. */
  get size(): number {
    return this.compiled.length;
  }

  /**
   * The rules that match, in their order, each with the conditions that held. The first that moves the message is the
   * last one asked.
   */
  matching(envelope: Envelope): { rule: Rule; held: Condition[] }[] {
    if (this.compiled.length === 0) return [];
    const texts = new MatchTexts(envelope);
    const out: { rule: Rule; held: Condition[] }[] = [];
    for (const { rule, needles } of this.compiled) {
      const held = needles.filter(({ condition, text }) => texts.get(condition.field).includes(text));
      if (rule.match === 'all' ? held.length !== needles.length : held.length === 0) continue;
      out.push({ rule, held: held.map((h) => h.condition) });
      if (rule.then.some((action: Action) => action.do === 'move')) break;
    }
    return out;
  }
}
