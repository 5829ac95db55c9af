import type { Instant } from '../../base';
import { figuresIn } from '../skills/figures';
import { quantitiesIn, type Quantity } from '../skills/quantities';
import { FORMER, OTHERS, PLANNED } from '../skills/standing';
import { pointsBack, rowOf, type Candidate, type Said } from '../said';

const GLASS =
  /glass|greenhous|\bglas|gewachsh|unter glas|hochglas|\bkas\b|\bkassen|kasoppervlak|glasopstand|invernader|vidrio|cristal|bajo cubierta|\bserres?\b|\bsous (?:verre|abri|serre)|verre|vetro|szklarni|drivhus|vaxthus|vertrieb unter glas/;
const HEAT =
  /(?<!un|un-)heat|(?<!un)beheiz|geheizt|(?<!on)verwarm|gestook|frost[- ]free|frostfrei|vorstvrij|hors[- ]gel|calefac|climatiz|(?<!non )chauff|riscald|ogrzew|opvarm|uppvarm/;
const ELSEWHERE =
  /unheated|without heat|not heated|\bcold (?:glass|house|frame)|\bfields?\b|\boutdoors?\b|\bgrown outside|\bha outside|outside the glass|open air|open ground|in the open|tunnel|plastic|\bfoil\b|\bfilm\b|\bcontainers?\b|\bland\b|\bestate\b|\bgrounds\b|site covers|premises|\bpark\b|\bgardens?\b|car ?park|packing|warehouse|\bstores?\b|\bshop\b|storage|\broofs?\b|solar|photovolt|reservoir|\bbasin\b|\bforest\b|woodland|\bwoods\b|freiland|unbeheizt|nicht beheizt|kaltgewachs|kaltglas|foli|grundstuck|gelande|lager|packhalle|dachflache|regenwasser|becken|onverwarmd|koude kas|koud glas|vollegrond|buiten|perceel|terrein|loods|waterbassin|aire libre|sin calefac|sin calentar|no climatiz|mallas?\b|plastico|parcela|terreno|finca de|almacen|balsa|plein champ|non chauff|froide?\b|exterieur|terrain|domaine|hangar|bassin|campo aperto|non riscald|pole\b|gruntow|nieogrzew|friland/;
const PLAIN_GLASS_ASKED = /heat|beheiz|verwarm|calefac|climatiz|chauff|riscald|ogrzew/;
/** Said outright, wherever in the sentence. */
const UNHEATED =
  /unheated|(?:without|no) heat|unbeheiz|nicht beheiz|ohne heiz|onverwarm|zonder verwarm|niet verwarm|sin calef|sin calent|no climatiz|non[- ]chauff|sans chauff|non riscald|nieogrzew/;
/** What is only being built is not there yet. */
const NEW_BUILT =
  /neubau|nieuwbouw|erweiterung|uitbreiding|ampliacion|agrandiss|\bextension\b|\bexpansion\b|under construction|spatenstich|\bnew (?:glass|greenhouse|block|bay|build)|neue[sn]? (?:\w+ )?gewachsh|nieuwe kas|nuevo invernadero|nouvelle serre|nuova serra|broke ground|\badditional\b|\bextra\b|zusatzlich|bijkomend|adicional|supplementaire|planning|application|approved|permission|genehmig|vergunning|licencia|permis de/;
const TOTAL =
  /\b(?:total|in all|altogether|overall|combined|insgesamt|gesamt\w*|zusammen|totaal|in totaal|samen|en total|au total|totale|lacznie|razem)\b/;
/** Of one house of several. */
const PART =
  /\b(?:house|haus|halle|kas|nave|modulo|serre|block|bay|range|abteilung|afdeling|compartment|compartiment|hal|szklarnia|unit|unidad|bloc)\s?(?:\d{1,2}|[a-h]|[ivx]{1,4})\b/;
/** A figure that comes on top of the one asked for: “a further 1.5 ha”. */
const MORE =
  /\b(?:further|another|additional|extra|extension of|expansion of|more|weitere[nrsm]?|zusatzliche[nrsm]?|um|nog eens|extra|bijkomende|uitbreiding (?:van|met)|otras?|adicional\w*|mas|ampliacion de|supplementaires?|autres?|extension de|altri|kolejn\w*|dodatkow\w*)\s+(?:\w+ )?$/;
