import { wrap } from 'comlink';
import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { timesWords } from '../../core/agenda/inviting';
import { itemTitle, kindWords, standsAt, type Item } from '../../core/agenda/item';
import type { readCalendar, ReadCalendar } from '../../core/agenda/readCalendar';
import { recurrenceWords } from '../../core/agenda/recurrenceWords';
import { count, reasonOf } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { Remarks } from '../ui/Remarks';
import { saveItems } from './itemEdits';

const mostShown = 100;
const largest = 50_000_000;

interface Plan {
  name: string;
  read: ReadCalendar;
  fresh: Item[];
  changed: Item[];
  same: number;
}

/** What taking a calendar up would do: what is here already, by its UID, is changed and not doubled. */
async function planOf(name: string, read: ReadCalendar): Promise<Plan> {
  const here = new Map((await mailroom.items(read.items.map(({ uid }) => uid))).map((item) => [item.uid, item]));
  const plan: Plan = { name, read, fresh: [], changed: [], same: 0 };
  for (const item of read.items) {
    const old = here.get(item.uid);
    if (!old) plan.fresh.push(item);
    else if (JSON.stringify(old) === JSON.stringify(item)) plan.same++;
    else plan.changed.push(item);
  }
  return plan;
}

function Preview({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const { name, read, fresh, changed, same } = plan;
  const taken = [...fresh, ...changed];
  const n = (kind: Item['kind']) => kindWords(read.items.filter((item) => item.kind === kind).length, kind);
  const take = async () => {
    onClose();
    await saveItems(
      taken.map((item) => ({ uid: item.uid, item })),
      `Took ${count(taken.length)} tasks and appointments from ${name}`,
      false,
    );
  };
  return (
    <Dialog title={`What is in ${name}`} wide onClose={onClose}>
      <p>
        {n('appointment')}, {n('task')}: {count(fresh.length)} new, {count(changed.length)} otherwise than here,{' '}
        {count(same)} here already.
      </p>
      <Remarks remarks={read.remarks} open={read.items.length === 0} />
      <ul tabIndex={0} aria-label="What would be taken" className="mt-2 max-h-72 overflow-y-auto text-sm">
        {taken.slice(0, mostShown).map((item) => {
          const at = standsAt(item);
          return (
            <li key={item.uid} className="border-t border-base-300 py-1">
              <span dir="auto">{itemTitle(item)}</span>{' '}
              <span className="quiet">
                {at ? timesWords(at, item.kind === 'appointment' ? item.end : null) : 'without a date'}
                {item.repeats && `, ${recurrenceWords(item.repeats)}`}
                {changed.includes(item) && ' · in place of what is here'}
              </span>
            </li>
          );
        })}
        {taken.length > mostShown && <li className="quiet py-1">and {count(taken.length - mostShown)} more</li>}
      </ul>
      <div className="mt-4 flex gap-2">
        <button className="btn btn-primary btn-sm" disabled={taken.length === 0} onClick={() => void take()}>
          Take {count(taken.length)} in
        </button>
        <button className="btn btn-ghost btn-sm" onClick={onClose}>
          Leave it
        </button>
      </div>
    </Dialog>
  );
}

/** Brings a file of a calendar in: read apart from the page, looked at before it counts. */
export function CalendarsIn() {
  const picker = useRef<HTMLInputElement>(null);
  const [plan, setPlan] = useState<Plan | null>(null);
  const [busy, setBusy] = useState(false);
  const read = async (file: File) => {
    if (file.size > largest)
      return say({
        text: `${file.name} has ${Math.ceil(file.size / 1e6)} MB: 50 MB of a calendar is the most.`,
        tone: 'trouble',
      });
    setBusy(true);
    const worker = new Worker(new URL('./readCalendar.worker.ts', import.meta.url), {
      type: 'module',
      name: 'read calendar',
    });
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const found = await wrap<typeof readCalendar>(worker)(bytes, Date.now());
      setPlan(await planOf(file.name, found));
    } catch (error) {
      say({ text: `${file.name} could not be read: ${reasonOf(error)}`, tone: 'trouble' });
    } finally {
      worker.terminate();
      setBusy(false);
    }
  };
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept=".ics,text/calendar"
        className="hidden"
        data-testid="calendar-file"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
      <button className="btn btn-ghost btn-sm" disabled={busy} onClick={() => picker.current?.click()}>
        <FileUp size={16} aria-hidden /> {busy ? 'Reading …' : 'Bring .ics in'}
      </button>
      {plan && <Preview plan={plan} onClose={() => setPlan(null)} />}
    </>
  );
}
