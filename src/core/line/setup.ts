// The setup: everything that the person has decided for good, as one document with a version (docs/setup.md).
import { textBlockSchema } from '../writing/textBlock';
import { z } from 'zod';
import { readModel } from '../junk/modelFile';
import { deliverySettingsSchema, freshDelivery } from '../delivery/settings';
import { isZone } from '../delivery/week';
import { traySchema } from '../delivery/tray';
import { accountSchema } from '../mail/account';
import { nestingTrouble } from '../mail/nesting';
import { folderSchema } from '../mail/place';
import { labelSchema } from '../mail/label';
import { decodeBase64 } from '../mail/transfer';
import { freshJunkSettings, junkSettingsSchema } from '../junk/settings';
import { ruleSchema } from '../rules/rule';
import { laneSchema } from '../search/lane';
import { savedSearchSchema } from '../search/saved';
import { contactSchema } from '../contacts/contact';
import { leftListSchema } from '../senders/leavingWays';
import { allButKinds, entrySchema, everything, parseEntryOf } from '../senders/register';
import { toldSchema } from '../senders/told';
import { effectOf } from '../effects/effects';
import { stampSchema, whyNoRule } from '../stamps/stamp';
import { reasonOf } from '../text/sentences';
import { isMoment } from '../text/time';

/** The version that is written. Version 1 had rules without “unless”, which are taken up as they are read. */
export const setupVersion = 2;

const list = <T extends z.ZodType>(of: T, most: number) => z.array(of).max(most);

/** The lists of a setup. What others refer to comes before them. */
export const setupLists = {
  folders: list(folderSchema, 5_000),
  labels: list(labelSchema, 5_000),
  register: list(entrySchema, 100_000),
  accounts: list(accountSchema, 100),
  searches: list(savedSearchSchema, 1_000),
  lanes: list(laneSchema, 1_000),
  /** Mailing lists that the person left. */
  left: list(leftListSchema, 5_000),
  /** Of what the person wants to be told when it arrives. */
  told: list(toldSchema, 5_000),
  contacts: list(contactSchema, 100_000),
  trays: list(traySchema, 1_000),
  /** Text blocks, by their names. */
  blocks: list(textBlockSchema, 1_000),
  /** In the order of the stamp bar: the first nine have the digits. */
  stamps: list(stampSchema, 500),
  rules: list(ruleSchema, 5_000),
};

/** What there is one of, and is never taken off. */
export const setupSingles = { junk: junkSettingsSchema, delivery: deliverySettingsSchema };

export const setupSchema = z.object({
  format: z.literal('wide-sort-setup'),
  version: z.preprocess((version) => (version === 1 ? setupVersion : version), z.literal(setupVersion)),
  register: setupLists.register,
  rules: setupLists.rules,
  folders: setupLists.folders,
  labels: setupLists.labels,
  accounts: setupLists.accounts.default([]),
  lanes: setupLists.lanes.default([]),
  searches: setupLists.searches.default([]),
  left: setupLists.left.default([]),
  told: setupLists.told.default([]),
  contacts: setupLists.contacts.default([]),
  trays: setupLists.trays.default([]),
  blocks: setupLists.blocks.default([]),
  stamps: setupLists.stamps.default([]),
  junk: setupSingles.junk.default(freshJunkSettings),
  delivery: setupSingles.delivery.default(freshDelivery),
});

export type Setup = z.infer<typeof setupSchema>;

/** A setup in which nothing has been decided. */
export const emptySetup: Setup = {
  format: 'wide-sort-setup',
  version: setupVersion,
  register: [],
  rules: [],
  folders: [],
  labels: [],
  accounts: [],
  lanes: [],
  searches: [],
  left: [],
  told: [],
  contacts: [],
  trays: [],
  blocks: [],
  stamps: [],
  junk: freshJunkSettings,
  delivery: freshDelivery,
};

export type SetupResult = { ok: true; setup: Setup } | { ok: false; error: string };

const spot = (path: readonly PropertyKey[]): string =>
  path
    .map((step) => (typeof step === 'number' ? `[${step}]` : `.${String(step)}`))
    .join('')
    .replace(/^\./, '') || 'the document';

/** What in a setup of the right shape means nothing: ids that stand twice, no moments, places that are none of ours. */
function meaningless(setup: Setup): string | null {
  for (const list of Object.keys(setupLists) as (keyof typeof setupLists)[]) {
    const ids = new Set<string>();
    for (const [i, { id }] of setup[list].entries()) {
      if (ids.has(id)) return `${list}[${i}].id: “${id}” stands there twice`;
      ids.add(id);
    }
  }
  const since = setup.register.findIndex((entry) => !isMoment(entry.since));
  if (since >= 0) return `register[${since}].since: must be a moment, in milliseconds since 1970`;
  if (!isMoment(setup.junk.keepFrom)) return 'junk.keepFrom: must be a moment, in milliseconds since 1970';
  const lane = setup.lanes.findIndex(({ of }) => !/^\/(?!\/)/.test(of));
  return lane < 0 ? null : `lanes[${lane}].of: must be the address of a place, like /inbox`;
}

