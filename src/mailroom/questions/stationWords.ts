// What the stations of a trace are called on the screen.
import { stationNames } from '../../core/line/stations';
import type { StoredTraceLine } from '../storage/trace';

/** What the stations are called in a trace. */
export const stationWords: Record<StoredTraceLine['station'], string> = {
  ...stationNames,
  import: 'Import',
  silence: 'Silenced conversation',
  'post office': 'Post office',
};
