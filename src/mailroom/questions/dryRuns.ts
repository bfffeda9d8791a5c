// Dry runs: what a changed setup, or the whole set of rules, would do to the mail here; and running the set over it.
import { lineOf } from '../../core/junk/settings';
import type { DryRunChange } from '../../core/line/dryRun';
import type { Changes } from '../../core/effects/effects';
import { placeTraits, type Place } from '../../core/mail/place';
import { contradictions, unreached } from '../../core/rules/reach';
import { conditionsOf, endsStation, type Rule } from '../../core/rules/rule';
import { rulesRun } from '../../core/rules/stampsRun';
import { type SetupEdit, edited } from '../../core/line/setupEdit';
import type { DryRunReport, DryRunResult, RuleReach, RuleSetReport } from '../border/rules';
import { bit } from '../state/columns';
import { Asked, askedOf, candidates, changesBetween, type SortedMail } from '../search/candidates';
import type { MailState } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Sorting } from '../search/searching';
import { rowOf } from './row';
import { withoutRules } from '../../core/line/setup';

/** How many messages a dry run shows where nobody asked for more. */
export const usuallyShown = 200;

/** The first of some items by their rank, highest first: of many a few, without sorting them all. */
function firstOf<T>(items: readonly T[], most: number, rankOf: (item: T) => [number, number]): T[] {
  if (most > usuallyShown) {
    // What is alike stands as below: the later one first.
    const ranked = items.map((item) => ({ item, rank: rankOf(item) })).reverse();
    ranked.sort((a, b) => b.rank[0] - a.rank[0] || b.rank[1] - a.rank[1]);
    return ranked.slice(0, most).map(({ item }) => item);
  }
  const first: { item: T; rank: [number, number] }[] = [];
  // From the end: ids mostly grow with the date, and what comes first then stays first.
  for (let i = items.length - 1; i >= 0; i--) {
    const item = items[i];
    const rank = rankOf(item);
    const last = first.length < most ? null : first[first.length - 1].rank;
    if (last && (rank[0] < last[0] || (rank[0] === last[0] && rank[1] <= last[1]))) continue;
    const at = first.findLastIndex(({ rank: its }) => its[0] > rank[0] || (its[0] === rank[0] && its[1] >= rank[1]));
    first.splice(at + 1, 0, { item, rank });
    if (first.length > most) first.pop();
  }
  return first.map(({ item }) => item);
}

/** What is shown of the messages that would change: how many, and the line by which they do, if one decides. */
interface Shown {
  most: number;
  /** The score at which junk begins or would begin; null where it is not what is changed. */
  line: number | null;
}

/** What changes would come to, with a sample of them. */
function reportOf(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Pick<Correspondents, 'people'> & Judging,
  changes: readonly DryRunChange[],
  { most, line }: Shown,
): DryRunReport {
  const { bits, date } = mailbox.columns;
  const report: DryRunReport = {
    total: changes.length,
    moves: [],
    effects: {},
    wanted: { writtenTo: 0, flagged: 0, unread: 0 },
    sample: [],
    matching: null,
    conditions: [],
  };
  const moves = new Map<Place, Map<Place, DryRunReport['moves'][number]>>();
  const weight = new Map<number, number>();
  for (const change of changes) {
    for (const name of Object.keys(change.changes) as (keyof Changes)[])
      report.effects[name] = (report.effects[name] ?? 0) + 1;
    if (change.from !== change.to) {
      let from = moves.get(change.from);
      if (!from) moves.set(change.from, (from = new Map()));
      let move = from.get(change.to);
      if (!move) from.set(change.to, (move = { from: change.from, to: change.to, count: 0 }));
      move.count++;
    }
    if (change.to !== change.from && !placeTraits(change.to).counted) {
      const written = mailbox.people.wroteTo(mailbox.envelopes.get(change.id).from.address);
      const flagged = (bits[change.id] & bit.flagged) !== 0;
      if (written) report.wanted.writtenTo++;
      if (flagged) report.wanted.flagged++;
      if (!(bits[change.id] & bit.read)) report.wanted.unread++;
      weight.set(change.id, (written ? 2 : 0) + (flagged ? 1 : 0));
    }
  }
  report.moves = [...moves.values()].flatMap((from) => [...from.values()]).sort((a, b) => b.count - a.count);
  const score = (id: number) => (line === null ? null : mailbox.junk.score(id));
  const rank = (id: number): number =>
    line === null ? (weight.get(id) ?? 0) : -Math.abs((score(id) ?? Infinity) - line);
  report.sample = firstOf(changes, most, ({ id }) => [rank(id), date[id]]).map(({ id, to }) => ({
    row: rowOf(mailbox, id),
    to,
    score: score(id),
  }));
  return report;
}

