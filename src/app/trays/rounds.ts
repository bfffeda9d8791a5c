// Rounds as they are offered where a tray is made in passing; its page has all of them.
import type { Round } from '../../core/delivery/rounds';
import { weekdays } from '../../core/delivery/week';

export const offeredRounds: readonly Round[] = [
  { by: 'hours', days: ['MO'], times: ['07:00'] },
  { by: 'hours', days: ['MO', 'TU', 'WE', 'TH', 'FR'], times: ['16:00'] },
  { by: 'hours', days: [...weekdays], times: ['12:00'] },
  { by: 'coming' },
  { by: 'never' },
];
