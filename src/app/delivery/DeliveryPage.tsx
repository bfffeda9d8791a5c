import { groupsOf } from '../../core/contacts/contact';
import { useState } from 'react';
import type { DeliverySettings, LetThrough } from '../../core/delivery/settings';
import type { Setup } from '../../core/line/setup';
import { timetableWords } from '../../core/delivery/timetable';
import { isZone } from '../../core/delivery/week';
import type { SetupEdit } from '../../core/line/setupEdit';
import { messages } from '../../core/text/sentences';
import { dueWords } from '../../core/text/time';
import type { Overview } from '../../mailroom/border/overview';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Switch } from '../ui/fields';
import { Form } from '../ui/Form';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { AnswerFields } from './AnswerFields';
import { DeliveryDryRun } from './DeliveryDryRun';
import { FixedTimes } from './FixedTimes';
import { GatheringFields, readGathering } from './GatheringFields';
import { HoursFields } from './HoursFields';
import { HoldNow } from './HoldNow';
import { QuietFields } from './QuietFields';
import { WeekGrid } from './WeekGrid';

/** When mail is delivered: the hold, what it lets through, the timetable, single periods of quiet, the time zone. */
export function DeliveryPage() {
  const overview = useMailbox((s) => s.overview);
  if (!overview) return null;
  return (
    <Page title="Hold" acts={<UndoSpot />}>
      <div className="flex flex-col gap-6">
        <HoldNow overview={overview} />
        <Settings key={JSON.stringify({ ...overview.setup.delivery, hold: null })} overview={overview} />
      </div>
    </Page>
  );
}

const zones = (): string[] =>
  (Intl as { supportedValuesOf?: (key: string) => string[] }).supportedValuesOf?.('timeZone') ?? [];

interface ZoneFieldProps {
  zone: string | null;
  machine: string;
  onChange: (zone: string | null) => void;
}

