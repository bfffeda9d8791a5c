// Mail in other languages, each in a character set that its writers really used.
import type { Address } from '../src/core/mail/address';
import { partners, passengers } from './cast';

/** A language of the demo: who writes it, in which character set, and what. */
export interface Tongue {
  charset: string;
  from: Address[];
  subjects: string[];
  lines: string[];
}

export const tongues: Tongue[] = [
  {
    charset: 'iso-8859-1',
    from: [partners.charter[2], passengers[6]],
    subjects: ['Skolresa till {island} den {2-28}:e', 'Fråga om bryggan i {harbour}', 'Sv: Gruppbiljetter'],
    lines: [
      'Vi är {22-96} elever och {3-8} lärare som vill åka med {ship}.',
      'Går det att få äta ombord, och finns det något för allergiker?',
      'Bryggan är hal när det har regnat, någon borde sanda där.',
      'Hör gärna av er före {2-28}:e, så att vi kan skriva till föräldrarna.',
      'Båten klockan {time} passar oss bäst, annars den klockan {time}.',
    ],
  },
  {
    charset: 'iso-8859-15',
    from: [partners.parts[1], passengers[10]],
    subjects: [
      'Angebot {20110-48890}: Dichtungssatz für {ship}',
      'Rückfrage zum Typenschild',
      'Verspätete Fähre, Erstattung',
    ],
    lines: [
      'anbei das gewünschte Angebot über {140-980} € zuzüglich Fracht.',
      'Bitte prüfen Sie die Nummer auf dem Typenschild, die Ziffern sind kaum zu lesen.',
      'Die Lieferzeit beträgt zurzeit {2-9} Wochen, größere Stückzahlen auf Anfrage.',
      'Wir standen über {40-95} Minuten am Anleger in {harbour}, ohne dass uns jemand Auskunft gab.',
      'Für eine kurze Rückmeldung wäre ich dankbar.',
    ],
  },
  {
    charset: 'windows-1252',
    from: [partners.charter[0], passengers[1]],
    subjects: ['Croisière du {2-28} : nombre d’invités', 'Devis pour {ship}', 'Réclamation — traversée manquée'],
    lines: [
      'Nous serons finalement {40-120} personnes, dont {2-6} enfants en bas âge.',
      'Le traiteur souhaite monter à bord dès {time} pour préparer la salle.',
      'Pourriez-vous m’indiquer si le pont arrière est couvert ?',
      'J’ai attendu au débarcadère de {harbour}, et le bateau était déjà parti.',
      'Dans l’attente de votre réponse, je vous prie d’agréer mes salutations distinguées.',
    ],
  },
  {
    charset: 'iso-8859-7',
    from: [partners.harbour[3], passengers[5]],
    subjects: ['Αλλαγή θέσης πρόσδεσης', 'Ώρα άφιξης του {ship}', 'Έργα στον λιμένα'],
    lines: [
      'Σας ενημερώνουμε ότι η θέση {1-6} δεν είναι διαθέσιμη αυτή την εβδομάδα.',
      'Παρακαλούμε να μας στείλετε την ώρα άφιξης πριν από τις {time}.',
      'Τα έργα στον προβλήτα συνεχίζονται, η ταχύτητα περιορίζεται.',
      'Με εκτίμηση, το γραφείο του λιμένα.',
    ],
  },
  {
    charset: 'utf-8',
    from: [partners.charter[3]],
    subjects: ['Grupo de {18-75} pessoas, {island}', 'Confirmação da reserva', 'Horário de inverno'],
    lines: [
      'O grupo chega a {harbour} às {time} e precisa de embarcar logo a seguir.',
      'Há espaço para {2-9} bicicletas no convés?',
      'Pedimos a fatura em nome da agência, por favor.',
      'Com os melhores cumprimentos.',
    ],
  },
  {
    charset: 'iso-8859-2',
    from: [passengers[3]],
    subjects: ['Zagubiony plecak na promie', 'Podziękowanie dla załogi {ship}'],
    lines: [
      'W {weekday} zostawiłem plecak na górnym pokładzie, koło okna.',
      'Jest zielony, w środku książka i klucze z żółtą wstążką.',
      'Bardzo dziękuję za pomoc i życzliwość całej załogi.',
    ],
  },
];

/** Junk in tongues that nobody at the desk reads. */
export const junkTongues: Tongue[] = [
  {
    charset: 'koi8-r',
    from: [],
    subjects: [
      'Семинар по налогам {2-28} числа',
      'База адресов: {10-90} тысяч фирм',
      'Срочно: оплата счёта {1001-9999}',
    ],
    lines: [
      'Приглашаем бухгалтеров и директоров на семинар по новым налогам.',
      'Стоимость участия {2-9} тысяч, обед включён.',
      'Предлагаем свежую базу адресов предприятий с доставкой на дом.',
      'Оплатите счёт сегодня и получите скидку {10-40} процентов.',
    ],
  },
  {
    charset: 'gb2312',
    from: [],
    subjects: ['代开发票 {100-999}', '海运优惠价格', '诚邀参加培训课程'],
    lines: [
      '我公司可代开各类发票，价格优惠。',
      '欢迎来电咨询，手机{100-999}{1000-9999}。',
      '现有海运舱位，价格从优，先到先得。',
    ],
  },
  {
    charset: 'shift_jis',
    from: [],
    subjects: ['当選のお知らせ', '緊急のご案内：口座確認', '特別価格のご案内'],
    lines: [
      'おめでとうございます。あなたは当選されました。',
      '下記のリンクより口座情報をご確認ください。',
      '期間限定の特別価格でご提供いたします。',
    ],
  },
];
