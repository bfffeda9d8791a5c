// Who writes in the demo: an island ferry company, its people, its partners and its pests. All invented.
import type { Address } from '../src/core/mail/address';

/** The two accounts of the demo. */
export const self: Address = { name: 'Mara Lindqvist', address: 'mara.lindqvist@skerryline.example' };
export const desk: Address = { name: 'Operations Desk', address: 'operations@skerryline.example' };

const staff = (name: string): Address => ({
  name,
  address: `${name
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ø/g, 'o')
    .toLowerCase()
    .replace(/[^a-z ]/g, '')
    .replace(/ /g, '.')}@skerryline.example`,
});

export const colleagues: Address[] = [
  'Tobias Wrenfield',
  'Ingrid Sørhaug',
  'Owen Pascoe',
  'Lúcia Ferrand',
  'Callum Dreever',
  'Nadia Okonjo',
  'Piet Vansloot',
  'Hanne Brekkestad',
  'Yusuf Karadal',
  'Bea Trelawn',
  'Anselm Grubner',
  'Rhona McSwayne',
  'Zofia Malinek',
  'Dario Belcastro',
].map(staff);

/** People outside the company with whom the desk works. */
export const partners: Record<'harbour' | 'parts' | 'charter' | 'agency' | 'council', Address[]> = {
  harbour: [
    { name: 'Harbour Office Stonness', address: 'office@stonness-harbour.example' },
    { name: 'Eilif Marwick, Harbour Master', address: 'e.marwick@stonness-harbour.example' },
    { name: 'Port Control Vedra', address: 'control@port-vedra.example' },
    { name: 'Γραφείο Λιμένα Αγκίστρι', address: 'grafeio@limenas-angistra.example' },
  ],
  parts: [
    { name: 'Brandt & Keel Marine Spares', address: 'sales@brandt-keel.example' },
    { name: 'Jürgen Großmann', address: 'j.grossmann@brandt-keel.example' },
    { name: 'Parts Direct Orders', address: 'confirmations@orders.parts-direct.example' },
    { name: 'Halden Pumps', address: 'service@halden-pumps.example' },
  ],
  charter: [
    { name: 'Amélie Courtois', address: 'amelie@voyages-courtois.example' },
    { name: 'Northlight Weddings', address: 'hello@northlight-weddings.example' },
    { name: 'Hjalmar Folk School', address: 'kansliet@hjalmar-folkskola.example' },
    { name: 'Rui Tavares', address: 'rui.tavares@ilhas-turismo.example' },
  ],
  agency: [
    { name: 'Coastwatch Duty Desk', address: 'duty@coastwatch.example' },
    { name: 'Maritime Safety Inspectorate', address: 'inspections@maritime-safety.example' },
  ],
  council: [
    { name: 'Island Council Transport', address: 'transport@island-council.example' },
    { name: 'Greta Halvorsen', address: 'greta.halvorsen@island-council.example' },
  ],
};

/** Passengers who complain, ask and sometimes thank. */
export const passengers: Address[] = [
  'Morwenna Tuck',
  'Jean-Luc Abadie',
  'Sigrún Hallsdóttir',
  'Pawel Zdunek',
  'Kwame Asante-Boyle',
  'Elena Vasilaki',
  'Stig Åkerblom',
  'Marguerite Poole',
  'Tomás Iglesias Rey',
  'Fatima El Hariri',
  'Günther Mößlang',
  'Aoife Ní Bhrolcháin',
].map((name, i) => ({
  name,
  address: `${name
    .normalize('NFD')
    .replace(/[^A-Za-z]/g, '')
    .toLowerCase()}${i * 7 + 3}@${['postbag.example', 'mailhaven.example', 'islemail.example'][i % 3]}`,
}));

/** A bulletin: a mailing list that somebody once joined. */
export interface Bulletin {
  from: Address;
  listId: string;
  listName: string;
  subjects: string[];
  topic: 'trade' | 'weather' | 'travel' | 'staff' | 'software' | 'food';
}

export const bulletins: Bulletin[] = [
  {
    from: { name: 'Short Sea Review', address: 'editor@shortsea-review.example' },
    listId: 'weekly.shortsea-review.example',
    listName: 'Short Sea Review weekly',
    subjects: ['{This week|In brief}: {ferryNews}', '{ferryNews} and {ferryNews}', 'No. {112-480}: {ferryNews}'],
    topic: 'trade',
  },
  {
    from: { name: 'Skerries Weather Service', address: 'bulletin@skerries-weather.example' },
    listId: 'marine.skerries-weather.example',
    listName: 'Marine forecast',
    subjects: ['Marine forecast {harbour}: {wind}', '{Small craft warning|Gale warning|Forecast}: {wind}'],
    topic: 'weather',
  },
  {
    from: { name: 'Green Ports Forum', address: 'news@green-ports.example' },
    listId: 'news.green-ports.example',
    listName: 'Green Ports news',
    subjects: ['Shore power: {ferryNews}', '{Webinar|Workshop|Call for papers}: {ferryNews}'],
    topic: 'trade',
  },
  {
    from: { name: 'Ticketwell Product News', address: 'product@ticketwell.example' },
    listId: 'product.ticketwell.example',
    listName: 'Ticketwell product news',
    subjects: ['What is new in {release|version} {4-9}.{0-9}', 'Planned {maintenance|downtime} on {weekday}'],
    topic: 'software',
  },
  {
    from: { name: 'Quayside Canteen', address: 'menu@quayside-canteen.example' },
    listId: 'menu.quayside-canteen.example',
    listName: 'Canteen menu',
    subjects: ['Menu for the week: {dish} on {weekday}', 'This week: {dish} and {dish}'],
    topic: 'food',
  },
  {
    from: { name: 'Isle & Shore Travel', address: 'deals@isle-and-shore.example' },
    listId: 'offers.isle-and-shore.example',
    listName: 'Isle & Shore offers',
    subjects: [
      '{Spring|Autumn|Last} places on the {island} round trip',
      '{3-7} nights on {island} from {190-480} crowns',
    ],
    topic: 'travel',
  },
  {
    from: { name: 'Crew Welfare Circle', address: 'circle@crew-welfare.example' },
    listId: 'circle.crew-welfare.example',
    listName: 'Crew Welfare Circle',
    subjects: ['Minutes of the {weekday} meeting', 'Rest hours: {question|reminder|survey}'],
    topic: 'staff',
  },
];

/** Machines that write to the desk. */
export const machines: Address[] = [
  { name: 'Ticket machines', address: 'alarm@machines.ticketwell.example' },
  { name: 'Fleet telemetry', address: 'noreply@telemetry.halden-pumps.example' },
  { name: 'Rota system', address: 'rota@skerryline.example' },
];
