// `cli search`: the messages of some files that a query asks for.
import { parseQuery, type Query } from '../src/core';
import { UsageError } from './files';

/** Reads a query of the command line. Throws UsageError with the position and the reason. */
export function queryOf(text: string): Query {
  const parsed = parseQuery(text);
  if (!parsed.ok) throw new UsageError(`${parsed.at}: ${parsed.error}`);
  return parsed.query;
}
