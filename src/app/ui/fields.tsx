// Fields of settings: one of several, on or off, a number.
import { useId, useState, type ReactNode } from 'react';
import { count } from '../../core/text/sentences';

interface ChoiceProps<T extends string> {
  legend: string;
  value: T;
  options: readonly (readonly [value: T, name: string, what?: string])[];
  onChange: (value: T) => void;
  children?: ReactNode;
}

/** One of several, all in sight. */
export function Choice<T extends string>({ legend, value, options, onChange, children }: ChoiceProps<T>) {
  const name = useId();
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{legend}</legend>
      <div className="flex flex-wrap gap-x-5">
        {options.map(([option, word, what]) => (
          <label key={option} className="flex items-center gap-2 py-0.5">
            <input
              type="radio"
              name={name}
              className="radio radio-sm"
              checked={value === option}
              onChange={() => onChange(option)}
            />
            <span>
              {word}
              {what && <span className="quiet text-sm"> ({what})</span>}
            </span>
          </label>
        ))}
      </div>
      {children}
    </fieldset>
  );
}

interface SwitchProps {
  word: string;
  what?: string;
  on: boolean;
  onChange: (on: boolean) => void;
}

/** On or off. */
export function Switch({ word, what, on, onChange }: SwitchProps) {
  return (
    <label className="flex items-start gap-2 py-0.5">
      <input
        type="checkbox"
        className="toggle mt-0.5 toggle-sm"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>
        {word}
        {what && <span className="quiet block text-sm">{what}</span>}
      </span>
    </label>
  );
}

interface NumberFieldProps {
  label: string;
  /** What stands behind it: `days`, `of 100`. */
  unit: string;
  least: number;
  most: number;
  /** NaN: what was typed is no number that counts, and stays as it was typed. */
  value: number;
  onChange: (value: number) => void;
}

/** A whole number from `least` to `most`. What is none of those is said, never taken for another: `onChange` hears NaN. */
export function NumberField({ label, unit, least, most, value, onChange }: NumberFieldProps) {
  const trouble = useId();
  const [typed, setTyped] = useState(String(value));
  const read = (text: string): number => {
    const number = /^\s*\d{1,15}\s*$/.test(text) ? Number(text) : NaN;
    return number >= least && number <= most ? number : NaN;
  };
  const wrong = Number.isNaN(value);
  // Changed elsewhere, it shows what it is now.
  const text = wrong || Object.is(read(typed), value) ? typed : String(value);
  return (
    <span>
      <label className="flex items-center gap-1">
        <input
          aria-label={label}
          inputMode="numeric"
          className={`input input-sm w-24 ${wrong ? 'input-error' : ''}`}
          value={text}
          aria-invalid={wrong}
          aria-describedby={wrong ? trouble : undefined}
          onChange={(event) => {
            setTyped(event.target.value);
            onChange(read(event.target.value));
          }}
        />
        {unit}
      </label>
      {wrong && (
        <span id={trouble} role="alert" className="block text-sm text-error">
          A whole number from {count(least)} to {count(most)}.
        </span>
      )}
    </span>
  );
}
