import { ListPlus, Plus } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import { isGroup, type Condition, type Group, type InnerGroup, type Part } from '../../core/rules/rule';
import { ConditionRow } from './ConditionRow';
import { emptyCondition } from './ruleDraft';

const matches = [
  ['all', 'all of these hold'],
  ['any', 'any of these holds'],
  ['none', 'none of these holds'],
] as const;

interface MatchProps {
  group: Group;
  label: string;
  onChange: (match: Group['match']) => void;
}

function Match({ group, label, onChange }: MatchProps) {
  return (
    <select
      aria-label={label}
      className="select w-auto self-start font-normal select-sm"
      value={group.match}
      onChange={(e) => {
        const match = matches.find(([one]) => one === e.target.value);
        if (match) onChange(match[0]);
      }}
    >
      {matches.map(([match, words]) => (
        <option key={match} value={match}>
          {words}
        </option>
      ))}
    </select>
  );
}

interface GroupFieldsProps {
  word: string;
  group: Group;
  setup: Setup;
  /** How many messages each condition holds for, by its place: `2` or `2.0` within a group. */
  holds: (at: string) => number | null | undefined;
  onChange: (group: Group) => void;
  /** Takes the whole off; absent where it must be there. */
  onRemove?: () => void;
}

/** Conditions, and groups of them, with how many must hold. */
export function GroupFields({ word, group, setup, holds, onChange, onRemove }: GroupFieldsProps) {
  const replace = (at: number, part: Part | null) =>
    onChange({ ...group, of: group.of.flatMap((one, i) => (i === at ? (part ? [part] : []) : [one])) });
  const add = (part: Part) => onChange({ ...group, of: [...group.of, part] });
  const fresh = (): Condition => emptyCondition('from', setup);
  const removeAt = (at: number) => (group.of.length > 1 ? () => replace(at, null) : onRemove);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 flex items-center gap-2 font-semibold">
        {word}
        <Match
          group={group}
          label={`${word}: how many must hold`}
          onChange={(match) => onChange({ ...group, match })}
        />
      </legend>
      {group.of.map((part, at) => {
        if (!isGroup(part))
          return (
            <ConditionRow
              key={at}
              condition={part}
              setup={setup}
              holds={holds(`${at}`)}
              onChange={(next) => replace(at, next)}
              onRemove={removeAt(at)}
            />
          );
        const of = part.of as Condition[];
        const set = (next: Condition[], match = part.match) =>
          replace(at, next.length ? ({ match, of: next } satisfies InnerGroup) : null);
        return (
          <div key={at} className="flex flex-col gap-2 border-l-2 border-primary pl-3" role="group" aria-label="Group">
            <Match group={part} label="Within the group: how many must hold" onChange={(match) => set(of, match)} />
            {of.map((condition, i) => (
              <ConditionRow
                key={i}
                condition={condition}
                setup={setup}
                holds={holds(`${at}.${i}`)}
                onChange={(next) => set(of.map((one, n) => (n === i ? next : one)))}
                onRemove={of.length > 1 || group.of.length > 1 ? () => set(of.filter((_, n) => n !== i)) : removeAt(at)}
              />
            ))}
            <button type="button" className="btn self-start btn-ghost btn-xs" onClick={() => set([...of, fresh()])}>
              <Plus size={14} aria-hidden /> Condition in this group
            </button>
          </div>
        );
      })}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-outline btn-xs" onClick={() => add(fresh())}>
          <Plus size={14} aria-hidden /> Condition
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => add({ match: group.match === 'any' ? 'all' : 'any', of: [fresh()] })}
        >
          <ListPlus size={14} aria-hidden /> Group
        </button>
      </div>
    </fieldset>
  );
}
