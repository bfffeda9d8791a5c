import { useId, useState } from 'react';
import type { Address } from '../../core/mail/address';
import { mayBeMeant, readRecipients, typedAddress } from '../../core/writing/recipient';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { useAnswer } from '../ui/useAnswer';

const mostOffered = 6;
const mostWrong = 4;

/** Where the piece begins that is being typed: behind the last comma that stands in no quotes. */
function pieceFrom(text: string): number {
  let from = 0;
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '"') quoted = !quoted;
    else if (!quoted && /[,;\n]/.test(text[at])) from = at + 1;
  }
  return from;
}

interface OfferedProps {
  id: string;
  word: string;
  list: readonly Address[];
  /** Which of them is chosen. */
  at: number;
  onTake: (address: Address) => void;
}

/** Who could be meant by what is typed. */
const Offered = ({ id, word, list, at, onTake }: OfferedProps) => (
  <ul
    id={`${id}-list`}
    role="listbox"
    aria-label={`${word}: who is meant`}
    hidden={list.length === 0}
    className="absolute z-20 max-w-full rounded border border-base-300 bg-base-100 p-1 shadow-lg"
  >
    {list.map((address, n) => (
      <li
        key={address.address}
        id={`${id}-${n}`}
        role="option"
        aria-selected={n === at}
        className="min-h-8 cursor-pointer rounded px-2 py-1 [overflow-wrap:anywhere] aria-selected:bg-base-300"
        // Before the field loses the focus.
        onMouseDown={(event) => {
          event.preventDefault();
          onTake(address);
        }}
      >
        {address.name && <span className="font-semibold">{address.name} </span>}
        <span className="font-mono text-sm">{address.address}</span>
      </li>
    ))}
  </ul>
);

interface Props {
  word: string;
  value: string;
  onChange: (value: string) => void;
  autoFocus?: boolean;
}

/** A field of recipients: names as one types, what is no address said at once. */
export function RecipientField({ word, value, onChange, autoFocus = false }: Props) {
  const id = useId();
  const [focused, setFocused] = useState(false);
  const [chosen, setChosen] = useState(0);
  const [shut, setShut] = useState(false);
  const from = pieceFrom(value);
  const typed = value.slice(from).trim();
  const asks = focused && !shut && typed.length > 0 && typed.length < 100 && !typed.endsWith('>');
  const { value: offered } = useAnswer<Address[]>(
    () => (asks ? mailroom.recipientsLike(typed, mostOffered) : Promise.resolve([])),
    asks ? typed : '',
    80,
  );
  // They may have been offered for fewer letters: only who fits what stands there now can be taken.
  const list = asks ? (offered ?? []).filter((one) => one.address !== typed && mayBeMeant(one, typed)) : [];
  const at = Math.min(chosen, list.length - 1);
  const read = readRecipients(value);
  // What is still typed is not wrong yet.
  const wrong = focused ? read.wrong.filter(({ text }) => !typed || !typed.includes(text)) : read.wrong;
  const take = (address: Address) => {
    const before = value.slice(0, from).trimEnd();
    onChange(`${before}${before ? ' ' : ''}${typedAddress(address)}, `);
    setChosen(0);
  };
  return (
    <div className="relative flex items-start gap-2">
      <label htmlFor={id} className="w-14 shrink-0 pt-1.5 text-sm">
        {word}
      </label>
      <div className="min-w-0 flex-1">
        <textarea
          id={id}
          rows={1}
          aria-controls={`${id}-list`}
          aria-autocomplete="list"
          aria-activedescendant={list.length > 0 ? `${id}-${at}` : undefined}
          aria-invalid={wrong.length > 0}
          aria-describedby={`${id}-says`}
          className="textarea field-sizing-content max-h-32 min-h-8 w-full resize-none py-1 leading-6 [overflow-wrap:anywhere]"
          autoFocus={autoFocus}
          autoComplete="off"
          spellCheck={false}
          value={value}
          onFocus={() => setFocused(true)}
          onBlur={() => setFocused(false)}
          onChange={(event) => {
            setShut(false);
            setChosen(0);
            onChange(event.target.value);
          }}
          onKeyDown={(event) => {
            if (event.ctrlKey || event.metaKey || event.altKey) return;
            if (event.key === 'Enter') event.preventDefault();
            if (list.length === 0) return;
            if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              event.preventDefault();
              setChosen((at + (event.key === 'ArrowDown' ? 1 : -1) + list.length) % list.length);
            } else if (event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey)) {
              event.preventDefault();
              take(list[at]);
            } else if (event.key === 'Escape') {
              event.stopPropagation();
              setShut(true);
            }
          }}
        />
        <Offered id={id} word={word} list={list} at={at} onTake={take} />
        <p id={`${id}-says`} aria-live="polite" className="text-sm text-error empty:hidden">
          {wrong.slice(0, mostWrong).map(({ text, reason }, n) => (
            <span key={n} className="block [overflow-wrap:anywhere]">
              “{text}” is no address: {reason}.
            </span>
          ))}
          {wrong.length > mostWrong && `And ${count(wrong.length - mostWrong)} more.`}
        </p>
        {read.named.length > 5 && <p className="quiet text-xs">{count(read.named.length)} people</p>}
      </div>
    </div>
  );
}
