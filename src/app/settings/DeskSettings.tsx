import { useState } from 'react';
import { RowList } from '../desk/RowList';
import { deskActs } from '../desk/deskActs';
import { useRows } from '../desk/useRows';
import { useMailbox } from '../state/overview';
import { prefer, usePreferences, type Preferences } from '../state/preferences';
import { Choice, NumberField, Switch } from '../ui/fields';
import { Halves, Page } from '../ui/Page';

const inbox = { kind: 'place', place: 'inbox' } as const;
/** Acts that make sense on one row: each place offers those that have something to do there. */
const rowActs = deskActs.filter(({ id }) => !['inbox', 'not-junk'].includes(id));
const mostHoverActs = 3;
const sendWaits = [0, 5, 10, 20, 30];
const peopleMany = [5, 10, 20, 50, 100];

function ActChoice({ label, value, onChange }: { label: string; value: string; onChange: (id: string) => void }) {
  return (
    <label className="flex items-center gap-2">
      <span className="w-28">{label}</span>
      <select className="select select-sm" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">Nothing</option>
        {rowActs.map(({ id, word }) => (
          <option key={id} value={id}>
            {word}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What the person chose. */
interface PartProps {
  p: Preferences;
}

/** How rows look. */
const Look = ({ p }: PartProps) => (
  <>
    <Choice
      legend="Rows"
      value={p.density}
      options={[
        ['roomy', 'Roomy', 'two lines'],
        ['tight', 'Tight', 'one line'],
      ]}
      onChange={(density) => prefer({ density })}
    />
    <Choice
      legend="First in a row"
      value={p.rowFirst}
      options={[
        ['people', 'People'],
        ['subject', 'Subject'],
      ]}
      onChange={(rowFirst) => prefer({ rowFirst })}
    />
    <Choice
      legend="Text size"
      value={p.textSize}
      options={[
        ['small', 'Small'],
        ['medium', 'Medium'],
        ['large', 'Large'],
      ]}
      onChange={(textSize) => prefer({ textSize })}
    />
  </>
);

/** After how many seconds a message counts as read; a wrong number is said, and the one before holds. */
function Seconds({ kept }: { kept: number }) {
  const [seconds, setSeconds] = useState(kept);
  const change = (next: number) => {
    setSeconds(next);
    if (!Number.isNaN(next)) prefer({ markReadSeconds: next });
  };
  return <NumberField label="Seconds" unit="seconds" least={1} most={600} value={seconds} onChange={change} />;
}

/** Where and how a message is opened. */
const Reading = ({ p }: PartProps) => (
  <>
    <Choice
      legend="Reading area"
      value={p.reading}
      options={[
        ['right', 'Right'],
        ['below', 'Below'],
        ['off', 'Off', 'a message takes the place of the rows'],
      ]}
      onChange={(reading) => prefer({ reading })}
    />
    <Choice
      legend="A message counts as read"
      value={p.markRead}
      options={[
        ['opened', 'When it is opened'],
        ['seconds', 'After some seconds'],
        ['hand', 'Only by hand'],
      ]}
      onChange={(markRead) => prefer({ markRead })}
    >
      {p.markRead === 'seconds' && <Seconds kept={p.markReadSeconds} />}
    </Choice>
    <Choice
      legend="After the open message was archived, binned or moved"
      value={p.goOn}
      options={[
        ['next', 'Open the next'],
        ['previous', 'Open the one before'],
        ['list', 'Back to the list'],
      ]}
      onChange={(goOn) => prefer({ goOn })}
    />
  </>
);

/** How messages are written, and how long they can be taken back. */
const WritingOnes = ({ p }: PartProps) => (
  <fieldset className="flex flex-col gap-1">
    <legend className="mb-1 font-semibold">Writing</legend>
    <Switch
      word="Write rich text"
      what="Bold, lists, links, pictures; a plain part goes with it. For one message it can be changed there."
      on={p.writeRich}
      onChange={(writeRich) => prefer({ writeRich })}
    />
    <label className="flex items-center gap-2">
      <span>After Send a message can be taken back for</span>
      <select
        className="select w-auto select-sm"
        value={p.sendWait}
        onChange={(event) => prefer({ sendWait: Number(event.target.value) })}
      >
        {sendWaits.map((seconds) => (
          <option key={seconds} value={seconds}>
            {seconds === 0 ? 'no time' : `${seconds} seconds`}
          </option>
        ))}
      </select>
    </label>
    <label className="flex items-center gap-2">
      <span>Before it goes it says how many get it, from</span>
      <select
        className="select w-auto select-sm"
        value={p.manyPeople}
        onChange={(event) => prefer({ manyPeople: Number(event.target.value) })}
      >
        {/* A setup file may have brought another number. */}
        {[...new Set([...peopleMany, p.manyPeople])]
          .sort((a, b) => a - b)
          .map((people) => (
            <option key={people} value={people}>
              {people} people on
            </option>
          ))}
      </select>
    </label>
    {'registerProtocolHandler' in navigator && (
      <p className="mt-1 flex flex-wrap items-center gap-2 text-sm">
        <button
          type="button"
          className="btn btn-outline btn-sm"
          onClick={() => navigator.registerProtocolHandler('mailto', `${location.origin}/write?mailto=%s`)}
        >
          Open links to addresses here
        </button>
        <span className="quiet">The browser asks whether links (mailto:) of other pages begin a draft here.</span>
      </p>
    )}
  </fieldset>
);

const Conversations = ({ p }: PartProps) => (
  <fieldset className="flex flex-col gap-1">
    <legend className="mb-1 font-semibold">Conversations</legend>
    <Switch
      word="Gather messages into conversations in every place"
      what="A place can be set by itself at the desk’s edge (G). Only a view: nothing is moved."
      on={p.groupedAll}
      onChange={(groupedAll) => prefer({ groupedAll, grouped: {} })}
    />
    <Switch
      word="With messages from other places"
      what="Sent, Archive and folders. For one conversation it can be changed there."
      on={p.elsewhere}
      onChange={(elsewhere) => prefer({ elsewhere })}
    />
    <Switch
      word="Newest message first"
      what="Within a conversation; the list has an order of its own."
      on={p.newestFirst}
      onChange={(newestFirst) => prefer({ newestFirst })}
    />
    <Switch
      word="Opening a conversation marks all of it as read"
      on={p.readAll}
      onChange={(readAll) => prefer({ readAll })}
    />
  </fieldset>
);

const HoverActs = ({ p }: PartProps) => (
  <fieldset>
    <legend className="mb-1 font-semibold">Acts on a row under the pointer, at most three</legend>
    <div className="flex flex-wrap gap-x-4">
      {rowActs.map(({ id, word }) => (
        <label key={id} className="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={p.hoverActs.includes(id)}
            disabled={!p.hoverActs.includes(id) && p.hoverActs.length >= mostHoverActs}
            onChange={(event) =>
              prefer({
                hoverActs: event.target.checked ? [...p.hoverActs, id] : p.hoverActs.filter((other) => other !== id),
              })
            }
          />
          {word}
        </label>
      ))}
    </div>
  </fieldset>
);

/** How the desk looks and behaves, with the Inbox beside it as it would be. */
export function DeskSettings() {
  const setup = useMailbox((s) => s.overview?.setup);
  const p = usePreferences();
  const rows = useRows(inbox, { grouped: p.groupedAll, elsewhere: p.elsewhere });
  if (!setup) return null;
  return (
    <Page title="The desk">
      <Halves
        left={
          <>
            <Look p={p} />
            <Reading p={p} />
            <fieldset className="flex flex-col gap-1">
              <legend className="mb-1 font-semibold">Moves by hand</legend>
              <Switch
                word="Offer a rule"
                what="Where the same sender’s mail is moved to one folder by hand for the third time; once for each."
                on={p.offers}
                onChange={(offers) => prefer({ offers })}
              />
            </fieldset>
            <WritingOnes p={p} />
            <Conversations p={p} />
            <HoverActs p={p} />
            <fieldset className="flex flex-col gap-1">
              <legend className="mb-1 font-semibold">Swipes on a touch screen</legend>
              <ActChoice label="To the left" value={p.swipeLeft} onChange={(swipeLeft) => prefer({ swipeLeft })} />
              <ActChoice label="To the right" value={p.swipeRight} onChange={(swipeRight) => prefer({ swipeRight })} />
            </fieldset>
          </>
        }
        right={
          <section aria-label="Preview" className="flex h-[70vh] flex-col rounded border border-base-300">
            <h2 className="border-b border-base-300 px-3 py-2 font-semibold">The Inbox, as it would be</h2>
            <RowList
              view={inbox}
              grouping={{ grouped: p.groupedAll, elsewhere: p.elsewhere }}
              name="Inbox, as it would be"
              rows={rows}
              setup={setup}
              open={null}
              openConversation={null}
              onOpen={() => undefined}
            />
          </section>
        }
      />
    </Page>
  );
}
