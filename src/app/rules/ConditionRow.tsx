import { X } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import {
  addressings,
  headerHows,
  longestText,
  peopleHows,
  textHows,
  type Condition,
  type ConditionField,
} from '../../core/rules/rule';
import { addressingWords, fieldWords, howWords } from '../../core/rules/ruleWords';
import { count } from '../../core/text/sentences';
import { NumberField } from '../ui/fields';
import { emptyCondition } from './ruleDraft';

const fields = Object.keys(fieldWords) as ConditionField[];

interface ConditionRowProps {
  condition: Condition;
  setup: Setup;
  /** How many messages here it holds for by itself; null while that is not known, undefined where it is not asked. */
  holds: number | null | undefined;
  onChange: (condition: Condition) => void;
  /** Absent where it is the only one. */
  onRemove?: () => void;
}

const small = 'select w-auto select-sm';

interface HowProps<T extends keyof typeof howWords> {
  value: T;
  hows: readonly T[];
  onChange: (how: T) => void;
}

function How<T extends keyof typeof howWords>({ value, hows, onChange }: HowProps<T>) {
  return (
    <select
      aria-label="How it compares"
      className={small}
      value={value}
      onChange={(e) => {
        const how = hows.find((one) => one === e.target.value);
        if (how) onChange(how);
      }}
    >
      {hows.map((how) => (
        <option key={how} value={how}>
          {howWords[how]}
        </option>
      ))}
    </select>
  );
}

interface TypedProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  hint?: string;
}

