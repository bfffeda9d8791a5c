// The days that are offered for a due date, in their order. Apart from due.ts, which reads typed dates and is large.
export const dueDays = ['today', 'tomorrow', 'this week', 'next week'] as const;
export type DueDay = (typeof dueDays)[number];
