import { FORMER, MAIN, NOT, OTHERS, PLANNED, RESERVE } from '../skills/standing';
import { rowOf, type Candidate, type Said } from '../said';
import { CROPS, ENERGY, mentions, type Mention } from './lexicon';

const GROWS =
  /\bgrow\w*|\bproduc\w*|\bcultivat\w*|\braise\w*|\bplant(?:ed|ing)\b|\bharvest\w*|\bpropagat\w*|\bzieh\w*|\bkultivier\w*|\banbau\w*|\bbau(?:t|en) .* an\b|\berzeug\w*|\bproduzier\w*|\bernte\w*|\bwachs\w*|\bwachst\b|\btelen\b|\bteelt\b|\bteler\b|\bkwek\w*|\bkweek\w*|\bgeteeld\b|\bcultiv\w*|\bproduci\w*|\bcosech\w*|\bcrecen\b|\bprodui\w*|\brecolt\w*|\bpouss\w*|\bcoltiv\w*|\braccolt\w*|\bupraw\w*|\bdyrk\w*|\bodl\w*|\bgartneri\w*|\bnursery\b|\bcrops?\b|\bkultur\w*|\bgewas\w*|all year|every month|ganze jahr|ganzjahrig|hele jaar|jaarrond|todo el ano|toute l'annee|tutto l'anno|caly rok|available|lieferbar|leverbaar|disponible/;
const ASIDE =
  /\bshop\b|buy in|bought in|resell|trial|experiment|hobby|also|besides|on the side|sold in|a few|some\b|small|hofladen|zukauf|versuch\w*|probe\w*|nebenbei|daneben|ausserdem|auch|ein paar|winkel|proef\w*|daarnaast|ook|enkele|tienda|ensayo\w*|prueba\w*|tambien|ademas|algun\w*|boutique|essai\w*|aussi|quelques|egalement|en outre|negozio|prova|anche|sklep|takze|rowniez|neighbou?r|menu|recipe|rezept|receta|recette|dish|salad bar|painted|colour|street|strasse|named|christmas|planted (?:a|\d)/;

/** Kinds of crops rather than crops. */
const WIDE: ReadonlySet<string> = new Set(['cut flowers']);
const SHOP_PAGE = /shop|laden|winkel|tienda|boutique|store|market|markt/;

/** The crops a sentence names, the main one scored highest: by the words beside it, its place in the list and where it stands. */
export function cropsIn(said: Said): readonly Candidate[] {
  const row = rowOf(said);
  const labelled = row !== undefined && /crop|kultur|teelt|gewas|cultivo|cultures?|production|produkt|coltur|upraw/.test(row.label);
  const ofOthers = OTHERS.test(said.folded);
  const inTitle = new Set(mentions(said.title, CROPS).map((mention) => mention.value));
  // What is part of the firm's own name says nothing of what it grows.
  const name = said.title.split(/ [-–|·] /)[0]?.trim() ?? '';
  const named = name.length > 3 ? said.folded.indexOf(name) : -1;
  const found = mentions(said.folded, CROPS).filter((mention) => named < 0 || mention.from >= named + name.length || mention.to <= named);
  return found.flatMap((mention, i): Candidate[] => {
    const clause = clauseAround(said.folded, mention.from, mention.to);
    if (FORMER.test(clause) || PLANNED.test(clause) || deniedBefore(clause, said.folded.slice(mention.from, mention.to))) return [];
    let score = 0.6;
    if (labelled) score += /main|haupt|hoofd|principal|glown/.test(row.label) ? 5 : 3;
    if (said.kind !== 'heading' && (inTitle.has(mention.value) || said.title.includes(said.folded.slice(mention.from, mention.to))))
      score += 1.3;
    if (GROWS.test(said.folded)) score += 1.6;
    else if (GROWS.test(said.under)) score += 0.8;
    if (said.kind !== 'heading' && mentions(said.under, CROPS).some((other) => other.value === mention.value)) score += 0.5;
    // A sentence that begins with what they grow says what they are.
    if (
      said.kind === 'text' &&
      (i === 0 || (i === 1 && WIDE.has(found[0]?.value ?? ''))) &&
      mention.from <= (i === 0 ? 14 : 40) &&
      !SHOP_PAGE.test(said.url)
    )
      score += 1.3;
    // “Cut flowers: freesias …”: the kind of thing gives way to the thing.
    if (WIDE.has(mention.value) && found.some((other) => !WIDE.has(other.value))) score -= 1.6;
    if (ofOthers) score -= 1.2;
    if (MAIN.test(clause)) score += 3;
    if (ASIDE.test(besideOnly(said.folded, found, i))) score -= 1.6;
    score -= Math.min(1, i * 0.4);
    return score <= 0.3 ? [] : [{ value: mention.value, score, said, date: said.date }];
  });
}

const HEATING =
  /heat|boiler|warm|energ|fuel|burn|fired|kessel|heiz|befeuer|brennstoff|stook|stoke|ketel|brandstof|calor|calef|calient|calent|caldera|combustible|chauff|chaleur|chaudiere|riscald|calore|caldaia|ogrzew|ciepl|kotl|paliw|\bfyr|varme|geothermal well|cogener|\bchp\b|\bbhkw\b|\bwkk\b/;
/** Energy of something else. */
const NOT_HEAT =
  /\bsells?\b|\bsold\b|\bdelivery vans?\b|\blorr|\bcars?\b|\btrucks?\b|forklift|charging|lade(?:saule|station)|laadpa|electricity price|cooking|kitchen|canteen|bio-?gas plant nearby|cold store/;
