// How large a mailbox may be.

/** Up to so many messages everything was measured (`npm run bench`, and `-- --many`). */
export const measuredMessages = 500_000;

/** Files of mail fill a mailbox up to this, and no further. What arrives or is written still finds room. */
export const mostMessages = 1_000_000;
