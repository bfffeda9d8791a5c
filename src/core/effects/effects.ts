// The list of effects, and what goes over all of them.
import { z } from 'zod';
import type { Place } from '../mail/place';
import type { Bearing, CarriedOut, Decided, EffectKind, EffectNames, Present } from './effect';
import { answer } from './answer';
import { appointment } from './appointment';
import { deletion } from './delete';
import { done } from './done';
import { flag } from './flag';
import { forward } from './forward';
import { ink } from './ink';
import { label } from './label';
import { move } from './move';
import { putOff } from './putOff';
import { read } from './read';
import { silence } from './silence';
import { stamp } from './stamp';
import { standing } from './standing';
import { stop } from './stop';
import { task } from './task';
import { thinOut } from './thinOut';
import { tray } from './tray';
import { unlabel } from './unlabel';
import { unread } from './unread';
import { write } from './write';

/** All kinds of effects, in the order in which they are offered. */
export const effects = [
  move,
  tray,
  label,
  unlabel,
  ink,
  flag,
  done,
  read,
  unread,
  putOff,
  silence,
  thinOut,
  task,
  appointment,
  standing,
  forward,
  answer,
  write,
  deletion,
  stamp,
  stop,
] as const;

type Kind = (typeof effects)[number];
export type EffectName = Kind['do'];

/** An effect as it stands in a rule. */
export type Action = z.infer<Kind['schema']>;

const [first, ...others] = effects.map(({ schema }) => schema);
export const actionSchema = z.discriminatedUnion('do', [first, ...others]) as unknown as z.ZodType<Action>;

type ChangeOf<K extends Kind> = Exclude<ReturnType<NonNullable<K['change']>>, undefined>;
/** What changes of one message, by effect; those that change nothing of it are not among them. */
export type Changes = { [K in Kind as [ChangeOf<K>] extends [never] ? never : K['do']]?: ChangeOf<K> };

const byName = new Map<string, EffectKind>(effects.map((kind) => [kind.do, kind as unknown as EffectKind]));

/** The kind of an effect. */
export function effectOf(name: EffectName): EffectKind {
  const kind = byName.get(name);
  if (!kind) throw new Error(`There is no effect “${name}”.`);
  return kind;
}

/** An effect in words: `move it to Weather`. */
export const actionWords = (action: Action, names: EffectNames): string => effectOf(action.do).words(action, names);

/** Carries an effect out on what is decided. `now`: milliseconds since 1970. */
export const carryOut = (action: Action, decided: Decided, names: EffectNames, now: number): CarriedOut =>
  effectOf(action.do).carryOut(action, decided, names, now);

const changing = [...byName.values()].flatMap(({ do: name, change }) => (change ? [{ name, change }] : []));

/** What changes about a message when one decision stands where another stood; null where nothing does. */
export function changesOf(message: Present, was: Bearing, is: Bearing): Changes | null {
  let out: Record<string, unknown> | null = null;
  for (const { name, change } of changing) {
    const changed = change(message, was, is);
    if (changed !== undefined) (out ??= {})[name] = changed;
  }
  return out;
}

const unplaced: Present = { place: '' as Place, labels: [], read: false, byHand: false };
const unplacedBearing: Bearing = { place: unplaced.place, labels: [], read: false, ink: null, flag: null, tray: null };

/** What a decision changes of a message that has only now come in. */
export const arrivalOf = (decided: Bearing): Changes => changesOf(unplaced, unplacedBearing, decided) ?? {};

/** The effects whose changes a dry run counts, and what it says of them: “would be labelled”. */
export const countedEffects = [...byName.values()].flatMap(({ do: name, would }) =>
  would ? [{ name: name as keyof Changes, would }] : [],
);

/** What is decided before anything is. */
export const nothingDecided = (): Decided => ({
  place: 'inbox',
  labels: [],
  read: false,
  ink: null,
  flag: null,
  tray: null,
  until: null,
  delivered: null,
  putOff: null,
  sends: [],
  follows: [],
});
