import { useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { parseEntry } from '../../core/senders/register';
import type { Told } from '../../core/senders/told';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { prefer, usePreferences } from '../state/preferences';
import { Switch } from '../ui/fields';
import { InkTag } from '../ui/InkTag';
import { Halves, Page } from '../ui/Page';
import { exactTime } from '../../core/text/time';
import { useAnswer } from '../ui/useAnswer';
import { messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { Form } from '../ui/Form';
import { allowBanners, bannersAllowed, playSound } from './notify';

/** By a banner, a sound, or both; and whether flags count. */
function How() {
  const { banner, sound, dueTold } = usePreferences();
  const [refused, setRefused] = useState(banner && !bannersAllowed());
  const turnBanner = async (on: boolean) => {
    const allowed = on && (await allowBanners());
    setRefused(on && !allowed);
    prefer({ banner: on && allowed });
  };
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold">How</legend>
      <Switch word="A banner" on={banner} onChange={(on) => void turnBanner(on)} />
      {refused && (
        <p role="alert" className="border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm">
          This browser does not let Wide Sort show banners. Allow notifications for this address in the browser’s
          settings, then turn it on again.
        </p>
      )}
      <Switch
        word="A sound"
        on={sound}
        onChange={(on) => {
          prefer({ sound: on });
          if (on) playSound();
        }}
      />
      <Switch
        word="Also when a flag or a task falls due, an appointment comes near, or what was put off comes back"
        what="At its time; a flag for a whole day, at nine in the morning."
        on={dueTold}
        onChange={(on) => prefer({ dueTold: on })}
      />
    </fieldset>
  );
}

interface PartProps {
  told: readonly Told[];
  edit: (id: string, item: Told | null, says: string) => Promise<boolean>;
}

function OfSenders({ told, edit }: PartProps) {
  const [typed, setTyped] = useState('');
  const read = parseEntry(typed);
  const add = async () => {
    if (!read.ok) return;
    if (told.some((t) => t.by === 'sender' && t.value === read.value)) return setTyped('');
    const id = commandId();
    if (await edit(id, { id, by: 'sender', value: read.value }, `To be told of mail from ${read.value}`)) setTyped('');
  };
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Of which senders</legend>
      <ul className="flex flex-col">
        {told
          .filter((t) => t.by === 'sender')
          .map((t) => (
            <li key={t.id} className="flex items-center gap-2">
              <span className="min-w-0 flex-1 truncate font-mono text-sm">{t.value}</span>
              <button
                className="btn btn-ghost btn-xs"
                onClick={() => void edit(t.id, null, `No longer to be told of mail from ${t.value}`)}
                aria-label={`Take off ${t.value}`}
              >
                Take off
              </button>
            </li>
          ))}
      </ul>
      <Form className="mt-1 flex items-end gap-2" onSubmit={() => void add()}>
        <label className="flex flex-1 flex-col text-sm">
          Address or domain
          <input
            className="input input-sm w-full font-mono"
            autoComplete="off"
            spellCheck={false}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button className="btn btn-sm" disabled={!read.ok}>
          Add
        </button>
      </Form>
      {typed !== '' && !read.ok && <p className="text-sm">{read.error}</p>}
    </fieldset>
  );
}

function OfLabels({ told, setup, edit }: PartProps & { setup: Setup }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Of which labels</legend>
      {setup.labels.length === 0 && <p className="quiet">There are no labels.</p>}
      {setup.labels.map((label) => {
        const its = told.find((t) => t.by === 'label' && t.value === label.id);
        return (
          <label key={label.id} className="flex items-center gap-2 py-0.5">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={its !== undefined}
              onChange={() => {
                const id = its?.id ?? commandId();
                const says = `${its ? 'No longer to' : 'To'} be told of mail labelled ${label.name}`;
                void edit(id, its ? null : { id, by: 'label', value: label.id }, says);
              }}
            />
            <InkTag id={label.id} setup={setup} />
          </label>
        );
      })}
    </fieldset>
  );
}

/** Being told of new mail: off at first, and only of what the person chose. */
export function TellingPage() {
  const { overview, revision } = useMailbox();
  const told = overview?.setup.told ?? [];
  const { value: lately } = useAnswer(() => mailroom.toldLately(told), `${JSON.stringify(told)} ${revision}`);
  if (!overview) return null;
  const { setup } = overview;
  const edit = async (id: string, item: Told | null, says: string) =>
    tellOutcome(await mailroom.editSetup(commandId(), [{ list: 'told', id, item }], says, false));
  return (
    <Page title="Being told" acts={<UndoSpot />}>
      <Halves
        left={
          <>
            <p className="max-w-prose">
              New mail changes the counts, and nothing more, until you ask for it here. You are told only of what you
              choose below, while Wide Sort is open in a tab.
            </p>
            <How />
            <OfSenders told={told} edit={edit} />
            <OfLabels told={told} setup={setup} edit={edit} />
          </>
        }
        right={
          <section aria-label="What it would have been">
            <h2 className="mb-2 font-semibold">In the last seven days</h2>
            <div className="mb-2">
              <Waiting
                says="Counting …"
                answer={
                  told.length === 0
                    ? 'You would have been told of nothing: nothing is chosen.'
                    : lately &&
                      `You would have been told ${lately.total === 1 ? 'once' : `of ${messages(lately.total)}`}.`
                }
              />
            </div>
            <ul>
              {lately?.sample.map((row) => (
                <li key={row.id} className="flex gap-3 border-b border-base-300 py-1 text-sm">
                  <span className="w-40 shrink-0 truncate">{row.from.name || row.from.address}</span>
                  <span className="min-w-0 flex-1 truncate">{row.subject || 'No subject'}</span>
                  <time className="quiet shrink-0">{exactTime(row.date)}</time>
                </li>
              ))}
            </ul>
          </section>
        }
      />
    </Page>
  );
}
