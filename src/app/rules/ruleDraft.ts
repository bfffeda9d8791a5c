// A rule as it is being written: not yet a rule, and the edits that would make it one.
import { type Folder, type Place } from '../../core/mail/place';
import { inks, type Label } from '../../core/mail/label';
import type { Setup } from '../../core/line/setup';
import {
  conditionSchema,
  conditionsOf,
  isGroup,
  ruleSchema,
  type Condition,
  type ConditionField,
  type Group,
  type Part,
  type Rule,
} from '../../core/rules/rule';
import { effectOf, type Action } from '../../core/effects/effects';
import { fieldWords } from '../../core/rules/ruleWords';
import { whyNoRule } from '../../core/stamps/stamp';
import { edited, type SetupEdit } from '../../core/line/setupEdit';

/** Ids of what may still have to be made; they are new, and kept by the caller. */
export interface DraftIds {
  rule: string;
  folder: string;
  label: string;
}

export interface RuleDraft {
  name: string;
  on: boolean;
  when: Group;
  unless: Group | null;
  then: Action[];
  /** The names of a new folder and a new label that the actions speak of by their ids. */
  newFolder: string;
  newLabel: string;
}

/** A condition on something, still without what it looks for. */
export function emptyCondition(field: ConditionField, setup: Setup): Condition {
  switch (field) {
    case 'from':
    case 'to':
    case 'cc':
    case 'recipient':
    case 'subject':
    case 'body':
    case 'list':
      return { field, how: 'contains', text: '' };
    case 'header':
      return { field, name: '', how: 'contains', text: '' };
    case 'size':
      return { field, how: 'over', bytes: 1_000_000 };
    case 'attachment':
      return { field, how: 'any', text: '' };
    case 'date':
      return { field, how: 'before', day: '' };
    case 'age':
      return { field, how: 'over', days: 14 };
    case 'account':
      return { field, account: setup.accounts[0]?.id ?? '' };
    case 'standing':
      return { field, is: 'safe' };
    case 'score':
      return { field, how: 'over', score: 50 };
    case 'addressed':
      return { field, is: 'alone' };
    case 'answer':
    case 'every':
      return { field };
  }
}

export const emptyDraft: RuleDraft = {
  name: '',
  on: true,
  when: { match: 'all', of: [{ field: 'subject', how: 'contains', text: '' }] },
  unless: null,
  then: [],
  newFolder: '',
  newLabel: '',
};

export const draftOf = ({ name, on, when, unless, then }: Rule): RuleDraft => ({
  ...emptyDraft,
  name,
  on,
  when,
  unless,
  then,
});

/** Whether a condition says what it looks for. */
export function isComplete(condition: Condition): boolean {
  switch (condition.field) {
    case 'header':
      return condition.name.trim() !== '' && (condition.how === 'there' || condition.text.trim() !== '');
    case 'attachment':
      return condition.how === 'any' || condition.text.trim() !== '';
    case 'date':
      return condition.day !== '';
    case 'account':
      return condition.account !== '';
    default:
      return !('text' in condition) || condition.text.trim() !== '';
  }
}

/** A condition as it is saved: without blanks around what was typed. */
function trimmed(condition: Condition): Condition {
  const text = 'text' in condition ? { text: condition.text.trim() } : {};
  const name = 'name' in condition ? { name: condition.name.trim() } : {};
  return { ...condition, ...text, ...name };
}

/** A group without what is not complete yet; null where nothing is left of it. */
export function complete(group: Group): Group | null {
  const of = group.of.flatMap((part: Part): Part[] => {
    if (!isGroup(part)) return isComplete(part) ? [trimmed(part)] : [];
    const inner = (part.of as Condition[]).filter(isComplete).map(trimmed);
    return inner.length ? [{ match: part.match, of: inner }] : [];
  });
  return of.length ? { match: group.match, of } : null;
}

export type DraftResult = { ok: true; rule: Rule; edits: SetupEdit[] } | { ok: false; error: string };