/** The person’s time zone. */
function ZoneField({ zone, machine, onChange }: ZoneFieldProps) {
  const [typed, setTyped] = useState(zone ?? '');
  const wrong = typed.trim() !== '' && !isZone(typed.trim());
  return (
    <label className="flex max-w-sm flex-col gap-1">
      <span className="font-semibold">Time zone</span>
      <input
        className={`input w-full input-sm ${wrong ? 'input-error' : ''}`}
        list="zones"
        placeholder={`that of this machine, ${machine}`}
        maxLength={100}
        value={typed}
        aria-invalid={wrong}
        onChange={(event) => {
          setTyped(event.target.value);
          const next = event.target.value.trim();
          if (next === '' || isZone(next)) onChange(next || null);
        }}
      />
      <datalist id="zones">
        {zones().map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <span className={`min-h-5 text-sm ${wrong ? 'text-error' : 'quiet'}`} aria-live="polite">
        {wrong
          ? 'A name like Europe/Copenhagen; empty for that of this machine.'
          : 'Rounds, hours and mornings go by it.'}
      </span>
    </label>
  );
}

/** What waits, and when it is next delivered. */
function Next({ overview }: { overview: Overview }) {
  const now = useNow(30_000);
  const { next, waits, inTrays } = overview.waiting;
  if (next === null && waits === 0) return null;
  return (
    <p className="border-l-4 border-primary bg-base-200 px-3 py-2 text-sm">
      {next !== null && <strong>Next: {dueWords(next, now)}. </strong>}
      {waits > 0 && `${messages(waits)} ${waits === 1 ? 'is' : 'are'} held back. `}
      {inTrays > 0 && `${messages(inTrays)} ${inTrays === 1 ? 'waits' : 'wait'} in trays.`}
    </p>
  );
}

interface ThroughProps {
  letThrough: LetThrough;
  setup: Setup;
  set: (some: { letThrough: LetThrough }) => void;
}

/** What no hold keeps. */
const Through = ({ letThrough, setup, set }: ThroughProps) => (
  <section aria-labelledby="let-through" className="flex flex-col gap-2">
    <h2 id="let-through" className="text-lg font-semibold">
      Let through
    </h2>
    <p className="text-sm">What comes all the same, whatever holds delivery back.</p>
    <GatheringFields
      word="Let through"
      gathering={letThrough}
      setup={setup}
      onChange={(next) => set({ letThrough: { ...letThrough, ...next } })}
    />
    <Switch
      word="Whoever is in my contacts"
      on={letThrough.contacts}
      onChange={(contacts) => set({ letThrough: { ...letThrough, contacts } })}
    />
    {!letThrough.contacts &&
      [...new Set([...groupsOf(setup.contacts), ...(letThrough.groups ?? [])])].map((group) => (
        <Switch
          key={group}
          word={`Whoever is in the group “${group}”`}
          on={letThrough.groups?.includes(group) === true}
          onChange={(on) => {
            const others = (letThrough.groups ?? []).filter((one) => one !== group);
            set({ letThrough: { ...letThrough, groups: on ? [...others, group] : others } });
          }}
        />
      ))}
  </section>
);

function Settings({ overview }: { overview: Overview }) {
  const { setup, revision } = overview;
  const [draft, setDraft] = useState<DeliverySettings>(setup.delivery);
  const [saving, setSaving] = useState(false);
  const set = (part: Partial<DeliverySettings>) => setDraft((one) => ({ ...one, ...part }));
  const { timetable, letThrough, quiet } = draft;
  // The hold is not part of the draft: it may be put on or lifted meanwhile.
  const item = { ...draft, letThrough: readGathering(letThrough), hold: setup.delivery.hold };
  const edits: SetupEdit[] = [{ list: 'delivery', id: 'delivery', item }];
  const changed = JSON.stringify(item) !== JSON.stringify(setup.delivery);
  const answer = useAnswer(
    () => mailroom.deliveryDryRun(edits, { in: 'hold' }, 'timetable'),
    `${JSON.stringify(edits)} ${revision}`,
    150,
  );
  const empty = timetable.on && timetable.open.length === 0 && timetable.times.length === 0;
  const save = async () => {
    setSaving(true);
    tellOutcome(await mailroom.editSetup(commandId(), edits, 'Changed when mail is delivered', false));
    setSaving(false);
  };
  return (
    <Halves
      wide
      left={
        <Form className="flex flex-col gap-6" onSubmit={() => void save()}>
          <Through letThrough={letThrough} setup={setup} set={set} />
          <section aria-labelledby="timetable" className="flex flex-col gap-3">
            <h2 id="timetable" className="text-lg font-semibold">
              Timetable
            </h2>
            <Switch
              word="Deliver by the timetable"
              what="In painted hours mail comes as it comes; outside of them it waits for the next, or for a fixed time."
              on={timetable.on}
              onChange={(on) => set({ timetable: { ...timetable, on } })}
            />
            <WeekGrid timetable={timetable} onChange={(next) => set({ timetable: next })} />
            <HoursFields timetable={timetable} onChange={(next) => set({ timetable: next })} />
            <FixedTimes timetable={timetable} onChange={(next) => set({ timetable: next })} />
            <ul className="text-sm" aria-label="The timetable in words">
              {timetableWords(timetable).map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
            {empty && (
              <p className="border-l-4 border-accent bg-base-200 px-3 py-2 text-sm">
                With neither hours nor fixed times nothing would ever be delivered.
              </p>
            )}
            <Next overview={overview} />
          </section>
          <QuietFields quiet={quiet} zone={overview.waiting.zone} onChange={(next) => set({ quiet: next })} />
          <AnswerFields
            answer={draft.answer}
            setup={setup}
            sends={overview.post.on}
            onChange={(answer) => set({ answer })}
          />
          <ZoneField zone={draft.zone} machine={overview.waiting.zone} onChange={(zone) => set({ zone })} />
          <div className={`flex gap-2 bg-base-100 py-3 ${changed ? 'sticky -bottom-4 border-t border-base-300' : ''}`}>
            <button
              className="btn btn-primary"
              disabled={!changed || empty || saving || Number.isNaN(draft.answer.days)}
            >
              Save
            </button>
            <button
              type="button"
              className="btn btn-ghost"
              disabled={!changed}
              onClick={() => setDraft(setup.delivery)}
            >
              Leave it as it was
            </button>
          </div>
        </Form>
      }
      right={<DeliveryDryRun answer={answer} where="for the hours of the timetable, or a period of quiet" />}
    />
  );
}
