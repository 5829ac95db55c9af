import type { Instant } from '../../base';
import { datesIn, type When } from '../skills/dates';
import { DROPPED, FORMER, NOT, OTHERS, PLANNED, WISHED } from '../skills/standing';
import type { Candidate, Said } from '../said';

/** Words that by themselves say that production grows. */
const GROWS =
  /\bexpan(?:d|ds|ded|ding|sion|sions)\b|\bextension\b|\bextend(?:s|ed|ing)?\b|\benlarg\w+|\berweiter\w*|\bneubau\w*|\bausbau\w*|\bvergrosser\w*|\buitbreid\w*|\bbreid(?:t|en)\b|\bnieuwbouw\w*|\bampliaci\w*|\bampli(?:a|ar|amos|ado|aremos|o|ara)\b|\bagrandi\w*|\bextensions?\b|\brozbudow\w*|\bampliament\w*|\butvid\w*|\budvid\w*/;
/** Something built or bought: says it only together with what is built. */
const BUILDS =
  /\b(?:build(?:s|ing)?|built|bau (?:von|der|des|eine[sr])|construct\w*|broke ground|break(?:s|ing)? ground|add(?:s|ed|ing)?|put(?:ting)? up|erect\w*|invest\w*|acquir\w*|bought|takes? over|took over|commission\w*|open(?:s|ed|ing)?|planning permission|(?:went|came|ging|gingen|kwam|entro|est entree?) .{0,60}(?:in(?:to)? (?:operation|use|betrieb|gebruik)|en (?:marcha|service))|permission|approv\w*|application|consent|genehmig\w*|vergunning|under construction|completed?|gebaut|bauen|baut|errichte\w*|entsteht|entstehen|investi\w*|erworben|ubernommen|spatenstich|baugenehmigung|eingeweiht|fertiggestellt|bouw(?:en|t|de)?|gebouwd|investe\w*|overgenomen|bouwvergunning|eerste paal|constru\w*|inver\w*|levant\w*|adquir\w*|licencia de obra|inaugur\w*|construi\w*|acquis\w*|permis de construire|premiere pierre|budow\w*|zbudow\w*|inwest\w*|costru\w*)\b/;
const UNDER_GLASS = /glass|greenhous|gewachsh|\bglas|\bkas\b|\bkassen|invernader|\bserres?\b|szklarni|drivhus|vaxthus|vetro/;
/** A new house is announced by its name alone. */
const NEW_HOUSE =
  /\b(?:new|neue[snr]?|nieuwe?|nuev[oa]s?|nouvel(?:le|les)?|nuov[ao]|now[aey])\s(?:\w+ ){0,2}(?:glass\w*|greenhouse\w*|gewachsh\w*|kas\b|kassen|invernadero\w*|serres?\b|serra\b|szklarni\w*)|\b(?:second|third|fourth|fifth|zweite[rn]?|dritte[rn]?|vierte[rn]?|tweede|derde|vierde|vijfde|segund[oa]|tercer[oa]?|cuart[oa]|deuxieme|troisieme|quatrieme)\s(?:\w+ )?(?:site|location|nursery|standort|locatie|vestiging|finca|centro|sede)\b/;
const GROUND =
  /\bm²|\bm2\b|square met|quadratmeter|vierkante meter|metros cuadrados|metres carres|glass|greenhous|gewachsh|\bglas|\bkas\b|\bkassen|invernader|\bserres?\b|szklarni|\bha\b|hectare|hektar|hectarea|bays?\b|nursery|nurseries|production area|growing area|anbauflache|produktionsflache|teeltoppervlak|superficie|nave\b|naves\b|drivhus|vaxthus|vetro|ettari/;
const SOMETHING_ELSE =
  /farm shop|\bshop\b|car ?park|canteen|office|website|web site|web shop|range of|assortment|our range|team\b|staff|opening hours|deadline|contract|hofladen|parkplatz|kantine|sortiment|buro\b|webshop|team\b|winkel|kantoor|assortiment|personeel|tienda|oficina|catalogo|surtido|plantilla|gama|boutique|magasin|gamme|bureaux|equipe|sklep|biur\w*|negozio|export|exports|packing (?:hall|line|shed)|packhalle|verpackungs|pakhal|almacen|hangar|machine shed|shed for machines|solar|photovolt|cold store|kuhlhaus|koelcel|camara frigorifica|lorr|truck|vehicle|delivery/;
