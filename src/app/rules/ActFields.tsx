// What is chosen about one act, of a rule or of a stamp.
import { inks } from '../../core/mail/label';
import type { Place } from '../../core/mail/place';
import { groupsOf, roles, roleWords } from '../../core/contacts/contact';
import { putOffTimes } from '../../core/agenda/putOffTimes';
import { noBlock } from '../../core/effects/answer';
import { standingOfs, taskDues } from '../../core/effects/effect';
import { flagDays, flagDayWords } from '../../core/effects/flag';
import { standingOfWords } from '../../core/effects/standing';
import { taskDueWords } from '../../core/effects/task';
import type { Whom } from '../../core/effects/whom';
import type { Action } from '../../core/effects/effects';
import type { Setup } from '../../core/line/setup';
import { unchosen } from '../../core/stamps/stamp';
import { labelName, movablePlaces, placePath } from '../ui/naming';
import { newFolderPlace, type DraftIds } from './ruleDraft';

interface ActFieldsProps {
  act: Action;
  setup: Setup;
  /** Of a rule: what may still have to be made. */
  ids?: DraftIds;
  /** Of a stamp: what it speaks of may be asked at its first use, and it may open what it would send. */
  stamp?: boolean;
  onChange: (act: Action) => void;
}

interface PickProps<T extends string> {
  label: string;
  value: T | '';
  options: readonly (readonly [value: T, name: string])[];
  onChange: (value: T) => void;
}

/** One of several, in a list; nothing where what was chosen is gone. */
function Pick<T extends string>({ label, value, options, onChange }: PickProps<T>) {
  const known = options.some(([option]) => option === value);
  return (
    <select
      aria-label={label}
      className="select w-auto max-w-56 select-sm"
      value={known ? value : ''}
      onChange={(event) => {
        const found = options.find(([option]) => option === event.target.value);
        if (found) onChange(found[0]);
      }}
    >
      {!known && (
        <option value="" disabled hidden>
          Choose …
        </option>
      )}
      {options.map(([option, name]) => (
        <option key={option} value={option}>
          {name}
        </option>
      ))}
    </select>
  );
}

const asked = 'asked at first use';
const flagOptions = flagDays.map((day) => [day, flagDayWords[day]] as const);
const putOffOptions = putOffTimes.map((time) => [time, time] as const);
const inkOptions = inks.map((ink) => [ink, ink] as const);

/** What is chosen about an act that says where a message is and what it bears. */
export function ActFields(props: ActFieldsProps) {
  const { act, setup, ids, stamp = false, onChange } = props;
  switch (act.do) {
    case 'move':
      return (
        <Pick
          label="Where to"
          value={act.place}
          options={[
            ...movablePlaces(setup).map((place): [Place, string] => [place, placePath(place, setup)]),
            ...(ids ? [[newFolderPlace(ids), 'a new folder …'] as const] : []),
            ...(stamp ? [[`folder:${unchosen}` as Place, asked] as const] : []),
          ]}
          onChange={(place) => onChange({ ...act, place })}
        />
      );
    case 'label':
    case 'unlabel':
      return (
        <Pick
          label="Which label"
          value={act.label}
          options={[
            ...setup.labels.map(({ id }): [string, string] => [id, labelName(id, setup)]),
            ...(ids && act.do === 'label' ? [[ids.label, 'a new label …'] as const] : []),
            ...(stamp ? [[unchosen, asked] as const] : []),
          ]}
          onChange={(label) => onChange({ ...act, label })}
        />
      );
    case 'ink':
      return (
        <>
          <Pick label="Which ink" value={act.ink} options={inkOptions} onChange={(ink) => onChange({ ...act, ink })} />
          <span className={`ink ink-${act.ink}`}>{act.ink}</span>
        </>
      );
    case 'flag':
      return (
        <Pick label="For when" value={act.due} options={flagOptions} onChange={(due) => onChange({ ...act, due })} />
      );
    case 'tray':
      return (
        <Pick
          label="Which tray"
          value={act.tray}
          options={[
            ...setup.trays.map(({ id, name }): [string, string] => [id, name]),
            ...(stamp ? [[unchosen, asked] as const] : []),
          ]}
          onChange={(tray) => onChange({ ...act, tray })}
        />
      );
    case 'putOff':
      return (
        <Pick
          label="Until when"
          value={act.until}
          options={putOffOptions}
          onChange={(until) => onChange({ ...act, until })}
        />
      );
    default:
      return <FurtherFields {...props} />;
  }
}

