import { X } from 'lucide-react';
import { useState } from 'react';
import { editWords } from '../../core/agenda/itemActs';
import { itemTrouble, type Item, type ItemKind } from '../../core/agenda/item';
import { recurrenceWords } from '../../core/agenda/recurrenceWords';
import { isDay } from '../../core/agenda/wallTime';
import type { Setup } from '../../core/line/setup';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { Choice } from '../ui/fields';
import { saveFile } from '../ui/save';
import { useAnswer } from '../ui/useAnswer';
import { RecipientField } from '../writing/RecipientField';
import { closeItem, useItemDraft, type ItemDraft } from './itemDraft';
import { saveItems, takeOff } from './itemEdits';
import { useItemForm, type ItemForm } from './itemForm';
import { day, hour, timesOf } from './typedWhen';
import { WhenFields } from './WhenFields';
import { layer } from '../ui/layers';

/** How long before something one is told of it, in minutes. */
const reminders = [
  ['', 'never'],
  ['0', 'at its time'],
  ['10', '10 minutes before'],
  ['30', '30 minutes before'],
  ['60', 'an hour before'],
  ['1440', 'a day before'],
] as const;

const recurrences = [
  ['', 'never'],
  ['FREQ=DAILY', 'every day'],
  ['FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', 'every workday'],
  ['FREQ=WEEKLY', 'every week'],
  ['FREQ=WEEKLY;INTERVAL=2', 'every 2 weeks'],
  ['FREQ=MONTHLY', 'every month'],
  ['FREQ=YEARLY', 'every year'],
] as const;

/** Splits a recurrence into how it comes and how it ends. */
const parted = (rule: string | null): { rule: string; times: string } => {
  const [, times = ''] = /;COUNT=(\d+)/.exec(rule ?? '') ?? [];
  return { rule: (rule ?? '').replace(/;COUNT=\d+/, ''), times };
};