function Typed({ label, value, onChange, hint }: TypedProps) {
  return (
    <input
      aria-label={label}
      title={hint}
      placeholder={hint}
      className="input input-sm min-w-24 flex-1"
      value={value}
      maxLength={longestText}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}

type TextField = 'from' | 'to' | 'cc' | 'recipient' | 'subject' | 'body' | 'header' | 'list' | 'attachment';

interface TextRestProps extends Pick<ConditionRowProps, 'onChange'> {
  condition: Extract<Condition, { field: TextField }>;
}

/** The rest of a condition that looks for a text. */
function TextRest({ condition, onChange }: TextRestProps) {
  const text = (value: string) => onChange({ ...condition, text: value });
  switch (condition.field) {
    case 'from':
    case 'to':
    case 'cc':
    case 'recipient':
      return (
        <>
          <How value={condition.how} hows={peopleHows} onChange={(how) => onChange({ ...condition, how })} />
          <Typed
            label={`Text in ${fieldWords[condition.field]}`}
            value={condition.text}
            onChange={text}
            hint={condition.how === 'like' ? '* is any text, ? any one character' : undefined}
          />
        </>
      );
    case 'subject':
      return (
        <>
          <How value={condition.how} hows={textHows} onChange={(how) => onChange({ ...condition, how })} />
          <Typed
            label="Text in Subject"
            value={condition.text}
            onChange={text}
            hint={condition.how === 'like' ? '* is any text, ? any one character' : undefined}
          />
        </>
      );
    case 'body':
      return (
        <>
          <span className="text-sm">contains</span>
          <Typed label="Text in Text" value={condition.text} onChange={text} />
        </>
      );
    case 'header':
      return (
        <>
          <Typed
            label="Name of the header field"
            value={condition.name}
            onChange={(name) => onChange({ ...condition, name })}
            hint="X-Priority"
          />
          <How value={condition.how} hows={headerHows} onChange={(how) => onChange({ ...condition, how })} />
          {condition.how !== 'there' && (
            <Typed label="Text in the header field" value={condition.text} onChange={text} />
          )}
        </>
      );
    case 'list':
      return (
        <>
          <How value={condition.how} hows={['contains', 'is']} onChange={(how) => onChange({ ...condition, how })} />
          <Typed label="Text in Mailing list" value={condition.text} onChange={text} />
        </>
      );
    case 'attachment':
      return (
        <>
          <How value={condition.how} hows={['any', 'contains']} onChange={(how) => onChange({ ...condition, how })} />
          {condition.how === 'contains' && (
            <Typed label="Text in the name of an attachment" value={condition.text} onChange={text} hint=".pdf" />
          )}
        </>
      );
  }
}

interface ChoiceRestProps extends Pick<ConditionRowProps, 'setup' | 'onChange'> {
  condition: Extract<Condition, { field: 'account' | 'standing' | 'addressed' }>;
}

/** A choice among some. */
function ChoiceRest({ condition, setup, onChange }: ChoiceRestProps) {
  switch (condition.field) {
    case 'account':
      return (
        <select
          aria-label="Account"
          className={small}
          value={condition.account}
          onChange={(e) => onChange({ ...condition, account: e.target.value })}
        >
          {setup.accounts.length === 0 && <option value="">no accounts yet</option>}
          {setup.accounts.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      );
    case 'standing':
      return (
        <select
          aria-label="Standing"
          className={small}
          value={condition.is}
          onChange={(e) => onChange({ ...condition, is: e.target.value === 'safe' ? 'safe' : 'none' })}
        >
          <option value="safe">Safe</option>
          <option value="none">none</option>
        </select>
      );
    case 'addressed':
      return (
        <select
          aria-label="How it is addressed"
          className={small}
          value={condition.is}
          onChange={(e) => {
            const is = addressings.find((one) => one === e.target.value);
            if (is) onChange({ ...condition, is });
          }}
        >
          {addressings.map((is) => (
            <option key={is} value={is}>
              {addressingWords[is]}
            </option>
          ))}
        </select>
      );
  }
}

/** What stands after the field, as the field needs it. */
function Rest({ condition, setup, onChange }: Pick<ConditionRowProps, 'condition' | 'setup' | 'onChange'>) {
  switch (condition.field) {
    case 'size':
      return (
        <>
          <How value={condition.how} hows={['over', 'under']} onChange={(how) => onChange({ ...condition, how })} />
          <NumberField
            label="Size"
            unit="KB"
            least={0}
            most={10_000_000}
            value={Math.round(condition.bytes / 1_000)}
            onChange={(kb) => onChange({ ...condition, bytes: kb * 1_000 })}
          />
        </>
      );
    case 'date':
      return (
        <>
          <How
            value={condition.how}
            hows={['before', 'on', 'since']}
            onChange={(how) => onChange({ ...condition, how })}
          />
          <input
            type="date"
            aria-label="Day"
            className="input w-40 input-sm"
            value={condition.day}
            onChange={(e) => onChange({ ...condition, day: e.target.value })}
          />
        </>
      );
    case 'age':
      return (
        <>
          <How value={condition.how} hows={['over', 'under']} onChange={(how) => onChange({ ...condition, how })} />
          <NumberField
            label="Age in days"
            unit="days"
            least={1}
            most={36_500}
            value={condition.days}
            onChange={(days) => onChange({ ...condition, days })}
          />
        </>
      );
    case 'score':
      return (
        <>
          <How value={condition.how} hows={['over', 'under']} onChange={(how) => onChange({ ...condition, how })} />
          <NumberField
            label="Score"
            unit="of 100"
            least={0}
            most={100}
            value={condition.score}
            onChange={(score) => onChange({ ...condition, score })}
          />
        </>
      );
    case 'answer':
    case 'every':
      return null;
    case 'account':
    case 'standing':
    case 'addressed':
      return <ChoiceRest condition={condition} setup={setup} onChange={onChange} />;
    default:
      return <TextRest condition={condition} onChange={onChange} />;
  }
}

/** One condition: what it looks at, how, for what, and how many messages here it holds for. */
export function ConditionRow({ condition, setup, holds, onChange, onRemove }: ConditionRowProps) {
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Condition">
      <select
        aria-label="What it looks at"
        className="select w-32 shrink-0 select-sm"
        value={condition.field}
        onChange={(e) => {
          const field = fields.find((one) => one === e.target.value);
          if (!field) return;
          const next = emptyCondition(field, setup);
          // What was typed stays where the new field has a place for it.
          onChange('text' in next && 'text' in condition ? { ...next, text: condition.text } : next);
        }}
      >
        {fields.map((field) => (
          <option key={field} value={field}>
            {fieldWords[field]}
          </option>
        ))}
      </select>
      <Rest condition={condition} setup={setup} onChange={onChange} />
      <span className="ml-auto flex items-center gap-1">
        <span
          className="quiet text-xs whitespace-nowrap tabular-nums"
          title="Messages here for which it holds by itself"
        >
          {holds === null ? '…' : holds === undefined ? '' : `${count(holds)} here`}
        </span>
        {onRemove && (
          <button
            type="button"
            className="btn btn-square btn-ghost btn-xs"
            aria-label="Take this condition off"
            onClick={onRemove}
          >
            <X size={14} />
          </button>
        )}
      </span>
    </div>
  );
}
