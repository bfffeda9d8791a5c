// What every verb of the command line is given: its options, and where its output goes.
import { UsageError } from './files';

/** Where the output goes. */
export interface Output {
  out: (text: string) => void;
  error: (text: string) => void;
  binary: (bytes: Uint8Array) => Promise<void>;
}

export interface Options {
  json: boolean;
  setup?: string;
  count?: string;
  seed?: string;
  now?: string;
  from?: string;
  to?: string;
  good?: string[];
  junk?: string[];
  'train-good'?: string[];
  'train-junk'?: string[];
  'test-good'?: string[];
  'test-junk'?: string[];
  folds?: string;
  headers?: boolean;
  online?: boolean;
  shuffled?: boolean;
  'errors-only'?: boolean;
  queries?: string;
  sent?: boolean;
  answer?: string;
  as?: string;
}

export function wholeNumber(text: string | undefined, name: string, standard: number | null, least = 0): number {
  if (text === undefined && standard !== null) return standard;
  const value = Number(text);
  if (text === undefined || !/^\d+$/.test(text) || !Number.isSafeInteger(value) || value < least)
    throw new UsageError(`--${name} must be a whole number from ${least} up.`);
  return value;
}

/** The moment that `--now` names; without it, this one. */
export function timeOf(text: string | undefined): number {
  const now = text === undefined ? Date.now() : Date.parse(text);
  if (Number.isNaN(now)) throw new UsageError('--now must be a time like 2026-11-24T10:00:00Z.');
  return now;
}
