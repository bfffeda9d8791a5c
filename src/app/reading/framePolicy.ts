// What a message's frame may do, whatever stands in it.

/** The policy inside the frame: no scripts, no network; styles of the message itself, pictures that came within it. */
export const framePolicy =
  "default-src 'none'; img-src data:; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

/** Same origin so that its height can be read; without allow-scripts nothing in it runs. */
export const frameSandbox = 'allow-same-origin allow-popups allow-popups-to-escape-sandbox';
