// A rule as it is being written: not yet a rule, and the edits that would make it one.
import { inks, type Ink, type Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { Action, Condition, Rule } from '../../core/rules/rule';
import type { OpenMessage, SetupEdit } from '../../mailroom/api';

/** What the selects say for something that is still to be made. */
export const newOne = 'new';

export interface RuleDraft {
  name: string;
  on: boolean;
  match: Rule['match'];
  when: Condition[];
  /** A place, {@link newOne} for a new folder, or empty for no move. */
  move: string;
  newFolder: string;
  /** A label's id, {@link newOne} for a new label, or empty for none. */
  label: string;
  newLabel: string;
  read: boolean;
}

export const emptyDraft: RuleDraft = {
  name: '',
  on: true,
  match: 'all',
  when: [{ field: 'subject', contains: '' }],
  move: '',
  newFolder: '',
  label: '',
  newLabel: '',
  read: false,
};

export function draftOf(rule: Rule): RuleDraft {
  const move = rule.then.find((a) => a.do === 'move');
  const label = rule.then.find((a) => a.do === 'label');
  return {
    ...emptyDraft,
    name: rule.name,
    on: rule.on,
    match: rule.match,
    when: rule.when,
    move: move?.do === 'move' ? move.place : '',
    label: label?.do === 'label' ? label.label : '',
    read: rule.then.some((a) => a.do === 'read'),
  };
}

/** The conditions that one message suggests, the most telling first. */
export function suggestions(message: OpenMessage): Condition[] {
  const out: Condition[] = [];
  if (message.listId) out.push({ field: 'list', contains: message.listId });
  const { address } = message.row.from;
  if (address) {
    out.push({ field: 'from', contains: address });
    const domain = address.slice(address.lastIndexOf('@'));
    if (domain.length > 1) out.push({ field: 'from', contains: domain });
  }
  const subject = message.row.subject.replace(/^((re|fwd?|sv|aw)\s*:\s*)+/i, '').trim();
  if (subject) out.push({ field: 'subject', contains: subject.slice(0, 80) });
  for (const { address: to } of message.row.to.slice(0, 2)) if (to) out.push({ field: 'to', contains: to });
  return out;
}

export type DraftResult = { ok: true; rule: Rule; edits: SetupEdit[] } | { ok: false; error: string };

/** The rule and the edits of a draft, or what it still lacks, in a sentence. `ids` are new and kept by the caller. */
export function readDraft(
  draft: RuleDraft,
  setup: Setup,
  ids: { rule: string; folder: string; label: string },
): DraftResult {
  const when = draft.when.map((c) => ({ ...c, contains: c.contains.trim() })).filter((c) => c.contains);
  if (when.length === 0) return { ok: false, error: 'Say what the rule should look for.' };
  const edits: SetupEdit[] = [];
  const then: Action[] = [];
  if (draft.label === newOne) {
    const name = draft.newLabel.trim();
    if (!name) return { ok: false, error: 'Give the new label a name.' };
    const ink: Ink = inks[setup.labels.length % inks.length];
    edits.push({ list: 'labels', id: ids.label, item: { id: ids.label, name, ink } });
    then.push({ do: 'label', label: ids.label });
  } else if (draft.label) then.push({ do: 'label', label: draft.label });
  if (draft.read) then.push({ do: 'read' });
  if (draft.move === newOne) {
    const name = draft.newFolder.trim();
    if (!name) return { ok: false, error: 'Give the new folder a name.' };
    edits.push({ list: 'folders', id: ids.folder, item: { id: ids.folder, name } });
    then.push({ do: 'move', place: `folder:${ids.folder}` });
  } else if (draft.move) then.push({ do: 'move', place: draft.move as Place });
  if (then.length === 0) return { ok: false, error: 'Say what the rule should do.' };
  const rule: Rule = { id: ids.rule, name: draft.name.trim(), on: draft.on, match: draft.match, when, then };
  return { ok: true, rule, edits: [...edits, { list: 'rules', id: rule.id, item: rule }] };
}
