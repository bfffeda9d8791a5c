// Being told of new mail, as it crosses the border.
import type { Row } from './rows';

/** What being told would have meant over the last seven days. */
export interface ToldReport {
  total: number;
  /** The latest of them, at most 50. */
  sample: Row[];
}
