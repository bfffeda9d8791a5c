// Fields of settings: one of several, on or off.
import { useId, type ReactNode } from 'react';

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
