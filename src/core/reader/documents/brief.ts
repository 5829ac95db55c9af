import type { Instant } from '../../base';
import type { DocumentPart } from '../../flow/syntax';
import { sentencesOf } from '../sentences';
import { datesIn, isoOf } from '../skills/dates';
import { moneyIn } from '../skills/quantities';
import { documentLines, evenFold, plainFold, type DocumentLine, type Sections } from './lines';
import { nothing, picked, type Picked } from './picked';

const SECTIONS: Sections = {
  requirements:
    '(?:technical |main |our |functional )?(?:requirements?|scope(?: of (?:work|works|supply))?|specification|what we need|what is needed|needs|wishes|deliverables)|anforderungen|leistungsumfang|lastenheft|was wir brauchen|eisen|wensen|pakket van eisen|wat wij nodig hebben|requisitos|alcance|que necesitamos|exigences|besoins|cahier des charges',
  budget: 'budget|price|costs?|kosten|kostenrahmen|preis|presupuesto|prix|cout',
  deadline:
    'dates?|deadlines?|timing|time ?(?:line|table|frame)|schedule|termine?|zeitplan|fristen|planning|plazos?|calendario|delais?|calendrier',
  other:
    'background|introduction|about (?:us|the project)|situation|ausgangslage|hintergrund|achtergrond|inleiding|contexto|contexte|contact|kontakt|appendix|anhang',
};

const NEEDS =
  /\b(?:must|shall|should|need(?:s|ed)?(?: to)?|requires?|required|want(?:s)?|has to|have to|is to be|are to be|muss|mussen|soll(?:en)?|benotig\w*|brauchen|moet(?:en)?|nodig|wensen|willen|debe[n]?|necesita\w*|requiere\w*|queremos|doit|doivent|besoin|souhait\w*|exige\w*|il faut)\b/;
const BUDGET =
  /budget|spend|afford|cost|price|worth|funds|up to|at most|kosten|preis|rahmen|ausgeben|hochstens|maximal|prijs|besteden|presupuesto|precio|gastar|coste|prix|cout|montant|grant|subsid|forder/;
const DEADLINE =
  /\b(?:by|before|no later than|not later than|deadline|until|ready|running|finished|complete[d]?|in operation|handover|go live|due|bis|spatestens|fertig|betriebsbereit|inbetriebnahme|voor|uiterlijk|klaar|gereed|antes de(?:l)?|a mas tardar|listo|plazo|avant|au plus tard|pret|termine|submit(?:ted)?|tender closes|offers?)\b/;

const OFFERS = /\b(?:offers?|quotes?|quotations?|tenders?|angebote?|offertes?|ofertas?|offres?|submit\w*|questions?|site visit)\b/;