const MORE_BEHIND = /^\s*(?:more|mehr|meer|mas|de plus|in piu|wiecej|extra|zusatzlich|adicionales|supplementaires)\b/;
const EACH = /^\S{0,20}\s{0,2}(?:\w{1,30} ){0,4}(?:each|apiece|jeweils|elk|ieder|cada un[oa]|chacune?|ciascun\w*)\b/;
const RANGE_BEFORE = /\d\s{0,3}(?:(?:ha|m²|m2|hectares?)\s{0,3})?(?:-|–|to|bis|tot|a|of|or|oder|und|ou|o)\s{0,3}$/;
const GROWTH_FROM = /\b(?:from|von|van|desde|de|da|z)\s*$/;
const GROWTH_TO = /^\s*(?:to|auf|naar|a|hasta|do)\b/;
const UP_TO =
  /\b(?:(?<!\badds? |\badding )up to|bis zu|maximal|tot wel|hasta|jusqu'a|less than|weniger als|minder dan|menos de|moins de|room for|space for|platz fur|ruimte voor)\s*$/;
const CUT =
  /[;:()]|,(?=\s)|\s(?:and|und|en|y|et|e|oraz|of which|davon|waarvan|dont|de los cuales|de las cuales|di cui|plus|sowie|besides|with|mit|met|con|avec|while|wahrend|terwijl|mientras|tandis que|but|aber|maar|pero|mais)(?=\s)/g;

/** “On 1.4 hectares we grow … The houses are heated …” */
const GROWN = /\bgrow\w*|\bzieh\w*|\bkultivier\w*|\bbau(?:t|en)\b|\btelen\b|\bkweken\b|\bcultiv\w*|\bproduc\w*|\bproduis\w*/;
const HEATED_HOUSES =
  /\b(?:houses|glasshouses|bays|hauser|gewachshauser|hallen|kassen|afdelingen|naves|invernaderos|serres)\b.{0,60}(?:heated|geheizt|beheizt|verwarmd|calefac|chauff)/;

const OLD_AFTER_YEARS = 6;
const YEAR_MS = 365.25 * 86_400_000;
const LARGEST_HA = 500;

/** The next sentence says it of the whole: “Every square metre of glass is heated.” */
const ALL_OF_IT = /^(?:every|all|everything|the whole|alle[sn]?|samtliche|het geheel|tout|toutes?|tod[oa]s?|tutt[oaei])\b/;
/** What may follow a figure whose unit was said before: “11 hectares of glass, 10 of them heated”. */
const BARE =
  /^\s*(?:of (?:it|them|which|these)|are|is|being|heated|unheated|under|in|davon|sind|stehen|beheizt|unbeheizt|unter|im|waarvan|zijn|staan|verwarmd|onverwarmd|onder|chauff\w*|non|sous|sont|en|estan|son|calef\w*|climatiz\w*|bajo|con|de (?:ellas|ellos|invernadero)|have|haben|hat|hebben|tienen|tiene|cuentan|dispon\w*|ont|possedent)(?![\p{L}\p{N}])/u;

/** The figures with their unit, and those behind them that go without saying it again. */
function withBare(folded: string, figures: readonly Quantity[]): readonly Quantity[] {
  const [first] = figures;
  if (!first) return figures;
  const factor = first.value / (figuresIn(folded.slice(first.from, first.to), true)[0]?.value ?? first.value);
  const most = Math.max(...figures.map((figure) => figure.value));
  const bare = figuresIn(folded, true)
    .filter((figure) => figure.from > first.end && !figures.some((other) => figure.from < other.end && other.from < figure.to))
    .filter((figure) => BARE.test(folded.slice(figure.to)) && !/^(?:19|20)\d\d$/.test(folded.slice(figure.from, figure.to)))
    .map((figure) => ({ ...figure, value: figure.value * factor, end: figure.to }))
    .filter((figure) => figure.value <= most);
  return [...figures, ...bare].sort((a, b) => a.from - b.from);
}

interface Clause {
  readonly from: number;
  readonly to: number;
}

function clausesOf(folded: string): readonly Clause[] {
  const cuts = [...folded.matchAll(CUT)].map((found) => found.index);
  return [0, ...cuts].map((from, i) => ({ from, to: cuts[i] ?? folded.length }));
}

/**
 * Areas under glass that a sentence states, in hectares. Every figure is judged by its own clause first: one sentence may hold
 * the whole estate and the heated part. Clauses without a figure belong to the figure before them, leading ones to the next.
 */
export function glassAreas(said: Said, wording: string, now: Instant): readonly Candidate[] {
  const { folded } = said;
  const figures = withBare(folded, quantitiesIn(folded, 'ha'));
  if (figures.length === 0) return [];
  const label = rowOf(said)?.label ?? '';
  const heatAsked = PLAIN_GLASS_ASKED.test(wording);
  const clauses = clausesOf(folded);
  const holds = (clause: Clause): boolean => figures.some((figure) => figure.from >= clause.from && figure.from < clause.to);
  const back = pointsBack(said);
  const around = `${said.under} ${back?.folded ?? ''}`;
  const old = said.date !== null && now - said.date > OLD_AFTER_YEARS * YEAR_MS;
  return figures.flatMap((figure): Candidate[] => {
    const at = clauses.findIndex((clause) => figure.from >= clause.from && figure.from < clause.to);
    const clause = clauses[at] ?? { from: 0, to: folded.length };
    // Several figures in one clause share it: each has what stands between its neighbours.
    const others = figures.filter((other) => other !== figure && other.from >= clause.from && other.from < clause.to);
    const from = Math.max(clause.from, ...others.filter((other) => other.from < figure.from).map((other) => other.end));
    const to = Math.min(clause.to, ...others.filter((other) => other.from > figure.from).map((other) => other.from));
    const own = `${label} ${folded.slice(from, to)}`;
    let attached = '';
    for (let i = at + 1; i < clauses.length; i++) {
      const next = clauses[i];
      if (!next || holds(next)) break;
      attached += folded.slice(next.from, next.to);
    }
    if (!clauses.slice(0, at).some(holds)) attached = folded.slice(0, clause.from) + attached;
    if (at === clauses.length - 1 && ALL_OF_IT.test(said.next)) attached += ` ${said.next}`;
    const before = folded.slice(0, figure.from);
    const after = folded.slice(figure.end);
    const heat = HEAT.test(own) ? 3 : HEAT.test(attached) ? 2 : HEAT.test(around) ? 1 : 0;
    const glass = GLASS.test(own) ? 2 : GLASS.test(attached) ? 1.5 : GLASS.test(around) ? 1 : 0;
    if (heat + glass < 2 && !(GROWN.test(own) && HEATED_HOUSES.test(said.next))) return [];
    if (UNHEATED.test(own + attached) || NEW_BUILT.test(own + attached)) return [];
    if (ELSEWHERE.test(own) || MORE.test(before) || MORE_BEHIND.test(after) || UP_TO.test(before) || EACH.test(after)) return [];
    // Part of the glass is cold, and how much remains is not said.
    if (heatAsked && heat < 3 && figures.length > 1 && UNHEATED.test(folded)) return [];
    if (FORMER.test(own) || OTHERS.test(folded) || PLANNED.test(own + attached)) return [];
    if (GROWTH_FROM.test(before) && GROWTH_TO.test(after)) return [];
    if (RANGE_BEFORE.test(before) && !/\b(?:from|von|van|desde|de)\s+[\d.,]+\s*(?:ha\s*)?(?:to|auf|naar|a)\s*$/.test(before)) return [];
    if (/^\s*(?:-|–|to|bis|tot)\s*\d/.test(after)) return [];
    if (figure.value <= 0 || figure.value > LARGEST_HA) return [];
    const part = PART.test(own) || PART.test(said.under) ? 3 : 0;
    const score =
      Math.max(0, 2 - heat - glass) +
      heat +
      glass +
      (TOTAL.test(own) ? 1.5 : 0) -
      part -
      (ELSEWHERE.test(attached) ? 1 : 0) -
      (old ? 2 : 0) -
      (heatAsked && heat === 0 ? 0.5 : 0);
    return score < 1.5 ? [] : [{ value: Math.round(figure.value * 100) / 100, score, said, date: said.date }];
  });
}