const DONE_WITHOUT_DAY =
  /\b(?:has|have|had) (?:been )?(?:\w+ed)\b|\b(?:was|were)\b|\bwurde[n]?\b|\b(?:is|zijn|werd|werden) (?:\w+ ){0,3}ge\w+|\bhaben (?:wir )?\b|\bhemos\b|\bavons\b|\bfue\b|\ba ete\b|\babbiamo\b/;

const NO_TO_IT =
  /^(?:no\b|not (?:now|for now|yet|at the moment|planned)|nein|nicht|vorerst nicht|derzeit nicht|nee\b|niet|voorlopig niet|por ahora no|de momento no|pas (?:pour|encore)|non\b|aucun)/;
/** What is or is not meant to come. */
const INTENDED =
  /\bplan(?:ned|s|ning)?\b|\bgeplant\b|\bvorgesehen\b|\bgepland\b|\bplannen\b|\bprevist[oa]s?\b|\bplane[ao]\w*|\bprevue?s?\b|\bprojete\w*/;

const MONTH_MS = 30.44 * 86_400_000;

/**
 * Whether a sentence announces that the place under glass grows, or denies it. `months`: how far back an announcement counts.
 * What is older, wished for, called off, of somebody else or about something else says nothing.
 */
export function expansionOf(said: Said, now: Instant, months: number): readonly Candidate[] {
  const { folded } = said;
  const grows = GROWS.test(folded);
  // “Expansion? Not for now.”
  if (grows && folded.endsWith('?')) {
    const stale = (said.date ?? now) < now - months * MONTH_MS;
    return NO_TO_IT.test(said.next) && !stale ? [{ value: false, score: 3.5, said, date: said.date }] : [];
  }
  if (!grows && !NEW_HOUSE.test(folded) && !(BUILDS.test(folded) && GROUND.test(folded))) return [];
  if (SOMETHING_ELSE.test(folded) && !UNDER_GLASS.test(folded)) return [];
  if (OTHERS.test(folded) || DROPPED.test(folded)) return [];
  const since = now - months * MONTH_MS;
  const day = lastDay(folded, said.date ?? now, now);
  if (
    NOT.test(folded) &&
    (grows || (NEW_HOUSE.test(folded) && INTENDED.test(folded))) &&
    !/\bnot only\b|\bnicht nur\b|\bniet alleen\b|\bno solo\b|\bnon seulement\b/.test(folded)
  ) {
    const stale = (day ?? said.date ?? now) < since;
    return stale ? [] : [{ value: false, score: 3.5, said, date: day ?? said.date }];
  }
  if (WISHED.test(folded) && !/\b(?:granted|approved|erteilt|verleend|concedid\w*|accorde\w*)\b/.test(folded)) return [];
  const planned =
    PLANNED.test(folded) ||
    /\b(?:is|are) (?:now )?(?:building|expanding|adding|extending)\b|we're (?:building|expanding)|\bbauen\b|\bbaut\b|\bbouwen\b|\bbreiden\b|\bconstruimos\b|\bestamos (?:construyendo|ampliando)\b|\bconstruisons\b|\bagrandissons\b|\berweitern\b|\bbudujemy\b/.test(
      folded,
    );
  if (day !== null) return day < since ? [] : [{ value: true, score: 4 + (GROUND.test(folded) ? 1 : 0), said, date: day }];
  // A sentence without a day is of the day of its page.
  if (said.date !== null)
    return said.date < since ? [] : [{ value: true, score: 3.5 + (GROUND.test(folded) ? 1 : 0), said, date: said.date }];
  if (FORMER.test(folded) || (DONE_WITHOUT_DAY.test(folded) && !planned)) return [];
  if (planned) return [{ value: true, score: 3 + (GROUND.test(folded) ? 1 : 0), said, date: null }];
  return grows && GROUND.test(folded) && !/\b(?:built|gebaut|gebouwd)\b/.test(folded) ? [{ value: true, score: 2, said, date: null }] : [];
}

/** The latest day a sentence speaks of; a whole year counts with its last day, but not beyond today for what is done. */
function lastDay(folded: string, readOn: Instant, now: Instant): Instant | null {
  const dates: readonly When[] = datesIn(folded, readOn);
  if (dates.length === 0) return null;
  return Math.max(
    ...dates.map((date) => (date.grain === 'year' && date.start <= now ? Math.min(date.end, Math.max(now, date.start)) : date.end)),
  );
}