/** The same of an act that reaches beyond the message. */
function FurtherFields(props: ActFieldsProps) {
  const { act, setup, stamp = false, onChange } = props;
  switch (act.do) {
    case 'silence':
      return (
        <Pick
          label="Where to"
          value={act.place}
          options={[
            ['archive', 'the Archive'],
            ['bin', 'the Bin'],
          ]}
          onChange={(place) => onChange({ ...act, place })}
        />
      );
    case 'standing':
      return (
        <>
          <Pick
            label="Of whom"
            value={act.of}
            options={standingOfs.map((of) => [of, standingOfWords[of]] as const)}
            onChange={(of) => onChange({ ...act, of })}
          />
          <Pick
            label="Standing"
            value={act.standing}
            options={[
              ['safe', 'Safe'],
              ['blocked', 'Blocked'],
            ]}
            onChange={(standing) => onChange({ ...act, standing })}
          />
        </>
      );
    case 'task':
      return (
        <Pick
          label="Due when"
          value={act.due}
          options={taskDues.filter((due) => stamp || due !== 'ask').map((due) => [due, taskDueWords[due]] as const)}
          onChange={(due) => onChange({ ...act, due })}
        />
      );
    case 'stamp':
      return (
        <Pick
          label="Which stamp"
          value={act.stamp}
          options={setup.stamps.map(({ id, name }) => [id, name] as const)}
          onChange={(id) => onChange({ ...act, stamp: id })}
        />
      );
    case 'forward':
    case 'answer':
    case 'write':
      return <SendingFields {...props} />;
    default:
      return <span className="flex-1" />;
  }
}

interface WhomFieldsProps {
  whom: Whom;
  setup: Setup;
  label: string;
  onChange: (whom: Whom) => void;
}

/** To whom: somebody by address, whoever has a role, or a group. */
function WhomFields({ whom, setup, label, onChange }: WhomFieldsProps) {
  const key = whom.by === 'role' ? `role ${whom.role}` : whom.by === 'group' ? `group ${whom.group}` : 'address';
  const options: [string, string][] = [
    ['address', 'an address'],
    ...roles.map((role): [string, string] => [`role ${role}`, roleWords[role]]),
    ...groupsOf(setup.contacts).map((group): [string, string] => [`group ${group}`, `the group ${group}`]),
  ];
  return (
    <>
      <Pick
        label="To whom"
        value={key}
        options={options}
        onChange={(value) => {
          const role = roles.find((one) => value === `role ${one}`);
          if (role) onChange({ by: 'role', role });
          else if (value.startsWith('group ')) onChange({ by: 'group', group: value.slice(6) });
          else onChange({ by: 'address', address: '' });
        }}
      />
      {whom.by === 'address' && (
        <input
          aria-label={label}
          className="input input-sm w-56 font-mono"
          spellCheck={false}
          autoComplete="off"
          maxLength={400}
          value={whom.address}
          onChange={(event) => onChange({ by: 'address', address: event.target.value.trim() })}
        />
      )}
    </>
  );
}

/** Whether it goes, or is opened to be read before. */
function OpenPick({ open = false, onChange }: { open?: boolean; onChange: (open: boolean) => void }) {
  return (
    <Pick
      label="Sent or opened"
      value={open ? 'open' : 'send'}
      options={[
        ['send', 'and send it'],
        ['open', 'and open it first'],
      ]}
      onChange={(value) => onChange(value === 'open')}
    />
  );
}

/** The same of an act that sends something, or opens what would be sent. */
function SendingFields({ act, setup, stamp = false, onChange }: ActFieldsProps) {
  const blocks = [
    ...(stamp ? [[noBlock, 'no text block'] as const] : []),
    ...setup.blocks.map(({ id, name }) => [id, name] as const),
  ];
  const blockOf = (value: string, choose: (block: string) => void) => (
    <Pick label="Text block" value={value} options={blocks} onChange={choose} />
  );
  switch (act.do) {
    case 'forward':
      return (
        <>
          <WhomFields
            whom={act.whom ?? { by: 'address', address: act.to }}
            setup={setup}
            label="Forwarded to"
            onChange={(whom) => {
              const { do: kind, form, open } = act;
              const rest = { do: kind, form, ...(open === undefined ? {} : { open }) };
              onChange(whom.by === 'address' ? { ...rest, to: whom.address } : { ...rest, to: '', whom });
            }}
          />
          <Pick
            label="In which form"
            value={act.form}
            options={[
              ['text', 'in the text'],
              ['file', 'as a file'],
            ]}
            onChange={(form) => onChange({ ...act, form })}
          />
          {stamp && <OpenPick open={act.open} onChange={(open) => onChange({ ...act, open })} />}
        </>
      );
    case 'answer':
      return (
        <>
          {blockOf(act.block, (block) => onChange({ ...act, block }))}
          {stamp && (
            <>
              <Pick
                label="Answered to"
                value={act.all ? 'all' : 'sender'}
                options={[
                  ['sender', 'to its sender'],
                  ['all', 'to all'],
                ]}
                onChange={(value) => onChange({ ...act, all: value === 'all' })}
              />
              <OpenPick open={act.open} onChange={(open) => onChange({ ...act, open })} />
            </>
          )}
        </>
      );
    case 'write':
      return (
        <>
          <WhomFields
            whom={act.whom}
            setup={setup}
            label="Written to"
            onChange={(whom) => onChange({ ...act, whom })}
          />
          <input
            aria-label="Subject"
            placeholder="subject"
            className="input input-sm w-40"
            maxLength={500}
            value={act.subject}
            onChange={(event) => onChange({ ...act, subject: event.target.value })}
          />
          {blockOf(act.block, (block) => onChange({ ...act, block }))}
        </>
      );
    default:
      return null;
  }
}