function Repeats({ item, onChange }: { item: Item; onChange: (repeats: string | null) => void }) {
  const { rule, times } = parted(item.repeats);
  const known = recurrences.some(([value]) => value === rule);
  const set = (next: string, count: string) =>
    onChange(next === '' ? null : `${next}${count ? `;COUNT=${count}` : ''}`);
  return (
    <div className="flex flex-wrap items-end gap-2">
      <label className="flex flex-col text-sm">
        Comes again
        <select className="select w-44 select-sm" value={rule} onChange={(event) => set(event.target.value, times)}>
          {recurrences.map(([value, word]) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
          {!known && <option value={rule}>{recurrenceWords(rule)}</option>}
        </select>
      </label>
      {rule !== '' && !/UNTIL=/.test(rule) && (
        <label className="flex flex-col text-sm">
          Times in all, or empty for no end
          <input
            className="input input-sm w-24"
            inputMode="numeric"
            value={times}
            onChange={(event) => set(rule, event.target.value.replace(/\D/g, '').replace(/^0+/, '').slice(0, 4))}
          />
        </label>
      )}
    </div>
  );
}

interface InvitedProps {
  item: Item;
  typed: string;
  onTyped: (typed: string) => void;
  onOrganizer: (address: string) => void;
}

const none: Setup['accounts'] = [];

/** Who is invited, and from which account. */
function InvitedFields({ item, typed, onTyped, onOrganizer }: InvitedProps) {
  const accounts = useMailbox((s) => s.overview?.setup.accounts) ?? none;
  if (accounts.length === 0) return null;
  return (
    <>
      <RecipientField word="Invite" value={typed} onChange={onTyped} />
      {typed.trim() !== '' && accounts.length > 1 && (
        <label className="flex flex-col text-sm">
          From
          <select
            className="select w-full select-sm"
            value={item.organizer?.address ?? accounts[0].address}
            onChange={(event) => onOrganizer(event.target.value)}
          >
            {accounts.map(({ id, name, address }) => (
              <option key={id} value={address}>
                {name} {address}
              </option>
            ))}
          </select>
        </label>
      )}
    </>
  );
}

/** What else is at that time. */
function InTheWay({ item }: { item: Item }) {
  const { value } = useAnswer(
    () =>
      item.kind === 'appointment' && item.start && itemTrouble(item) === null
        ? mailroom.inTheWay(item)
        : Promise.resolve([]),
    JSON.stringify([item.uid, item.kind, item.start, item.end, item.repeats]),
    200,
  );
  if (!value || value.length === 0) return null;
  return (
    <p className="border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm" role="status">
      In the way: {value.map(({ title, when }) => `${title}, ${when}`).join('; ')}
    </p>
  );
}

/** A task or an appointment being written, beside whatever is on the screen. */
export function ItemPanel() {
  const open = useItemDraft((s) => s.open);
  return open && <Panel key={open.item.uid + String(open.on)} draft={open} />;
}

function Panel({ draft }: { draft: ItemDraft }) {
  const setup = useMailbox((s) => s.overview?.setup);
  return setup ? <Filled draft={draft} setup={setup} /> : null;
}

interface FieldsProps {
  form: ItemForm;
  draft: ItemDraft;
}

/** All that is filled in. */
function Fields({ form, draft }: FieldsProps) {
  const { before, on, dates } = draft;
  const { item, invited, foreign, set, setInvited, setWrong } = form;
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto p-3">
      {foreign && (
        <p className="border-l-4 border-base-300 px-3 py-1 text-sm">
          {foreign.name || foreign.address} invites to it: what you change here nobody else sees.
        </p>
      )}
      {!before && (
        <Choice
          legend="What it is"
          value={item.kind}
          options={[
            ['task', 'A task'],
            ['appointment', 'An appointment'],
          ]}
          onChange={(kind: ItemKind) => {
            setWrong(null);
            const at = item.kind === 'task' ? item.end : item.start;
            const bare = { ...item, kind, start: null, end: null };
            set({ kind, ...timesOf(bare, at, at && isDay(at) ? day : hour) });
          }}
        />
      )}
      <label className="flex flex-col text-sm">
        Title
        <input
          className="input w-full"
          autoFocus
          maxLength={1_000}
          dir="auto"
          value={item.title}
          onChange={(event) => set({ title: event.target.value })}
        />
      </label>
      <WhenFields key={item.kind} item={item} dates={dates} onChange={set} onWrong={setWrong} />
      <InTheWay item={item} />
      <Reminder item={item} onChange={(reminder) => set({ reminder })} />
      {on === null && (
        <Repeats item={item} onChange={(repeats) => set({ repeats, except: [], besides: [], changed: [] })} />
      )}
      <label className="flex flex-col text-sm">
        Place
        <input
          className="input input-sm w-full"
          maxLength={1_000}
          dir="auto"
          value={item.place}
          onChange={(event) => set({ place: event.target.value })}
        />
      </label>
      {item.kind === 'appointment' && !foreign && on === null && (
        <InvitedFields
          item={item}
          typed={invited}
          onTyped={setInvited}
          onOrganizer={(address) => set({ organizer: { name: '', address } })}
        />
      )}
      <label className="flex flex-col text-sm">
        Note
        <textarea
          className="textarea w-full"
          rows={4}
          maxLength={19_000}
          dir="auto"
          value={item.note}
          onChange={(event) => set({ note: event.target.value })}
        />
      </label>
      {item.messages.length > 0 && (
        <p className="flex items-center gap-2 text-sm">
          {item.messages.length === 1 ? 'One message is' : `${count(item.messages.length)} messages are`} kept with it.
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => set({ messages: [] })}>
            Leave {item.messages.length === 1 ? 'it' : 'them'} out
          </button>
        </p>
      )}
    </div>
  );
}

