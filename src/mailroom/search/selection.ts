// The messages that a selection means.
import { kept } from '../../core/data/rows';
import type { Selection } from '../border/views';
import { chosen, readyToChoose } from './clearOutChoice';
import type { MailState, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Viewing, Searching } from './searching';
import { expunged } from '../state/internedTables';

function idsOf(
  mailbox: MailState & Correspondents & Viewing & Pick<Searching, 'finding' | 'redundancy'>,
  selection: Selection,
): Int32Array {
  const { columns, derived, views } = mailbox;
  if ('view' in selection) return views.list(selection.view).slice();
  if ('clearOut' in selection) return chosen(mailbox, selection.clearOut, selection.of).ids;
  if ('ids' in selection) return Int32Array.from(selection.ids);
  const holds = views.holding(selection.within);
  const some = selection.conversationsOf.filter((id) => id < columns.count);
  return Int32Array.from(some.flatMap((id) => [...derived.membersOf(id)].filter(holds)));
}

/** The messages of a selection that are still here: each once, in the order of their ids. */
export async function selected(
  mailbox: MailState & Pick<Loading, 'ready'> & Correspondents & Viewing & Pick<Searching, 'finding' | 'redundancy'>,
  selection: Selection,
): Promise<Int32Array> {
  if ('view' in selection) await mailbox.views.ready(selection.view);
  else if ('clearOut' in selection) await readyToChoose(mailbox, selection.clearOut, selection.of);
  else if ('within' in selection) await mailbox.views.ready(selection.within);
  const { place, count } = mailbox.columns;
  const ids = idsOf(mailbox, selection).sort();
  return kept(ids, (id, i) => id < count && place[id] !== expunged && (i === 0 || ids[i - 1] !== id));
}
