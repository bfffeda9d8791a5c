import { useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { roundWords } from '../../core/delivery/rounds';
import type { Tray } from '../../core/delivery/tray';
import { count, messages } from '../../core/text/sentences';
import { dueWords } from '../../core/text/time';
import type { GatherChoice, Gathered } from '../../mailroom/border/trays';
import type { Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Dialog } from '../ui/Dialog';
import { Form } from '../ui/Form';
import { useAnswer } from '../ui/useAnswer';
import { useNow } from '../ui/useNow';
import { offeredRounds } from './rounds';

interface Props {
  selection: Selection;
  /** How many messages that is, where they are not named one by one. */
  count?: number;
  setup: Setup;
  onClose: () => void;
  /** Carries it out, and opens what comes next. */
  onPut: (put: () => Promise<boolean>) => void;
}

const fromWords: Record<GatherChoice['of'], [one: string, many: string]> = {
  sender: ['', 'senders'],
  domain: ['Everyone at ', 'domains'],
  list: ['The mailing list ', 'mailing lists'],
};

function nameOfChoice({ of, names }: GatherChoice): string {
  const [before, many] = fromWords[of];
  return names.length === 1 ? `${before}${names[0]}` : `Their ${count(names.length)} ${many}`;
}

/** When a tray is delivered, and when that is next. */
function Round({ tray, setup }: { tray: string; setup: Setup }) {
  const next = useMailbox((s) => s.overview?.trays.find((one) => one.tray === tray)?.next ?? null);
  const now = useNow(30_000);
  const its = setup.trays.find(({ id }) => id === tray);
  if (!its) return null;
  return (
    <p className="quiet text-sm">
      {its.name} is delivered {roundWords(its.round)}
      {next !== null && `, next ${dueWords(next, now)}`}.
    </p>
  );
}

interface NewTrayProps {
  name: string;
  onName: (name: string) => void;
  /** Which of the rounds that are offered. */
  round: number;
  onRound: (round: number) => void;
}

/** A tray that is still to be made. */
function NewTray({ name, onName, round, onRound }: NewTrayProps) {
  return (
    <div className="flex flex-wrap gap-3">
      <label className="flex min-w-40 flex-1 flex-col gap-1 text-sm">
        Its name
        <input className="input w-full" maxLength={100} value={name} onChange={(e) => onName(e.target.value)} />
      </label>
      <label className="flex min-w-40 flex-1 flex-col gap-1 text-sm">
        Delivered
        <select className="select w-full" value={round} onChange={(e) => onRound(Number(e.target.value))}>
          {offeredRounds.map((one, at) => (
            <option key={at} value={at}>
              {roundWords(one)}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

interface WhatGoesProps {
  /** How many messages it is about. */
  n: number;
  of: Gathered;
  choices: GatherChoice[] | null;
  waiting: boolean;
  onChange: (of: Gathered) => void;
}

/** These alone, or whatever is like them from now on. */
function WhatGoes({ n, of, choices, waiting, onChange }: WhatGoesProps) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold">What goes there</legend>
      <label className="flex items-start gap-2">
        <input
          type="radio"
          name="gathered"
          className="radio mt-0.5 radio-sm"
          checked={of === 'this'}
          onChange={() => onChange('this')}
        />
        {n === 1 ? 'This one alone' : 'These alone'}
      </label>
      {choices?.map((choice) => (
        <label key={choice.of} className="flex items-start gap-2">
          <input
            type="radio"
            name="gathered"
            className="radio mt-0.5 radio-sm"
            checked={of === choice.of}
            onChange={() => onChange(choice.of)}
          />
          <span className="min-w-0 [overflow-wrap:anywhere]">
            {nameOfChoice(choice)} <span className="quiet text-sm">from now on</span>
          </span>
        </label>
      ))}
      {waiting && !choices && <p className="quiet text-sm">Looking who they are from …</p>}
    </fieldset>
  );
}

/** Into which tray, and from now on? */
export function PutInTrayDialog({ selection, count: counted = 0, setup, onClose, onPut }: Props) {
  const [fresh] = useState(commandId);
  const [tray, setTray] = useState(setup.trays[0]?.id ?? fresh);
  const [name, setName] = useState('');
  const [round, setRound] = useState(0);
  const [of, setOf] = useState<Gathered>('this');
  const [more, setMore] = useState(true);
  const n = 'ids' in selection ? selection.ids.length : counted;
  const { value: choices, waiting } = useAnswer(() => mailroom.gatherChoices(selection), JSON.stringify(selection));
  const chosen = choices?.find((choice) => choice.of === of);
  const isNew = tray === fresh;
  const put = () => {
    if (isNew && !name.trim()) return;
    const made: Tray = {
      id: fresh,
      name: name.trim(),
      round: offeredRounds[round],
      since: 0,
      when: null,
      labels: [],
    };
    const its = isNew ? made : setup.trays.find(({ id }) => id === tray);
    if (!its) return;
    onClose();
    const gathering = { tray: its, of, more: more && (chosen?.more ?? 0) > 0 };
    onPut(async () => tellOutcome(await mailroom.gather(commandId(), selection, gathering)));
  };
  return (
    <Dialog title={`Put ${n === 1 ? 'it' : messages(n)} in a tray`} onClose={onClose}>
      <Form className="flex flex-col gap-3" onSubmit={put}>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Tray</span>
          <select className="select w-full" value={tray} autoFocus onChange={(e) => setTray(e.target.value)}>
            {setup.trays.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
            <option value={fresh}>A new tray …</option>
          </select>
        </label>
        {isNew ? (
          <NewTray name={name} onName={setName} round={round} onRound={setRound} />
        ) : (
          <Round tray={tray} setup={setup} />
        )}
        <WhatGoes n={n} of={of} choices={choices} waiting={waiting} onChange={setOf} />
        {chosen && chosen.more > 0 && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={more}
              onChange={(e) => setMore(e.target.checked)}
            />
            With the {count(chosen.more)} more of them in the Inbox
          </label>
        )}
        <div className="flex justify-end gap-2">
          <button type="button" className="btn btn-ghost" onClick={onClose}>
            Cancel
          </button>
          <button className="btn btn-primary" disabled={isNew && !name.trim()}>
            Put in tray
          </button>
        </div>
      </Form>
    </Dialog>
  );
}
