// Which messages the deep conditions of rules hold for: those on the text and on any header field. A condition is asked
// of all messages once, of the text index first; after that it is a bit for each.
import { keepNewest } from '../../core/data/memo';
import { Bits } from '../../core/data/bits';
import { DeepTexts, headerTest } from '../../core/rules/deep';
import { blanksAsOne } from '../../core/text/blanks';
import { spellings } from '../../core/text/collation';
import { conditionsOf, isDeep, type DeepCondition, type Rule } from '../../core/rules/rule';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { expunged } from '../state/internedTables';
import { turn } from '../time/turn';
import type { Indexed } from './indexed';

/** Conditions that are remembered; the ones asked longest ago go first. */
const mostKept = 400;
/** Messages read before whoever else waits for the worker gets a turn. */
const sliceSize = 64;

interface Kept {
  condition: DeepCondition;
  /** Messages up to, not including, this one were asked. */
  upTo: number;
  bits: Bits;
}

/** The deep conditions of some rules. */
export const deepConditionsOf = (rules: readonly Rule[]): DeepCondition[] =>
  rules.flatMap((rule) => [...conditionsOf(rule)].filter(isDeep));

export class DeepAnswers {
  private readonly kept = new Map<string, Kept>();
  private running: Promise<void> = Promise.resolve();

  constructor(private readonly mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'raws'> & Indexed) {}

  /** Which messages a condition holds for. It must have been made ready. */
  bits(condition: DeepCondition): Bits {
    const { count } = this.mailbox.columns;
    const kept = this.kept.get(JSON.stringify(condition));
    return kept?.bits.length === count ? kept.bits : (kept?.bits.grown(count) ?? new Bits(count));
  }

  /** Asks all messages that were not asked yet. Stops where `wanted` says that nobody waits any more. */
  ready(conditions: readonly DeepCondition[], wanted: () => boolean = () => true): Promise<void> {
    const run = this.running.then(() => (wanted() ? this.ask(conditions, wanted) : undefined));
    this.running = run.catch(() => undefined);
    return run;
  }

  private async ask(conditions: readonly DeepCondition[], wanted: () => boolean): Promise<void> {
    const { columns, text } = this.mailbox;
    const { count } = columns;
    const open = this.opened(conditions, count);
    if (open.length === 0) return;
    await text.ready(count);
    /** Messages that must be read, each with the conditions that only reading tells. */
    const toRead = new Map<number, Kept[]>();
    for (const kept of open) {
      const bits = kept.bits.grown(count);
      for (const id of this.look(kept.condition, bits)) {
        if (id >= kept.upTo && !bits.has(id) && columns.place[id] !== expunged)
          toRead.set(id, [...(toRead.get(id) ?? []), kept]);
      }
      kept.bits = bits;
    }
    let n = 0;
    for (const [id, asked] of [...toRead].sort(([a], [b]) => a - b)) {
      await this.read(id, asked);
      if (++n % sliceSize > 0) continue;
      await turn();
      // What was found meanwhile is forgotten: the next question asks anew.
      if (!wanted()) return;
    }
    for (const kept of open) kept.upTo = count;
  }

  /** The conditions that were not asked of all messages yet. */
  private opened(conditions: readonly DeepCondition[], count: number): Kept[] {
    const open: Kept[] = [];
    for (const condition of conditions) {
      const key = JSON.stringify(condition);
      const kept = this.kept.get(key) ?? { condition, upTo: 0, bits: new Bits(0) };
      // Asked now, it is the last to be forgotten.
      keepNewest(this.kept, key, kept, Math.max(mostKept, conditions.length));
      if (kept.upTo < count && !open.includes(kept)) open.push(kept);
    }
    return open;
  }

  /** Marks the messages for which a condition holds by the text index; which of the others have to be read. */
  private look(condition: DeepCondition, bits: Bits): number[] {
    const { texts } = this.mailbox.text;
    if (condition.field === 'body') {
      for (const spelling of spellings(blanksAsOne(condition.text)))
        texts.eachHolding(spelling, ['body'], (id) => bits.set(id), 'rules');
      return [];
    }
    const toRead: number[] = [];
    const holds = headerTest(condition);
    texts.eachField(condition.name, (value, ids) => {
      if (condition.how === 'there' || (value !== null && holds(value))) for (const id of ids) bits.set(id);
      else if (value === null) toRead.push(...ids);
    });
    return toRead;
  }

  private async read(id: number, asked: readonly Kept[]): Promise<void> {
    const message = await this.mailbox.raws.message(id);
    if (!message) return;
    const texts = new DeepTexts(() => message);
    for (const { condition, bits } of asked) if (texts.holds(condition)) bits.set(id);
  }
}