/** What makes a project harder than others, by the folded words that give it away. */
const SIGNS: readonly (readonly [string, RegExp])[] = [
  [
    'several sites',
    /\b(?:two|three|four|five|six|\d+|several|both|all|zwei|drei|mehrere|twee|drie|dos|tres|varios|deux|trois|plusieurs) (?:\w+ )?(?:sites?|locations?|branches|premises|standorte|betriebe|locaties|vestigingen|sedes|centros|emplacements)\b/,
  ],
  [
    'existing equipment stays',
    /\b(?:existing|present|current|old|bestehende\w*|vorhandene\w*|bestaande|existente\w*|existant\w*)\b.{0,60}\b(?:keep|kept|stay|reuse[d]?|remain|integrat\w*|connect\w*|take over|bleib\w*|ubern\w*|einbind\w*|blijven|behouden|koppel\w*|mantener|integrar|conserv\w*|raccord\w*)|\b(?:integrat\w*|connect(?:ed)? to|link(?:ed)? to|einbind\w*|anbind\w*|koppel\w*|integrar|raccord\w*)\b.{0,60}\b(?:existing|present|old|bestehend\w*|vorhanden\w*|bestaande|existente\w*|existant\w*)/,
  ],
  [
    'interfaces to other systems',
    /\b(?:modbus|bacnet|opc(?: ?ua)?|mqtt|profinet|profibus|knx|api|interface|schnittstelle\w*|koppeling\w*|interfaz|interfaces)\b/,
  ],
  [
    'their work goes on meanwhile',
    /\b(?:while|without|during)\b.{0,40}\b(?:production|operations?|working|interrupt\w*|stopping)|\b(?:bei laufendem betrieb|ohne unterbrechung|lopend bedrijf|lopende productie|zonder onderbreking|sin parar|sin interrumpir|sans interruption|sans arreter)/,
  ],
  [
    'public tender',
    /\b(?:public tender|call for tenders?|procurement|ausschreibung|vergabe|aanbesteding|licitacion|appel d'offres|marche public)\b/,
  ],
  ['listed or old building', /\b(?:listed|heritage|protected) (?:building|house)|denkmal\w*|monument(?:aal|enzorg)?|patrimonio|patrimoine/],
  [
    'work at night or weekends',
    /\b(?:night|nights|weekend|weekends|out of hours|nachts|wochenende\w*|'s nachts|fin(?:es)? de semana|noche|nuit|week-end)\b/,
  ],
  ['penalties', /\b(?:penalt\w*|liquidated damages|vertragsstrafe\w*|boete\w*|penalizacion\w*|penalites?)\b/],
  [
    'further parties at the site',
    /\b(?:other contractors?|main contractor|architect\w*|consultant|generalunternehmer|architekt\w*|planungsburo|aannemer|arquitect\w*|contratista|maitre d'œuvre|bureau d'etudes)\b/,
  ],
];

/** What a project asks for, by its papers. */
export function pickBrief(text: string, now: Instant): Readonly<Record<DocumentPart<'brief'>, Picked>> {
  const lines = documentLines(text, SECTIONS);
  const sentences = lines.flatMap((line) =>
    sentencesOf(line.text).map((said) => ({ ...line, text: said, folded: plainFold(said), even: evenFold(said) })),
  );
  return {
    requirements: requirementsOf(sentences),
    budget: budgetOf(sentences),
    deadline: deadlineOf(sentences, now),
    complexity: complexityOf(sentences),
  };
}

const REQUIREMENTS_MAX = 20;

function requirementsOf(lines: readonly DocumentLine[]): Picked {
  const found = lines
    .filter((line) => (line.section === 'requirements' ? line.text.length > 3 : NEEDS.test(line.folded) && !/\?$/.test(line.text)))
    .filter((line) => line.text.length <= 240)
    .slice(0, REQUIREMENTS_MAX);
  return found.length === 0
    ? nothing()
    : picked(found.map((line) => line.text.replace(/[.;,]$/, '')).join('; '), found.map((line) => line.text).join(' … '), 0.8);
}

function budgetOf(lines: readonly DocumentLine[]): Picked {
  for (const line of lines) {
    const sums = moneyIn(line.even);
    const [first] = sums;
    const last = sums.at(-1);
    if (!first || !last || !(line.section === 'budget' || BUDGET.test(line.folded))) continue;
    // The words from the first sum to the last: “20,000 to 30,000 €”.
    const from = /[\d.,' ]{0,30}\d ?(?:k|€|eur)? ?(?:-|–|to|and|bis|und|tot|en|a|y|et) ?$/.exec(line.even.slice(0, first.from));
    const unit = /^ ?(?:€|eur\b|euros?|£|gbp|pounds?|chf)/.exec(line.even.slice(last.to))?.[0] ?? '';
    const sign = /[€£$] ?$/.exec(line.even.slice(0, from?.index ?? first.from))?.[0] ?? '';
    return picked(line.text.slice((from?.index ?? first.from) - sign.length, last.to + unit.length).trim(), line.text, 0.85);
  }
  return nothing();
}

function deadlineOf(lines: readonly DocumentLine[], now: Instant): Picked {
  const dated = lines.flatMap((line) => {
    const when = datesIn(line.folded, now).find((date) => date.end > now);
    return when && (line.section === 'deadline' || DEADLINE.test(line.folded)) ? [{ line, when }] : [];
  });
  // When it has to stand counts before the day offers are due.
  const [soonest] = dated.sort(
    (a, b) => Number(OFFERS.test(a.line.folded)) - Number(OFFERS.test(b.line.folded)) || a.when.start - b.when.start,
  );
  return soonest ? picked(isoOf(soonest.when), soonest.line.text, 0.8) : nothing();
}

function complexityOf(lines: readonly DocumentLine[]): Picked {
  const signs = SIGNS.flatMap(([sign, words]) => {
    const line = lines.find((entry) => words.test(entry.folded));
    return line ? [{ sign, line }] : [];
  });
  return signs.length === 0
    ? nothing()
    : picked(signs.map((entry) => entry.sign).join(', '), [...new Set(signs.map((entry) => entry.line.text))].join(' … '), 0.75);
}