const REPLACED =
  /replac|ersetz|abgelost|vervang|vervangen|sustitu|reemplaz|remplac|sostitui|zastap|instead of|statt|in plaats van|en lugar de|en vez de|au lieu de|switched|moved from|umgestellt|umgestiegen|overgestapt|cambiamos|passes? (?:du|de la)/;

const TAKES_PLACE =
  /^\S{0,60}\s{0,2}(?:\w{1,30} ){0,2}?(?:(?:have|has|haben|hat|hebben|heeft|han|ha|ont)\b(?!.{0,30}\b(?:been|worden|sido|ete)\b)|(?:replaces?|ersetz(?:t|en)|verva?ngt?|vervangen|verving|sustituyen?|remplacent?)\b(?! (?:by|with|durch|door|por|par)\b))/;

/** What the heat comes from: the source named first or as the main one; what was replaced, planned or held in reserve is not it. */
export function energyIn(said: Said): readonly Candidate[] {
  const row = rowOf(said);
  const labelled = row !== undefined && HEATING.test(row.label);
  // “Gaz propane.”: with nothing else said, it is what they burn.
  const alone = said.folded.length <= 24 && said.kind !== 'heading';
  if (!labelled && !alone && !HEATING.test(said.folded) && !HEATING.test(said.under)) return [];
  if (NOT_HEAT.test(said.folded)) return [];
  const replaced = REPLACED.test(said.folded);
  const found = mentions(said.folded, ENERGY);
  return found.flatMap((mention, i): Candidate[] => {
    // “gas-fired CHP”: the first only says what the second burns.
    const follower = found[i + 1];
    if (follower && follower.from - mention.to <= 1) return [];
    const before = said.folded.slice(0, mention.from);
    const after = said.folded.slice(mention.to);
    const clause = clauseAround(said.folded, mention.from, mention.to);
    if (OTHERS.test(clause) || FORMER.test(clause) || PLANNED.test(clause) || RESERVE.test(heldFor(said.folded, mention))) return [];
    if (deniedBefore(clause, said.folded.slice(mention.from, mention.to))) return [];
    if (/^\s*(?:af|los|weg)\b/.test(after) || /\b(?:off|away from|weg vom?|sortis? du|dejado el|adios al)\s+(?:\w+ )?$/.test(before))
      return [];
    // “Heat pumps have replaced oil”: the first is what took the other’s place.
    if (replaced && TAKES_PLACE.test(said.folded.slice(found[0]?.to ?? 0)))
      return i > 0 ? [] : [{ value: mention.value, score: 3.5, said, date: said.date }];
    if (
      /(?:instead of|statt|rather than|in plaats van|en lugar de|en vez de|au lieu (?:de|du)|switched from|moved from|van|vom|von|du|del)\s+(?:the |our |an? |old )?\S*\s?$/.test(
        before,
      ) &&
      replaced
    )
      return [];
    if (replaced && !/\b(?:with|by|to|durch|gegen|auf|door|naar|por|par|a|au|con)\b[^.]{0,40}$/.test(before)) return [];
    if (
      replaced &&
      /^\S{0,60}\s{0,2}(?:\w{1,30} )?(?:with|by|durch|gegen|door|por|par)\b/.test(after) &&
      !/\b(?:with|by|durch|door|por|par)\b/.test(before)
    )
      return [];
    const score = (alone && !labelled ? 2 : 3) + (labelled ? 2 : 0) + (MAIN.test(clause) ? 2 : 0) - i * 0.5;
    return [{ value: mention.value, score, said, date: said.date }];
  });
}

/** What is said of one thing named: not what “with” adds behind it. */
function heldFor(folded: string, mention: Mention): string {
  const clause = clauseAround(folded, mention.from, mention.to);
  const word = folded.slice(mention.from, mention.to);
  const [before, after] = [clause.slice(0, clause.indexOf(word)), clause.slice(clause.indexOf(word) + word.length)];
  return `${before}${word}${after.split(/\s(?:with|mit|met|con|avec|plus)\s/)[0] ?? ''}`;
}

const ASIDE_BEFORE = 30;
const ASIDE_AFTER = 12;

/** The words close to one of several things named, not those that belong to its neighbours. */
function besideOnly(folded: string, found: readonly Mention[], i: number): string {
  const mention = found[i];
  if (!mention) return '';
  const from = Math.max(found[i - 1]?.to ?? 0, mention.from - ASIDE_BEFORE);
  const to = Math.min(found[i + 1]?.from ?? folded.length, mention.to + ASIDE_AFTER);
  return folded.slice(from, mention.to) + (folded.slice(mention.to, to).split(/[,;]|\s(?:and|und|en|y|et|e|i)\s/)[0] ?? '');
}

/** The part of the sentence between the commas around a word. */
export function clauseAround(folded: string, from: number, to: number): string {
  const before =
    folded
      .slice(0, from)
      .split(/[;:()]|,(?=\s)|\s(?:but|aber|maar|pero|mais|while|wahrend|terwijl|mientras)\s/)
      .at(-1) ?? '';
  const after = folded.slice(to).split(/[;:()]|,(?=\s)|\s(?:but|aber|maar|pero|mais|while|wahrend|terwijl|mientras)\s/)[0] ?? '';
  return `${before}${folded.slice(from, to)}${after}`;
}

/** “no gas”, “ohne Öl”: a denial shortly before the word. */
function deniedBefore(clause: string, word: string): boolean {
  const at = clause.indexOf(word);
  const [close = ''] = clause.slice(0, Math.max(0, at)).match(/(?:\S{1,60}\s{1,3}){0,3}$/) ?? [];
  return NOT.test(close) && !/\bnot only|nicht nur|niet alleen|no solo|non seulement/.test(clause);
}
