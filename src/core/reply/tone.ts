import type { ReplyKind } from './kinds';
import { plain } from './plain';

/** How somebody writes: against us, warmly, or neither. */
export type Tone = 'negative' | 'neutral' | 'positive';

const any = (...words: readonly string[]): RegExp => new RegExp(`(?<![\\p{L}])(?:${words.join('|')})(?![\\p{L}])`, 'gu');

/** Distrust, scorn and annoyance, in five languages, over folded words. */
const AGAINST = any(
  "i(?:'m| am) not going to pretend|nonsense|rubbish|ridiculous|waste of (?:my |our )?(?:time|money)|annoy\\w*|disappoint\\w*|no(?:body)? (?:believes?|trusts?)|(?:don't|do not) (?:believe|trust)|sold (?:me|us) (?:a |an )?miracle|the last (?:firm|one|lot|company)|far too|never mind the|insult\\w*|pushy|pester\\w*|again and again|how many times|too good to be true|sales talk|laughable|joke",
  'unsinn|quatsch|lacherlich|zeitverschwendung|arger\\w*|verarger\\w*|enttausch\\w*|glaube (?:ich )?(?:ihnen |das )?(?:nicht|kein)|misstrau\\w*|nervt|nerven|viel zu|schon wieder|zum (?:dritten|vierten|wiederholten) mal|aufdringlich|werbegeschwatz|wucher',
  'onzin|belachelijk|tijdverspilling|verspilling|erger\\w*|teleurgesteld|teleurstell\\w*|geloof (?:er )?(?:niks|niets)|vertrouw\\w* (?:het |u |jullie )?niet|veel te|alweer|voor de (?:derde|vierde|zoveelste) keer|opdringerig|praatjes|zat van',
  "n'importe quoi|ridicule|perte de temps|enerv\\w*|agac\\w*|decu\\w*|deception|ne (?:crois|croyons) (?:pas|plus)|mefi\\w*|beaucoup trop|encore une fois|(?:troisieme|quatrieme|enieme) fois|deja vendu|miracle|insistan\\w*|boniment\\w*",
  'tonteria\\w*|ridicul\\w*|perdida de tiempo|molest\\w*|decepcion\\w*|no (?:me )?(?:creo|fio)|desconfi\\w*|demasiad[oa] car\\w*|otra vez|(?:tercera|cuarta|enesima) vez|cuento chino|pesad[oa]s?|tomadura de pelo',
);
/** Warm words beyond the courtesy that ends every letter. */
const WARM = any(
  'glad to|happy to|delighted|looking forward|love to|would like to see|sounds (?:good|great|interesting)|(?:very|so) (?:kind|helpful)|great|good timing|perfect|lovely|wonderful|thank you so much|many thanks|i do mean it|i will wave|kettle on|come (?:for the day|in by)|that is my reading|thank you,|thanks,|thanks!',
  'freue? (?:mich|uns)|gern(?:e)?|vielen (?:herzlichen )?dank|herzlichen dank|danke (?:ihnen|dir)|wunsche ihnen|klingt (?:gut|interessant)|sehr (?:nett|freundlich)|freundliche|prima|wunderbar|kann es nicht schaden|schaden kann es nicht',
  'graag|dank (?:je|u) ?(?:wel)?|bedankt|leuke?|netjes|fijn|klinkt (?:goed|interessant)|heel (?:aardig|vriendelijk)|kom gerust|ik zeg geen nee|prima|mooi',
  'avec plaisir|volontiers|merci (?:beaucoup|infiniment)|ravi\\w*|au plaisir|hate de|tres (?:gentil|aimable)|interessant|parfait|formidable|je vous remercie',
  'encantad[oa]|con (?:mucho )?gusto|muchas gracias|me gustaria|si que quiero|muy (?:amable|agradable|interesante)|perfecto|estupendo|genial|gracias por su interes',
);

/** What a kind says of the tone by itself. */
const BY_KIND: Readonly<Partial<Record<ReplyKind, number>>> = {
  angry: -3,
  unsubscribe: -1,
  objection: -0.5,
  interested: 1,
  'meeting accepted': 1,
  thanks: 1,
};
/** Mails that a machine wrote have no tone. */
const NO_TONE: ReadonlySet<ReplyKind> = new Set<ReplyKind>([
  'out of office',
  'automatic receipt',
  'bounce',
  'soft bounce',
  'complaint',
  'delayed',
  'read receipt',
  'bulk',
  'spam',
]);

/** The tone of somebody's own words, whose kind is known: their words weigh against each other, and the kind among them. */
export function toneOf(words: string, kind: ReplyKind): Tone {
  if (NO_TONE.has(kind)) return 'neutral';
  const said = plain(words);
  const count = (pattern: RegExp): number => new Set(said.match(pattern)).size;
  const weight = count(WARM) - 1.5 * count(AGAINST) + (BY_KIND[kind] ?? 0);
  return weight >= 1 ? 'positive' : weight <= -1 ? 'negative' : 'neutral';
}