/** What is wrong about trays and delivery: labels and moments that are none. */
function wrongDelivery({ trays, delivery, labels }: Setup): string | null {
  const known = new Set(labels.map(({ id }) => id));
  const gone = (ids: readonly string[]) => ids.findIndex((id) => !known.has(id));
  const noLabel = (spot: string, ids: readonly string[]) =>
    gone(ids) < 0 ? null : `${spot}.labels[${gone(ids)}]: there is no label with the id “${ids[gone(ids)]}”`;
  for (const [i, tray] of trays.entries()) {
    if (!isMoment(tray.since)) return `trays[${i}].since: must be a moment, in milliseconds since 1970`;
    const wrong = noLabel(`trays[${i}]`, tray.labels);
    if (wrong !== null) return wrong;
  }
  const { hold, quiet, letThrough, zone } = delivery;
  if (zone !== null && !isZone(zone)) return 'delivery.zone: must be the name of a time zone, like Europe/Copenhagen';
  if (hold && !(isMoment(hold.since) && isMoment(hold.until ?? 0)))
    return 'delivery.hold: must begin and end at moments, in milliseconds since 1970';
  const period = quiet.findIndex(({ from, until }) => !isMoment(from) || !isMoment(until));
  if (period >= 0) return `delivery.quiet[${period}]: must begin and end at moments, in milliseconds since 1970`;
  return noLabel('delivery.letThrough', letThrough.labels);
}

/** What contradicts itself in a setup that has the right shape; null where nothing does. */
function contradiction(setup: Setup): string | null {
  const none = meaningless(setup);
  if (none !== null) return none;
  const values = new Set<string>();
  for (const [i, entry] of setup.register.entries()) {
    const read = parseEntryOf(entry.kind, entry.value, true);
    if (!read.ok) return `register[${i}].value: ${read.error}`;
    if (read.value !== entry.value) return `register[${i}].value: “${entry.value}” should be “${read.value}”`;
    if (entry.except?.length && !(entry.value === everything && allButKinds.includes(entry.kind)))
      return `register[${i}].except: only an entry for all can have exceptions`;
    const key = `${entry.kind} ${entry.value}`;
    if (values.has(key)) return `register[${i}].value: “${entry.value}” stands in the Register twice`;
    values.add(key);
  }
  if (setup.junk.carried !== null) {
    const model = readModel(decodeBase64(new TextEncoder().encode(setup.junk.carried)));
    // What an earlier version learned is kept, and told where the filter begins: the rest of the setup is as good as ever.
    if (!model.ok && !model.older) return `junk.carried: ${model.error}`;
  }
  const odd = wrongDelivery(setup);
  if (odd !== null) return odd;
  const addresses = new Set<string>();
  for (const [i, { address }] of setup.accounts.entries()) {
    if (address !== address.toLowerCase()) return `accounts[${i}].address: “${address}” should be in lower case`;
    if (addresses.has(address)) return `accounts[${i}].address: “${address}” stands there twice`;
    addresses.add(address);
  }
  for (const list of ['folders', 'labels'] as const) {
    const trouble = nestingTrouble(setup[list]);
    if (trouble) return `${list}[${trouble.at}].parent: ${trouble.says}`;
  }
  for (const [i, rule] of setup.rules.entries())
    for (const [j, action] of rule.then.entries()) {
      const missing = effectOf(action.do).missing?.(action, setup);
      if (missing) return `rules[${i}].then[${j}].${missing.field}: ${missing.says}`;
      const stamp = action.do === 'stamp' ? setup.stamps.find(({ id }) => id === action.stamp) : undefined;
      const whyNot = stamp && whyNoRule(stamp, setup);
      if (whyNot) return `rules[${i}].then[${j}].stamp: ${whyNot}`;
      if (effectOf(action.do).only === 'stamp') return `rules[${i}].then[${j}].do: only a stamp does that`;
    }
  return null;
}

/** Checks a document that may be a setup. The error says what is wrong and where. */
export function checkSetup(document: unknown): SetupResult {
  if (typeof document === 'object' && document !== null && 'version' in document) {
    const version = (document as { version: unknown }).version;
    if (typeof version === 'number' && version > setupVersion)
      return { ok: false, error: `version ${version} is newer than this program reads (${setupVersion})` };
  }
  const parsed = setupSchema.safeParse(document);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { ok: false, error: `${spot(issue.path)}: ${issue.message}` };
  }
  const wrong = contradiction(parsed.data);
  return wrong === null ? { ok: true, setup: parsed.data } : { ok: false, error: wrong };
}

/** Reads a setup from JSON. The error says what is wrong and where. */
export function parseSetup(json: string): SetupResult {
  let document: unknown;
  try {
    document = JSON.parse(json);
  } catch (error) {
    return { ok: false, error: `no JSON: ${reasonOf(error)}` };
  }
  return checkSetup(document);
}

/** The setup with no rule: what the line would do without that station. */
export const withoutRules = (setup: Setup): Setup => ({ ...setup, rules: [] });
