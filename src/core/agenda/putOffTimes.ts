// Until when a message can be put off, as it is offered.

/** What is offered, in its order. */
export const putOffTimes = ['later today', 'tomorrow morning', 'next week'] as const;
export type PutOffTime = (typeof putOffTimes)[number];
