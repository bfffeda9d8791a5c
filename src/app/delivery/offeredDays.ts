// Days of the week as they are offered where hours or times are set for several at once.
import { daysWords } from '../../core/delivery/rounds';
import { weekdays, type Weekday } from '../../core/delivery/week';

export const offeredDays: readonly (readonly [words: string, days: readonly Weekday[]])[] = [
  ['every day', weekdays],
  ['Monday to Friday', ['MO', 'TU', 'WE', 'TH', 'FR']],
  ...weekdays.map((day) => [daysWords([day]), [day]] as const),
];
