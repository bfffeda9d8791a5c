import { useState } from 'react';
import { dueWords } from '../../core/text/time';
import { Form } from '../ui/Form';

interface Props {
  id: string;
  /** The word of its button. */
  word: string;
  now: number;
  /** Reads what was typed; null until it can. Moments in milliseconds since 1970. */
  read: ((typed: string) => { ok: true; at: number } | { ok: false; error: string }) | null;
  onTake: (at: number) => void;
}

/** A moment to be typed, said back in words before it counts. */
export function TypedMoment({ id, word, now, read, onTake }: Props) {
  const [typed, setTyped] = useState('');
  const moment = read && typed.trim() ? read(typed) : null;
  return (
    <Form
      className="mb-3 flex flex-col gap-1"
      onSubmit={() => {
        if (moment?.ok) onTake(moment.at);
      }}
    >
      <label htmlFor={id} className="text-sm">
        Type a date: fri 3pm, 3 Dec, in two weeks
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          className="input flex-1"
          autoFocus
          autoComplete="off"
          maxLength={100}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <button className="btn btn-primary" disabled={!moment?.ok}>
          {word}
        </button>
      </div>
      <p className={`min-h-5 text-sm ${moment && !moment.ok ? 'text-error' : 'quiet'}`} aria-live="polite">
        {moment ? (moment.ok ? dueWords(moment.at, now) : moment.error) : ''}
      </p>
    </Form>
  );
}
