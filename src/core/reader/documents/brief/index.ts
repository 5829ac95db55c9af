import type { Instant } from '../../../base';
import type { DocumentPart } from '../../../flow/syntax';
import { documentLines, type DocumentLine } from '../lines';
import { nothing, picked, type Picked } from '../picked';
import { deadlinesOf, mainOf, type Deadline } from './dates';
import { budgetOf, type Budget } from './money';
import { askerOf, decisionOf, type Asker, type Decision } from './people';
import { excludedOf, requirementsOf, type Requirement } from './requirements';
import { BRIEF_SECTIONS } from './sections';
import { sentencesIn, type Sentence } from './sentences';
import { SIGNS } from './signs';

export interface Sign {
  readonly sign: string;
  readonly quote: string;
}

/** All that is read of a brief. */
export interface Brief {
  /** false: it asks for nothing; then there is nothing but who wrote it */
  readonly isBrief: boolean;
  readonly requirements: readonly Requirement[];
  readonly excluded: readonly Requirement[];
  readonly budget: Budget | null;
  readonly deadlines: readonly Deadline[];
  readonly signs: readonly Sign[];
  readonly decision: Decision | null;
  readonly asker: Asker;
}

const NAMED_SO =
  /\b(?:tender|request for (?:proposals?|quotations?|offers?)|brief|statement of work|specification of requirements|terms of reference|ausschreibung|lastenheft|anfrage|leistungsverzeichnis|angebotsanfrage|programma van eisen|aanbesteding|offerteaanvraag|aanvraag|pliego|licitacion|solicitud de (?:oferta|presupuesto)|cahier des charges|appel d'offres|demande de devis|consultation)\b/;
/** Papers that look alike and ask for nothing. */
const OTHER_PAPER =
  /\b(?:newsletter|unsubscribe|minutes of|invoice|price list|our (?:prices|offer)|we (?:are pleased to )?offer you|press release|thank you for your (?:order|visit)|order confirmation|user manual|rechnung|preisliste|rundbrief|protokoll|pressemitteilung|unser angebot|bedienungsanleitung|factuur|prijslijst|nieuwsbrief|notulen|persbericht|handleiding|factura|tarifas?|boletin|acta de|nota de prensa|facture|tarif|lettre d'information|compte rendu|communique)\b/;

export function readBrief(text: string, now: Instant): Brief {
  const lines = documentLines(text, BRIEF_SECTIONS, true);
  const sentences = sentencesIn(lines);
  const requirements = requirementsOf(lines, sentences);
  const budget = budgetOf(sentences);
  const deadlines = deadlinesOf(sentences, now);
  const asker = askerOf(lines, sentences);
  if (!asks(lines, requirements, budget, deadlines))
    return { isBrief: false, requirements: [], excluded: [], budget: null, deadlines: [], signs: [], decision: null, asker };
  return {
    isBrief: true,
    requirements,
    excluded: excludedOf(lines, sentences),
    budget,
    deadlines,
    signs: signsOf(sentences),
    decision: decisionOf(sentences),
    asker,
  };
}

function asks(
  lines: readonly DocumentLine[],
  requirements: readonly Requirement[],
  budget: Budget | null,
  deadlines: readonly Deadline[],
): boolean {
  const head = lines
    .slice(0, 6)
    .map((line) => line.folded)
    .join(' \n ');
  const named = NAMED_SO.test(head);
  if (OTHER_PAPER.test(head) && !named) return false;
  const kinds =
    Number(requirements.length >= 2) +
    Number(budget !== null) +
    Number(deadlines.some(({ kind }) => kind === 'completion' || kind === 'offer'));
  const sections = lines.some((line) => line.section === 'requirements');
  return named || sections ? kinds >= 1 || requirements.length > 0 : kinds >= 2 || requirements.length >= 3;
}

/** A sign is shown with so many of the sentences that give it away. */
const SAID_MAX = 4;

function signsOf(sentences: readonly Sentence[]): readonly Sign[] {
  return SIGNS.flatMap(([sign, words]) => {
    return sentences
      .filter((entry) => words.test(entry.folded))
      .slice(0, SAID_MAX)
      .map((entry) => ({ sign, quote: entry.text }));
  });
}

/** What a project asks for, by its papers. */
export function pickBrief(text: string, now: Instant): Readonly<Record<DocumentPart<'brief'>, Picked>> {
  const brief = readBrief(text, now);
  const { requirements, budget, signs, asker, decision, excluded } = brief;
  const due = mainOf(brief.deadlines);
  const list = (all: readonly { readonly text: string; readonly quote: string }[], sure: number): Picked =>
    all.length === 0 ? nothing() : picked(all.map((entry) => entry.text).join('; '), all.map((entry) => entry.quote).join(' … '), sure);
  const contact = [asker.name, asker.role, asker.email, asker.phone].filter((part) => part !== null);
  return {
    requirements: list(requirements, 0.8),
    excluded: list(excluded, 0.75),
    budget: budget ? picked(budget.words, budget.quote, 0.85) : nothing(),
    deadline: due && due.iso !== null ? picked(due.iso, due.quote, 0.8) : nothing(),
    complexity:
      signs.length === 0
        ? nothing()
        : picked(
            [...new Set(signs.map((entry) => entry.sign))].join(', '),
            [...new Set(signs.map((entry) => entry.quote))].join(' … '),
            0.75,
          ),
    decision: decision ? picked(decision.quote, decision.quote, 0.75) : nothing(),
    contact: contact.length === 0 || asker.quote === null ? nothing() : picked(contact.join(', '), asker.quote, 0.8),
  };
}
