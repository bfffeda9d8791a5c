// Which messages the deep conditions of rules hold for: those on the text and on any header field. A condition is asked
// of all messages once, of the text index first; after that it is a bit for each.
import { InTurn } from '../../core/data/inTurn';
import { inSlices } from '../../core/data/slices';
import { keepNewest } from '../../core/data/memo';
import { Bits } from '../../core/data/bits';
import { headerTest } from '../../core/rules/deep';
import { blanksAsOne } from '../../core/text/blanks';
import { spellings } from '../../core/text/collation';
import { gatheringRules } from '../../core/delivery/letThrough';
import type { Setup } from '../../core/line/setup';
import { conditionsOf, isDeep, type DeepCondition } from '../../core/rules/rule';
import type { MailState } from '../state/mailState';
import type { Readable } from '../reading/reader';
import { expunged } from '../state/internedTables';
import { turn } from '../time/turn';
import type { Indexed } from './indexed';

/** Conditions that are remembered; the ones asked longest ago go first. */
const mostKept = 400;
/** Messages that are read at a time. */
const sliceSize = 64;

interface Kept {
  condition: DeepCondition;
  /** Messages up to, not including, this one were asked. */
  upTo: number;
  bits: Bits;
}

/** The deep conditions of a setup: of its rules, of its trays and of what it lets through. */
export const deepConditionsOf = (setup: Pick<Setup, 'rules' | 'trays' | 'delivery'>): DeepCondition[] =>
  [...setup.rules, ...gatheringRules(setup)].flatMap((rule) => [...conditionsOf(rule)].filter(isDeep));

export class DeepAnswers {
  private readonly kept = new Map<string, Kept>();
  private readonly running = new InTurn();

  constructor(private readonly mailbox: Pick<MailState, 'columns'> & Readable & Indexed) {}

  /** Which messages a condition holds for. It must have been made ready. */
  bits(condition: DeepCondition): Bits {
    const { count } = this.mailbox.columns;
    const kept = this.kept.get(JSON.stringify(condition));
    return kept?.bits.length === count ? kept.bits : (kept?.bits.grown(count) ?? new Bits(count));
  }

  /** Asks all messages that were not asked yet. Stops where `wanted` says that nobody waits any more. */
  ready(conditions: readonly DeepCondition[], wanted: () => boolean = () => true): Promise<void> {
    return this.running.do(async () => {
      if (wanted()) await this.ask(conditions, wanted);
    });
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
    for (const slice of inSlices(
      [...toRead].sort(([a], [b]) => a - b),
      sliceSize,
    )) {
      await this.read(slice);
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

  /** Reads messages, and marks those for which the conditions hold of which only reading tells. */
  private async read(slice: readonly (readonly [id: number, asked: readonly Kept[]])[]): Promise<void> {
    const asked = [...new Set(slice.flatMap(([, kept]) => kept))];
    const conditions = asked.map(({ condition }) => condition);
    const holding = await this.mailbox.reader.many(
      slice.map(([id]) => id),
      'holding',
      conditions,
    );
    for (const [n, [id, own]] of slice.entries())
      for (const [at, kept] of asked.entries()) if (holding[n]?.[at] && own.includes(kept)) kept.bits.set(id);
  }
}
