// A task or an appointment that is being written, beside whatever is on the screen.
import { create } from 'zustand';
import type { FoundDate } from '../../core/agenda/foundDates';
import { newItem, type Item, type ItemKind } from '../../core/agenda/item';
import { machineZone } from '../../core/delivery/week';
import { reasonOf } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { commandId, say } from '../state/desk';
import { foundWhen, hour, timesOf } from './typedWhen';

/** What is being written. */
export interface ItemDraft {
  item: Item;
  /** As it stands in the Agenda; null for something new. */
  before: Item | null;
  /** Only this one of its series; null for all of it. */
  on: string | null;
  /** Days and hours that stand in the message of which it is made. */
  dates: FoundDate[];
}

interface State {
  open: ItemDraft | null;
}

export const useItemDraft = create<State>(() => ({ open: null }));

export const closeItem = () => useItemDraft.setState({ open: null });

const trouble = (error: unknown) => say({ text: reasonOf(error), tone: 'trouble' });

/** With a day and hour that was found, or pressed. */
function withDate(item: Item, date: FoundDate): Item {
  const { at, lasts } = foundWhen(date, machineZone());
  return { ...item, ...timesOf(item, at, lasts) };
}

/** The next full hour. */
const nextHour = (now: number): number => Math.ceil((now + 60_000) / hour) * hour;

/** Begins a task or an appointment of some messages, the newest last; of none it is empty. `at`: when it begins. */
export async function openItem(
  kind: ItemKind,
  ids: readonly number[] = [],
  at?: { start: number; end: number; wholeDay: boolean },
): Promise<void> {
  const now = Date.now();
  let item = newItem(commandId(), kind, now);
  let dates: FoundDate[] = [];
  try {
    const read = await Promise.all(ids.slice(-50).map((id) => mailroom.forItem(id)));
    const known = read.flatMap((one) => one ?? []);
    const last = known.at(-1);
    item = {
      ...item,
      title: last?.title ?? '',
      messages: [...new Set(known.flatMap(({ messageId }) => messageId || []))],
    };
    dates = last?.dates ?? [];
  } catch (error) {
    return trouble(error);
  }
  const [first] = dates;
  if (at) item = withDate(item, { text: '', ...at });
  else if (kind === 'appointment') {
    const hourly = dates.find(({ wholeDay }) => !wholeDay) ?? first;
    const start = nextHour(now);
    item = withDate(item, hourly ?? { text: '', start, end: start + hour, wholeDay: false });
  } else if (first) item = withDate(item, first);
  useItemDraft.setState({ open: { item, before: null, on: null, dates } });
}

/** Opens what stands in the Agenda; `on`: one of its series alone. */
export async function reopenItem(uid: string, on: string | null = null): Promise<void> {
  try {
    const [item] = await mailroom.items([uid]);
    if (!item) return say({ text: 'It is not in the Agenda any more.', tone: 'trouble' });
    useItemDraft.setState({ open: { item, before: item, on, dates: [] } });
  } catch (error) {
    trouble(error);
  }
}
