// What conversations of the demo are about: their subjects and sentences. The words in braces are lexicon.ts's.

/** What a topic's messages are made of: subjects, for each the sentence that opens it, and sentences to go on with. */
export interface Topic {
  subjects: readonly string[];
  openings: readonly string[];
  middles: readonly string[];
  /** What is answered: by us, and by whoever began from outside. */
  replies: readonly string[];
  theirs?: readonly string[];
  /** For some subjects what alone is answered there. */
  only?: Readonly<Record<number, readonly string[]>>;
}

const common = ['{aside}', '{please}'];
/** What is said of all that goes by sea. */
const atSea = [
  ...common,
  'There is {swell}, the forecast says {wind}.',
  'If the wind goes round we look at it again.',
  'Last {weekday} it took us {20-90} minutes longer than planned.',
  'We have {2-14} bookings that would be touched.',
];

export const topics: Record<
  'harbour' | 'parts' | 'charter' | 'crew' | 'complaint' | 'staff' | 'inspection' | 'freight' | 'council',
  Topic
> = {
  harbour: {
    subjects: [
      'Berth {1-6} at {harbour} closed {weekday}',
      '{crossing}: held {reason}',
      'Notice {14-97}: {dredging|buoy moved|works} off {harbour}',
      'Tide gauge at {harbour} {out of order|reads high}',
      'Linkspan {harbour}: works on {weekday}',
    ],
    openings: [
      'Berth {1-6} at {harbour} is closed from {time} on {weekday} {reason}.',
      '{crossing} will be held {reason}.',
      'The buoys off {harbour} were moved by {20-90} metres for the works; the chart is not corrected yet.',
      'The tide gauge at {harbour} is not to be trusted until {weekday}; read the marks on the wall.',
      'Divers work under the linkspan at {harbour} on {weekday} between {time} and {time}; no turning astern please.',
    ],
    middles: [
      'Depth at the outer end is {2-5}.{1-9} metres at low water.',
      'Vessels over {30-70} metres keep to the western side.',
      '{ship} may use the fish quay if {goods} can be taken there.',
      'Speed in the basin is {3-5} knots and we mean it.',
      'Somebody has painted over the tide marks.',
      ...atSea,
    ],
    replies: [
      'Understood, {ship} will go to the fish quay.',
      'That does not work with {goods} on board.',
      'Noted. Can the {time} still land?',
      'We could turn her outside, {wind} permitting.',
      ...atSea,
    ],
    theirs: [
      'The works go on until {weekday}, not a day longer.',
      'Yes, the {time} can land, on the inner side.',
      'The divers ask that {ship} keeps her bow thruster off.',
      '{please}',
    ],
  },
  parts: {
    subjects: [
      'Quotation {20110-48890}: {part}',
      '{part} for {ship}',
      'Your order {70012-99870}: {part} {shipped|delayed|part delivered}',
      'Invoice {4401-9920} {overdue|corrected|attached}',
      'Core return: {part}',
    ],
    openings: [
      'Thank you for your enquiry about the {part} for {ship}.',
      'On {ship} the {part} {fault}.',
      'The {part} for {ship} should be at {harbour} in {2-9} days, by {weekday} with luck.',
      'This is about our invoice for the {part} of {ship}: {fee} net.',
      'We still wait for your old {part}; the exchange price of {fee} holds for {20-40} days.',
    ],
    middles: [
      'Our price is {fee} net, carriage not included.',
      'The serial number should begin with {44-98}-{100-999}; please send a photograph of the plate.',
      'An exchange unit would be {fee} with your old one back within {20-40} days.',
      'Fitting takes a fitter and a half day, and the {part} should be done with it.',
      ...common,
    ],
    replies: [
      'Please go ahead, order number follows.',
      'That is {fee} more than last time. Why?',
      'The plate cannot be read any more, see the picture.',
      'The spare is on the shelf in {harbour}, bin {11-88}.',
      'We need it before the {weekday} sailing or not at all.',
      ...common,
    ],
    theirs: [
      'The maker asks that much now; we can take {fee} off for the delay.',
      'One {part} is on the shelf in {harbour}, it can go on {weekday}.',
      'Thank you for the order, the confirmation follows.',
      'Is the plate of the old one still readable?',
      '{please}',
    ],
  },
  charter: {
    subjects: [
      'Charter of {ship} on {weekday}: {40-180} guests',
      'Wedding party to {island}',
      'School trip {island}, {22-96} pupils',
      'Evening cruise with music, {weekday}',
      'Group of {18-75} from {harbour}: prices',
    ],
    openings: [
      'We would like to take {ship} round {island} on {weekday} evening.',
      'The bride gets seasick; can {ship} stay inside the sound on the way to {island}?',
      'Our pupils of the {4-9}th year want to see the seals at {island}.',
      'Last year {ship} was lovely, so here we are again, on {weekday} if she is free.',
      'We would come over from {harbour} and back in a day; what is that for all of us?',
    ],
    middles: [
      'Boarding at {time}, back by {time}, food from our own cook.',
      'We have {1-4} wheelchairs and {2-9} prams.',
      'Is {money} still right, and does it include the crew’s overtime?',
      'The band brings {2-5} amplifiers; the socket on the aft deck gave up last time.',
      ...atSea,
    ],
    replies: [
      '{ship} is free that day, I hold her until {weekday}.',
      'With {wind} we would rather stay in the sound.',
      'Contract attached; a deposit of {fee} makes it firm.',
      ...atSea,
    ],
    theirs: [
      'Thank you, then we take her.',
      'Numbers went up to {60-190}, is she still big enough?',
      'May we come on board at {time} to lay the tables?',
      'The aunt from {harbour} wants to know about parking.',
      '{please}',
    ],
  },
  crew: {
    subjects: [
      'Swap {weekday} late for {weekday} early?',
      'Second engineer for {ship} on {weekday}',
      'Rest hours {ship}, week {36-52}',
      'Sick: who takes the {time}?',
      'Rota from {weekday}, second version',
    ],
    openings: [
      'Could somebody take my {time} on {weekday}? My boy has his exam.',
      '{ship} is short of a second engineer on {weekday} from {time}.',
      'We are {3-14} hours over on {ship} this week and the inspector counts.',
      'I am down with the flu, so {ship} is short of a {mate|deckhand} for the {time}.',
      'The first rota had me on two ships at once on {weekday}; this one should be right.',
    ],
    middles: [
      'I would give two lates for one early, that is how badly I want it.',
      '{Owen|Rhona|Piet|Hanne} has the ticket for {ship} and is ashore that day.',
      'Travel from {harbour} is paid, I asked.',
      'Please do not phone {Callum|Zofia}, they came off nights at {time}.',
      ...common,
    ],
    replies: [
      'I can do it if I am home by {time}.',
      'Sorry, not me, I have the {time} the next day.',
      'Done, I changed it in the rota.',
      'That breaks the eleven hours. Try {Dario|Bea|Yusuf}.',
      ...common,
    ],
  },
  complaint: {
    subjects: [
      'Left behind at {harbour}',
      'Refund for the {weekday} {time}',
      'Your staff at {harbour}',
      'Ticket machine ate my card',
      'Dog not allowed??',
      'Thank you to the crew of {ship}',
    ],
    openings: [
      'I stood at {harbour} at {time} with a valid ticket and watched {ship} leave.',
      'I paid {fee} for the {time} on {weekday}, and it never sailed.',
      'My mother is {77-94} and was told at {harbour} to sit in the car deck stairs.',
      'The machine at {harbour} kept my card and gave me nothing but a beep.',
      'Our dog has travelled with you for {3-12} years and now suddenly needs a muzzle.',
      'I do not usually write such letters, but the young man at the ramp of {ship} deserves a medal.',
    ],
    middles: [
      'I missed a {funeral|flight|hospital appointment|wedding} because of it.',
      'Nobody picks up your telephone, I tried {4-22} times.',
      'I expect {fee} back within {7-21} days.',
      'A photograph is attached, look at the clock in it.',
      'The announcement was in no language known to me.',
      ...common.slice(0, 1),
    ],
    replies: [
      'I am sorry about {weekday}. {crossing} left early {reason}, and that should not have happened.',
      'We have refunded {fee} to the card you paid with.',
      'I have asked the crew of {ship} and will write to you by {weekday}.',
      'The camera at {harbour} shows it as you say. I am sorry.',
      ...common.slice(0, 1),
    ],
    theirs: [
      'That is not good enough.',
      'Thank you for the quick answer, I did not expect that.',
      'The {fee} have come in, thank you.',
      'And who tells my {mother|boss|dentist}?',
    ],
  },
  staff: {
    subjects: [
      'New jackets: sizes by {weekday}',
      'Who has the key to the {stores|paint locker|van}?',
      'Cake in the mess at {time}',
      'Summer party: boat or barn?',
      'Retirement of {Callum|Rhona|Anselm}',
      'Parking at {harbour}',
    ],
    openings: [
      'The new jackets come in green only, whatever the picture says.',
      'Somebody has the key in a pocket, and it is not me.',
      'It is {Hanne|Tobias|Nadia}’s birthday and there is cake at {time}.',
      'It is decided by {weekday}: the boat is {ship}, the barn is dry.',
      'After {26-41} years on {ship} it is time for a proper send-off.',
      'The places behind the shed at {harbour} are for the van, as the sign says.',
    ],
    middles: [
      'Write your size next to your name, and your real one this time.',
      'I vote for the barn, boats are what we have all day.',
      'Contributions of {20-90} crowns to {Bea|Lúcia|Piet}, please.',
      'The list hangs by the kettle.',
      ...common,
    ],
    replies: ['Please take me off this conversation.', 'Why is everybody answering to all?', ...common],
    only: {
      0: [
        'Medium, and the sleeves a hand longer.',
        'Large for me, small for {Zofia|Dario}, who is at sea.',
        'Is there one in another colour?',
        'Please take me off this conversation.',
      ],
      1: ['Not me.', 'Found it, it was in the other jacket.', 'Ask {Callum|Owen}, he had it on {weekday}.'],
      2: ['Save me a piece, I land at {time}.', 'Is it the one with the plums?', 'Many happy returns!'],
      3: ['Barn.', 'Boat! But with heating.', 'I was not asked about the date.', 'Why is everybody answering to all?'],
      4: ['Count me in.', 'I am at sea that day, but I put {20-90} crowns in.', 'Who makes the speech?'],
      5: ['My bicycle is not a van.', 'Then please move the trailer.', 'Noted.', 'Why is everybody answering to all?'],
    },
  },
  inspection: {
    subjects: [
      '{ship}: survey on {weekday}',
      'Fire drill record {ship}',
      'Deficiency {11-98} on {ship} open',
      'Stability booklet of {ship}, revision {2-9}',
      'Incident report {harbour} {weekday}',
    ],
    openings: [
      'The surveyor comes on board {ship} at {time} on {weekday}.',
      'The drill on {ship} took {6-9} minutes; the book asks for {3-5}.',
      'Deficiency {11-98} ({part}) on {ship} is open for {30-90} days and counting.',
      'The new stability booklet of {ship} is not stamped yet; she sails by the old one.',
      'At {time} on {weekday} {ship} touched the fender at {harbour} harder than she should have; nobody is hurt.',
    ],
    middles: [
      'Certificates run out in {20-80} days, the list is attached.',
      'The {part} {fault}, which is what he will look at first.',
      'Statements from the mate and two passengers are attached.',
      'Please have the hours of rest ready, all of them.',
      ...common,
    ],
    replies: [
      'The record is attached, signed by both watches.',
      'We closed it on {weekday}, see the picture.',
      'I read the report otherwise: {ship} had way on when the line parted.',
      'Who tells the insurers?',
      ...common,
    ],
    theirs: [
      'Received, thank you. I look at it on {weekday}.',
      'It stays open until I have seen it myself.',
      'The original, please, not a copy.',
      '{please}',
    ],
  },
  freight: {
    subjects: [
      '{goods} on the {weekday} {time}?',
      'Dangerous goods: {40-300} litres of {paint|diesel|thinner}',
      'Deck space {ship} {weekday}',
      'Freight list {harbour}, {weekday}',
    ],
    openings: [
      'Can {ship} take {goods} on {weekday} at {time}?',
      'They need papers before the {time} on {weekday}; who signs at {harbour}?',
      'We need room for {goods} on {ship} on {weekday}.',
      'The freight list of {harbour} for {weekday} is attached, {goods} is new on it.',
    ],
    middles: [
      'Axle load is {6-12} tonnes, height {3-4}.{1-9} metres.',
      'It must not stand next to {goods}.',
      'If not, then the {time}, but no later.',
      'Payment by {harbour} account, as always.',
      ...atSea,
    ],
    replies: [
      'Yes, if it is at the ramp {20-50} minutes before.',
      'Too high for {ship}; {ship} could.',
      'Only without passengers on the car deck.',
      'Papers received, one signature is missing.',
      ...atSea,
    ],
    theirs: [
      'It is {3-4}.{1-9} metres, I measured it again.',
      'Then the {time} it is, thank you.',
      'The driver asks where he may sleep.',
      '{please}',
    ],
  },
  council: {
    subjects: [
      'Timetable hearing {island}, {weekday}',
      'School run {harbour}: numbers',
      'Subsidy figures for the {first|second|third} quarter',
      'Petition: earlier boat to {island}',
    ],
    openings: [
      'The council hears the timetable of {island} on {weekday} at {time} in the hall at {harbour}.',
      'The school at {harbour} begins at {time}; we count {12-60} children on the boat.',
      'For the quarter we count {11-48},{100-900} passengers; you count fewer.',
      '{210-870} people signed for an earlier boat to {island}.',
    ],
    middles: [
      'Figures by crossing, not by day, would help us both.',
      'The school begins at {time} and the boat lands at {time}, you see the trouble.',
      'The grant falls by {2-9} per cent whatever we do.',
      ...common,
    ],
    replies: [
      'We can run the {time} from {harbour} on school days for {fee} a week.',
      'Our counters were broken at {harbour} for {4-19} days, that is the difference.',
      'I will be at the hearing with {Tobias|Ingrid}.',
      ...common,
    ],
    theirs: [
      'The council thanks you for the figures.',
      'We count again, by crossing this time.',
      'The hall is booked from {time}.',
      '{please}',
    ],
  },
};