/** With more rules than these it takes too long to be said while one is written: the page of all rules says it. */
const mostLive = 300;

/** The rules that never act as they stand: asked with every word that is typed, and the same until some are saved. */
const asTheyStand = new WeakMap<readonly Rule[], ReturnType<typeof unreached>>();

function neverBefore(rules: readonly Rule[]): ReturnType<typeof unreached> {
  let never = asTheyStand.get(rules);
  if (!never) asTheyStand.set(rules, (never = unreached(rules)));
  return never;
}

/** How a rule would stand among the others after some edits; null where it is off, or cannot be said so quickly. */
export function ruleReach(mailbox: Pick<MailState, 'setup'>, edits: SetupEdit[], id: string): RuleReach | null {
  const next = edited(mailbox.setup, edits);
  if (!next.ok || next.setup.rules.length > mostLive) return null;
  const rules = rulesRun(next.setup);
  if (!rules.some((rule) => rule.id === id && rule.on)) return null;
  const was = neverBefore(rulesRun(mailbox.setup));
  const never = unreached(rules);
  return {
    never: never.get(id) ?? null,
    contradictions: contradictions(rules, id, never),
    shadows: [...never]
      .filter(([other, its]) => !was.has(other) && its.why === 'shadowed' && its.by.includes(id))
      .map(([other]) => other),
  };
}

/**
 * What a changed setup would do to the mail here. `ruleId`: count also what that rule matches, and each of its
 * conditions by itself. Ends early, with nothing, where `wanted` says that nobody waits any more.
 */
export async function dryRun(
  mailbox: SortedMail & Sorting,
  edits: SetupEdit[],
  ruleId: string | null,
  wanted: () => boolean = () => true,
  most = usuallyShown,
): Promise<DryRunResult> {
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  await mailbox.readyToSort(next.setup, wanted);
  if (!wanted()) return { ok: false, error: 'Another question came in between.' };
  const asked = askedOf(mailbox, mailbox.setup, next.setup);
  const changes = changesBetween(mailbox, mailbox.setup, next.setup, candidates(mailbox), asked);
  const { junk } = next.setup;
  // Turned off, it is the line of before by which they come back.
  const line = edits.some(({ list }) => list === 'junk')
    ? lineOf(junk.strictness || mailbox.setup.junk.strictness)
    : null;
  const report = reportOf(mailbox, changes, { most, line });
  const rule = next.setup.rules.find((r) => r.id === ruleId);
  if (rule) {
    const { here, ask, askRule } = asked(next.setup);
    report.matching = here(askRule(rule));
    report.conditions = [...conditionsOf(rule)].map((condition) => here(ask(condition)));
  }
  return { ok: true, report };
}

/** What the whole set of rules, as it would be after some edits, does with the mail here. */
export async function ruleSetReport(
  mailbox: SortedMail & Sorting,
  edits: SetupEdit[],
  most = usuallyShown,
): Promise<RuleSetReport> {
  const next = edited(mailbox.setup, edits);
  const setup = next.ok ? next.setup : mailbox.setup;
  await mailbox.readyToSort(setup);
  const rules = rulesRun(setup);
  const counts = new Map(rules.map(({ id }) => [id, { matches: 0, acts: 0, lostTo: new Map<string, number>() }]));
  const matcher = new Asked(mailbox, setup).matcher(rules);
  for (const candidate of candidates(mailbox)) {
    let taker: string | null = null;
    for (const rule of matcher.all(candidate)) {
      const its = counts.get(rule.id);
      if (!its) continue;
      its.matches++;
      if (taker === null) its.acts++;
      else its.lostTo.set(taker, (its.lostTo.get(taker) ?? 0) + 1);
      if (taker === null && endsStation(rule)) taker = rule.id;
    }
  }
  const never = unreached(rules);
  return {
    rules: rules.map(({ id }) => {
      const { matches = 0, acts = 0, lostTo = new Map<string, number>() } = counts.get(id) ?? {};
      return {
        id,
        matches,
        acts,
        lostTo: [...lostTo].map(([rule, count]) => ({ rule, count })).sort((a, b) => b.count - a.count),
        never: never.get(id) ?? null,
      };
    }),
    contradictions: contradictions(rules),
    here: reportOf(mailbox, changesBetween(mailbox, withoutRules(setup), setup), { most, line: null }),
  };
}
