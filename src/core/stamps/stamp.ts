// Stamps: a named sequence of acts, carried out on messages with one press (vocabulary: stamp, stamp bar).
import { z } from 'zod';
import { idSchema } from '../data/id';
import type { EffectNames } from '../effects/effect';
import { actionSchema, actionWords, effectOf, type Action } from '../effects/effects';
import { inks } from '../mail/label';
import { andWords } from '../text/sentences';

/** The icons of stamps, by what they mean. */
export const stampIcons = [
  'stamp',
  'archive',
  'bin',
  'flag',
  'tag',
  'folder',
  'tray',
  'person',
  'people',
  'answer',
  'forward',
  'task',
  'appointment',
  'money',
  'book',
  'safe',
  'blocked',
  'silence',
  'hourglass',
  'ship',
] as const;
export type StampIcon = (typeof stampIcons)[number];

/** So many acts one stamp has at most, and so many of the stamps have a digit. */
export const mostActs = 20;
export const mostDigits = 9;

export const stampSchema = z.object({
  id: idSchema,
  name: z.string().min(1, 'needs a name').max(40),
  icon: z.enum(stampIcons),
  ink: z.enum(inks).nullable(),
  /** What it does, in this order. What only rules do is not among it: there is no stamp within a stamp. */
  acts: z
    .array(actionSchema)
    .min(1, 'needs at least one act')
    .max(mostActs)
    .refine((acts) => acts.every(({ do: kind }) => effectOf(kind).only !== 'rule'), {
      error: 'has an act that only rules do',
    }),
});
export type Stamp = z.infer<typeof stampSchema>;

/** All that a stamp does, in words: `label it Bills, then archive it`. */
export const stampWords = ({ acts }: Pick<Stamp, 'acts'>, names: EffectNames): string =>
  andWords(acts.map((act) => actionWords(act, names)));

/** What of a stamp can't be undone. */
export const lastingOf = ({ acts }: Pick<Stamp, 'acts'>): ReadonlySet<'sent' | 'deleted'> =>
  new Set(acts.flatMap((act) => effectOf(act.do).lasting?.(act) ?? []));

/** What stands behind a stamp's name, so that nobody presses it unaware: `sends`, `deletes for good`. */
export function lastingWords(stamp: Pick<Stamp, 'acts'>): string {
  const lasting = lastingOf(stamp);
  return andWords([...(lasting.has('sent') ? ['sends'] : []), ...(lasting.has('deleted') ? ['deletes for good'] : [])]);
}

/** An act that speaks of what is not there, with its position: a folder that was never chosen, or is gone. */
export interface MissingTarget {
  at: number;
  act: Action;
  field: string;
  says: string;
}

/** The first act of a stamp that lacks what it speaks of; null where all is there. */
export function missingTarget({ acts }: Pick<Stamp, 'acts'>, names: EffectNames): MissingTarget | null {
  for (const [at, act] of acts.entries()) {
    const missing = effectOf(act.do).missing?.(act, names);
    if (missing) return { at, act, ...missing };
  }
  return null;
}

/** Stands for a target that is to be chosen when the stamp is first used. */
export const unchosen = 'unchosen';

/** Whether the target of an act was never chosen, rather than lost. */
export function isUnchosen(act: Action): boolean {
  switch (act.do) {
    case 'move':
      return act.place === `folder:${unchosen}`;
    case 'label':
    case 'unlabel':
      return act.label === unchosen;
    case 'tray':
      return act.tray === unchosen;
    default:
      return false;
  }
}

/** Acts that bear on one another within a stamp: what can't all have its way, in words; null where all can. */
export function stampTrouble(stamp: Pick<Stamp, 'acts'>): string | null {
  const kinds = stamp.acts.map((act) => act.do);
  const places = stamp.acts.filter(({ do: kind }) => ['move', 'tray', 'putOff', 'delete'].includes(kind));
  if (places.length > 1) return 'It goes to one place only: choose one of moving, the tray, putting off and deleting.';
  for (const kind of [
    'flag',
    'ink',
    'read',
    'unread',
    'done',
    'silence',
    'thinOut',
    'task',
    'appointment',
    'delete',
  ] as const)
    if (kinds.filter((one) => one === kind).length > 1) return 'Of two acts of that kind one is enough.';
  if (kinds.includes('read') && kinds.includes('unread')) return 'It can’t be marked read and unread.';
  if (kinds.includes('flag') && kinds.includes('done')) return 'It can’t be flagged and done.';
  if (kinds.includes('delete') && kinds.at(-1) !== 'delete') return 'What is deleted for good is deleted last.';
  const opens = stamp.acts.filter((act) => opensFirst(act));
  if (opens.length > 1) return 'Only one thing can open after it.';
  return null;
}

/** Whether an act opens something to be written or filled in, after all else is done. */
export const opensFirst = (act: Action): boolean =>
  act.do === 'appointment' ||
  act.do === 'write' ||
  (act.do === 'task' && act.due === 'ask') ||
  ((act.do === 'answer' || act.do === 'forward') && act.open === true);

/** Why a rule can't run a stamp, in words; null where it can. */
export function whyNoRule(stamp: Stamp, names: EffectNames): string | null {
  for (const act of stamp.acts) {
    const kind = effectOf(act.do);
    const asks = kind.asks?.(act) ?? null;
    if (asks !== null) return `A rule can’t run the stamp “${stamp.name}”: ${asks}.`;
    const missing = kind.missing?.(act, names);
    if (missing) return `A rule can’t run the stamp “${stamp.name}” yet: ${missing.says}`;
  }
  return null;
}
