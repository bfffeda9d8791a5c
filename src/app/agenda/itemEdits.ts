// What is done to tasks and appointments from the Agenda.
import { editWords, withDone, withoutOne, withStart } from '../../core/agenda/itemActs';
import type { Item } from '../../core/agenda/item';
import type { ItemEdit } from '../../core/agenda/itemEdit';
import { machineZone } from '../../core/delivery/week';
import type { DatedItem } from '../../mailroom/border/agenda';
import { mailroom } from '../../mailroom/client';
import { commandId, say, tellOutcome } from '../state/desk';
import { goingSoon } from '../stamps/usePress';

/** Saves items; `tell`: the invited are told by mail. True where it went well. */
export async function saveItems(edits: readonly ItemEdit[], says: string, tell: boolean): Promise<boolean> {
  return tellOutcome(await mailroom.editItems(commandId(), [...edits], says, tell ? goingSoon() : null));
}

/** Changes one that is in the Agenda. */
async function change(uid: string, to: (item: Item) => Item | null, tell: boolean = false): Promise<boolean> {
  const [item] = await mailroom.items([uid]);
  if (!item) {
    say({ text: 'It is not in the Agenda any more.', tone: 'trouble' });
    return false;
  }
  const next = to(item);
  return saveItems([{ uid, item: next }], editWords(item, next), tell);
}

/** A task is done, or is not after all. */
export const markDone = ({ uid, on }: DatedItem, done: boolean): Promise<boolean> =>
  change(uid, (item) => withDone(item, on, done, Date.now()));

/** Put to another moment, milliseconds since 1970. */
export const moveTo = (
  { uid, on }: Pick<DatedItem, 'uid' | 'on'>,
  at: number,
  wholeDay: boolean,
  tell: boolean,
): Promise<boolean> => change(uid, (item) => withStart(item, on, at, wholeDay, machineZone(), Date.now()), tell);

/** Taken off: one of a series (`on`), or all of it. */
export const takeOff = (uid: string, on: string | null, tell: boolean): Promise<boolean> =>
  change(uid, (item) => (on === null ? null : withoutOne(item, on, Date.now())), tell);