/** The rule and the edits of a draft, or what it still lacks, in a sentence. */
export function readDraft(draft: RuleDraft, setup: Setup, ids: DraftIds): DraftResult {
  const when = complete(draft.when);
  if (!when) return { ok: false, error: 'Say what the rule should look for.' };
  if (draft.then.length === 0) return { ok: false, error: 'Say what the rule should do.' };
  const edits: SetupEdit[] = [];
  if (draft.then.some((action) => action.do === 'label' && action.label === ids.label)) {
    const name = draft.newLabel.trim();
    if (!name) return { ok: false, error: 'Give the new label a name.' };
    const item: Label = { id: ids.label, name, ink: inks[setup.labels.length % inks.length] };
    edits.push({ list: 'labels', id: ids.label, item });
  }
  if (draft.then.some((action) => action.do === 'move' && action.place === newFolderPlace(ids))) {
    const name = draft.newFolder.trim();
    if (!name) return { ok: false, error: 'Give the new folder a name.' };
    const item: Folder = { id: ids.folder, name };
    edits.push({ list: 'folders', id: ids.folder, item });
  }
  const unless = draft.unless && complete(draft.unless);
  for (const condition of conditionsOf({ when, unless })) {
    if (numbersOf(condition).some(Number.isNaN))
      return { ok: false, error: `Say a whole number for “${fieldWords[condition.field]}”.` };
    const checked = conditionSchema.safeParse(condition);
    if (!checked.success)
      return { ok: false, error: `${fieldWords[condition.field]} ${checked.error.issues[0].message}.` };
  }
  const withNew = edited(setup, edits);
  for (const action of draft.then) {
    const missing = effectOf(action.do).missing?.(action, withNew.ok ? withNew.setup : setup);
    if (missing) return { ok: false, error: `${missing.says[0].toUpperCase()}${missing.says.slice(1)}` };
    const stamp = action.do === 'stamp' ? setup.stamps.find(({ id }) => id === action.stamp) : undefined;
    const whyNot = stamp && whyNoRule(stamp, setup);
    if (whyNot) return { ok: false, error: whyNot };
  }
  const rule = ruleSchema.parse({
    id: ids.rule,
    name: draft.name.trim(),
    on: draft.on,
    when,
    unless,
    then: draft.then,
  });
  return { ok: true, rule, edits: [...edits, { list: 'rules', id: rule.id, item: rule }] };
}

/** The numbers of a condition; NaN where what was typed is none. */
function numbersOf(condition: Condition): number[] {
  switch (condition.field) {
    case 'size':
      return [condition.bytes];
    case 'age':
      return [condition.days];
    case 'score':
      return [condition.score];
    default:
      return [];
  }
}

export const newFolderPlace = (ids: DraftIds): Place => `folder:${ids.folder}`;

/** The conditions of a draft in the order of their counts, each with its place as GroupFields names it. */
export function* placesOf(draft: RuleDraft): Generator<{ at: string; condition: Condition }> {
  for (const [word, group] of [['when', draft.when] as const, ['unless', draft.unless] as const])
    for (const [i, part] of (group?.of ?? []).entries())
      if (!isGroup(part)) yield { at: `${word} ${i}`, condition: part };
      else
        for (const [n, condition] of part.of.entries())
          yield { at: `${word} ${i}.${n}`, condition: condition as Condition };
}

/** How many messages each condition of a draft holds for, by its place. */
export function countsOf(draft: RuleDraft, conditions: readonly number[]): Map<string, number> {
  const complete = [...placesOf(draft)].filter(({ condition }) => isComplete(condition));
  return new Map(complete.map(({ at }, i) => [at, conditions[i] ?? 0]));
}

/** The setup with the folder and the label that are still to be made, so that they have names. */
export const withNew = (setup: Setup, draft: RuleDraft, ids: { folder: string; label: string }): Setup => ({
  ...setup,
  folders: [...setup.folders, { id: ids.folder, name: draft.newFolder.trim() || 'the new folder' }],
  labels: [...setup.labels, { id: ids.label, name: draft.newLabel.trim() || 'the new label', ink: 'sea' }],
});
