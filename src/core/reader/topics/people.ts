import { fold } from '../../base';
import { FORMER, OTHERS } from '../skills/standing';
import { ownWords, peopleIn } from '../skills/names';
import { rowOf, type Candidate, type Said } from '../said';

/** Said outright: who decides, signs or is answerable for technology, investment or buying. */
const DECIDES =
  /\bdecid\w*|\bdecisions?\b|final (?:say|word)|has the last word|signs? off|signs? (?:for |every |all |the )?(?:\w+ )?(?:purchases?|orders?|cheques?|investments?)|approves? (?:all )?(?:investment|purchase)|in charge of (?:investment|technolog|purchas|equipment|technical)|responsible for (?:all )?(?:investment|technolog|purchas|equipment|technical|capital)|entscheid\w*|verantwortlich fur (?:investition|technik|einkauf|anschaff)|ansprechpartner\w* fur (?:investition|technik|einkauf)|letzte wort|beslis\w*|verantwoordelijk voor (?:investering|techniek|inkoop|aanschaf)|gaat over (?:de )?(?:investering|techniek|inkoop)|laatste woord|toma (?:todas )?las decisiones|decisiones|responsable de (?:las )?(?:inversiones|compras|tecnologia|la tecnica)|ultima palabra|prend (?:toutes )?les decisions|decisions?\b|responsable des (?:investissements|achats|equipements)|responsable technique et|dernier mot|tranche\b|decyduje|decyzj\w*|decide|decisioni/;
/** A label over the person to ask. */
const ANSWERABLE =
  /invest|investition|inversion|equipment|purchas|einkauf|inkoop|compras|achats|technology|technik\b|techniek|tecnologia|technique/;
const OWNS =
  /\bowners?\b|\bproprietor\b|managing director|\bfounder and (?:owner|director)|chief executive|\bceo\b|general manager|managing partner|geschaftsfuhrende\w* gesellschafter\w*|beherend vennoot|socio gerente|associee? gerante?|\brun by\b|\bled by\b|\bmanaged by\b|inhaber\w*|geschaftsfuhr\w*|eigentumer\w*|\bgeleitet von|\bgefuhrt von|betriebsinhaber\w*|\bchef(?:in)? (?:des|ist)|eigenaar\w*|eigenaresse|directeur\b|directie\b|geschaftsleitung|direktion|direction\b|direccion\b|algemeen directeur|geleid door|ondernemers?\b|propietari[oa]|duen[oa]\b|gerente|gerencia|director[a]? general|dirigid[oa] por|president[e]?\b|prasident\w*|proprietaire|gerante?\b|dirigeante?\b|dirigee? par|directeur general|directrice generale|titolare|amministratore delegato|wlascicie\w*|prezes/;
const NOT_NOW =
  /\b(?:former|retired|late|grandfather|grandmother|great-grand\w*|ehemalige\w*|verstorben\w*|grossvater|grossmutter|urgross\w*|voormalig\w*|opa|grootvader|overleden|antigu[oa]|abuel[oa]|jubilad[oa]|ancien(?:ne)?|grand-pere|grand-mere|feu|retraite|ex)\b/;
const BEGAN = /\bfounded\b|\bestablished\b|\bstarted by\b|gegrundet|opgericht|begonnen door|fundad|fonde\b|fondee\b|zalozon|fondat/;
const SELLS =
  /\bsales\b|\bmarketing\b|verkauf|vertrieb|verkoop|ventas|ventes|commercial\b|personnel|human resources|shop manager|press contact|webmaster|design by|photo|foto/;

/** A name as a heading, and under it what they are: “Owner. Buys everything.” */
function headedBy(said: Said): readonly Candidate[] {
  if (said.kind !== 'text' || said.head.length > 60 || /\b(?:co|ltd|limited|gmbh|bv|sl|sarl|nursery|growers)\.?$/i.test(said.head))
    return [];
  const at = OWNS.exec(said.folded);
  if (!at || at.index > 12 || SELLS.test(said.folded.slice(0, 40)) || NOT_NOW.test(said.folded.slice(0, 40))) return [];
  const taken = ownWords(said.url, said.title);
  if (peopleIn(said.text, taken).length > 0) return [];
  const people = peopleIn(said.head, taken);
  const [person] = people;
  return people.length === 1 && person && said.head.length - person.text.length <= 6
    ? [{ value: person.text, score: 3.4, said, date: said.date }]
    : [];
}

/** The person who decides: whoever is said to, else owners and managing directors. */
export function deciderIn(said: Said): readonly Candidate[] {
  const row = rowOf(said);
  const told =
    (row !== undefined && ANSWERABLE.test(row.label)) ||
    DECIDES.test(row ? row.label : said.folded) ||
    (row !== undefined && DECIDES.test(said.folded));
  const owns = OWNS.test(row ? row.label : said.folded) || (row !== undefined && OWNS.test(said.folded));
  const asHeaded = headedBy(said);
  if (asHeaded.length > 0) return asHeaded;
  if ((!told && !owns) || OTHERS.test(said.folded.replace(/\bclients? service\b/g, ''))) return [];
  const taken = ownWords(said.url, said.title);
  // In a row the label names what they are, and the value who.
  const valueAt = row ? said.text.length - row.value.length : 0;
  const people = peopleIn(said.text, taken).filter((person) => person.from >= valueAt);
  const cue = (told ? DECIDES : OWNS).exec(said.folded);
  // Two of the same standing: which of them decides is not said.
  const shared = /\p{Lu}[\p{L}'’-]{1,40} (?:and|und|&|en|y|e|et|i) (?:\p{Lu}\.? )?$/u;
  if (people.some((person) => shared.test(said.text.slice(0, person.from)))) return [];
  const fitting = people.flatMap((person): Candidate[] => {
    const before = fold(said.text.slice(0, person.from));
    const after = fold(said.text.slice(person.to));
    const near = `${before.split(/[,;.]/).at(-1) ?? ''} ${after.split(/[;.]/)[0] ?? ''}`;
    if (NOT_NOW.test(near) || (BEGAN.test(near) && !told)) return [];
    if (!told && FORMER.test(near)) return [];
    const own = `${before.split(/[,;.]/).at(-1) ?? ''} ${after.split(/[,;.]/).slice(0, 2).join(',')}`;
    if (SELLS.test(own) && !told) return [];
    const distance = cue ? Math.abs(before.length - cue.index) : 40;
    const score = (told ? 5 : 3) + (distance < 40 ? 0.5 : 0) - Math.min(1.5, distance / 80) + (row ? 0.5 : 0);
    return [{ value: person.text, score, said, date: said.date }];
  });
  if (fitting.length <= 1 || told) return fitting;
  // Several are named and one of them has the title right behind the name: “Jens Ebersbach (owner), Ute Ebersbach (dispatch)”.
  const titled = fitting.filter((candidate) => {
    const at = said.text.indexOf(String(candidate.value));
    return OWNS.test(fold(/^\s*\(([^)]*)\)/.exec(said.text.slice(at + String(candidate.value).length))?.[1] ?? ''));
  });
  return titled.length === 1 ? titled : [];
}