function Reminder({ item, onChange }: { item: Item; onChange: (reminder: number | null) => void }) {
  const { reminder } = item;
  return (
    <label className="flex flex-col text-sm">
      Told of it
      <select
        className="select w-44 select-sm"
        value={reminder ?? ''}
        onChange={(event) => onChange(event.target.value === '' ? null : Number(event.target.value))}
      >
        {reminders.map(([value, word]) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
        {reminder !== null && !reminders.some(([value]) => value === String(reminder)) && (
          <option value={reminder}>{count(reminder)} minutes before</option>
        )}
      </select>
    </label>
  );
}

/** One as a file; by choice with the messages themselves that are kept with it. */
function SaveOne({ uid, kept }: { uid: string; kept: number }) {
  const save = async (enclosed: boolean) =>
    saveFile(new Blob([await mailroom.exportItems([uid], enclosed)], { type: 'text/calendar' }), 'agenda.ics');
  return (
    <>
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => void save(false)}>
        Save .ics
      </button>
      {kept > 0 && (
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          title="The file holds the messages, too, not only links to them"
          onClick={() => void save(true)}
        >
          with its {kept === 1 ? 'message' : 'messages'}
        </button>
      )}
    </>
  );
}

/** Saving, telling those who are invited, taking off. */
function Ends({ form, draft }: FieldsProps) {
  const { before, on } = draft;
  const { trouble, tells, foreign, whole } = form;
  const office = useMailbox((s) => s.overview?.post.on === true);
  const [busy, setBusy] = useState(false);
  const telling = tells > 0 && office;
  const save = async (tell: boolean) => {
    if (trouble !== null || busy) return;
    setBusy(true);
    const next = whole(Date.now());
    const saved = await saveItems([{ uid: next.uid, item: next }], editWords(before, next), tell);
    setBusy(false);
    if (saved) closeItem();
  };
  const callsOff = before !== null && before.invited.length > 0 && !foreign && office;
  return (
    <footer className="flex flex-col gap-2 border-t border-base-300 p-3">
      {trouble && <p className="text-sm">{trouble}</p>}
      {tells > 0 && (
        <p className="text-sm">
          {office
            ? `${tells === 1 ? 'One person is' : `${count(tells)} people are`} told by mail, which no Undo takes back.`
            : 'This mailbox has no post office: nobody is told.'}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={trouble !== null || busy}
          onClick={() => void save(telling)}
        >
          {telling ? 'Save and tell them' : 'Save'}
        </button>
        {telling && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            disabled={trouble !== null || busy}
            onClick={() => void save(false)}
          >
            Save, tell nobody
          </button>
        )}
        {before && <SaveOne uid={before.uid} kept={before.messages.length} />}
        {before && (
          <button
            type="button"
            className="btn ml-auto btn-ghost btn-sm"
            onClick={() => void takeOff(before.uid, on, callsOff).then((done) => done && closeItem())}
          >
            {callsOff ? 'Call it off' : 'Take off'}
          </button>
        )}
      </div>
    </footer>
  );
}

function Filled({ draft, setup }: { draft: ItemDraft; setup: Setup }) {
  const { before, on } = draft;
  const form = useItemForm(draft, setup);
  const kind = form.item.kind === 'task' ? 'Task' : 'Appointment';
  const name = before ? kind : `New ${kind.toLowerCase()}`;
  return (
    <section
      {...layer}
      aria-label={name}
      className="flex min-h-0 flex-col border-l-2 border-base-300 bg-base-100 max-lg:fixed max-lg:inset-0 max-lg:z-30 lg:w-[27rem] lg:shrink-0"
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) {
          event.preventDefault();
          closeItem();
        }
      }}
    >
      <header className="flex items-center gap-2 border-b border-base-300 px-3 py-2">
        <h2 className="font-semibold">{name}</h2>
        {on !== null && <span className="quiet text-sm">this one of its series</span>}
        <button
          className="btn ml-auto btn-square btn-ghost btn-sm"
          aria-label="Close"
          title="Close (Esc)"
          onClick={closeItem}
        >
          <X size={16} />
        </button>
      </header>
      <Fields form={form} draft={draft} />
      <Ends form={form} draft={draft} />
    </section>
  );
}
