import type { Instant } from '../../base';
import { datesIn } from '../skills/dates';
import { FORMER, NOT, OTHERS, PLANNED, WISHED } from '../skills/standing';
import type { Candidate, Said } from '../said';

const ALL_YEAR =
  /all year|every month|year[- ]round|twelve months|all twelve|52 weeks|without a winter break|ganzjahrig|das ganze jahr|rund ums jahr|zwolf monate|jaarrond|het hele jaar|het gehele jaar|twaalf maanden|todo el ano|los doce meses|durante el ano entero|toute l'annee|douze mois|caly rok|przez caly|tutto l'anno|hele aret|aret runt/;
const SEASONAL =
  /seasonal|only from (?:january|february|march|april|may)|season (?:runs|lasts|starts)|(?:closed|empty|nothing grows|stand idle|rest) (?:in|over|during|through) (?:the )?winter|in winter (?:we are |the houses (?:are|stand) |everything (?:is|stands) )?(?:closed|empty|still)|from (?:march|april|may) to (?:september|october|november)|winter break|nur von (?:marz|april|mai)|von (?:marz|april|mai) bis (?:september|oktober|november)|im winter (?:\w+ ){0,3}(?:geschlossen|leer|still)|winterpause|alleen van (?:maart|april|mei)|van (?:maart|april|mei) tot (?:en met )?(?:september|oktober|november)|in de winter (?:\w+ ){0,3}(?:gesloten|leeg|stil)|winterstop|solo de (?:marzo|abril|mayo)|de (?:marzo|abril|mayo) a (?:septiembre|octubre|noviembre)|en invierno (?:\w+ ){0,3}(?:cerrad|vaci|parad)|de (?:mars|avril|mai) a (?:septembre|octobre|novembre)|en hiver (?:\w+ ){0,4}(?:ferme|vide)|saisonni|od (?:marca|kwietnia|maja) do/;
const VISITS =
  /\bshop\b|\bcafe\b|visit|\bopen\b|opening|tours?\b|office|phone|hofladen|geoffnet|offnungs|besuch|winkel|geopend|bezoek|tienda|abiert|visitas|horario|boutique|ouvert|visite|sklep|otwart|negozio|apert|deliver(?:y|ies) of|staff|employ/;

/** Whether they grow all year: said of the plants, not of a shop. */
export function allYear(said: Said): readonly Candidate[] {
  const { folded } = said;
  if (OTHERS.test(folded) || FORMER.test(folded) || WISHED.test(folded) || VISITS.test(folded)) return [];
  if (SEASONAL.test(folded)) return [{ value: false, score: 3.5, said, date: said.date }];
  if (!ALL_YEAR.test(folded) || PLANNED.test(folded)) return [];
  return [{ value: !NOT.test(folded), score: 3, said, date: said.date }];
}

const CONTRACT =
  /service contract|maintenance contract|service agreement|maintenance agreement|wartungsvertrag|servicevertrag|onderhoudscontract|servicecontract|onderhoudsovereenkomst|contrato de (?:mantenimiento|servicio)|umow[aey] serwisow|contrat (?:de maintenance|d'entretien|de service)|contratto di (?:manutenzione|assistenza)|serviceavtal|serviceaftale/;
const OFFERED =
  /\bwe (?:offer|sell|provide)|wir bieten|wij bieden|ofrecemos|nous proposons|offriamo|our customers|unsere kunden|onze klanten/;
const ENDED =
  /expired|ended|ran out|cancelled|terminated|lapsed|ausgelaufen|gekundigt|beendet|afgelopen|opgezegd|beeindigd|venci[od]|termin[oa]|rescindid|expire|resilie|scadut|disdett|wygas/;
/** Of lifts, lorries and the like. */
const NOT_CLIMATE =
  /lift|lorr|forklift|vehicles?|copier|printer|packing|phones?|cleaning|aufzug|stapler|fahrzeug|vrachtwagen|heftruck|carretilla|camion|chariot|vehicul/;

/** Whether somebody else already keeps their controls under contract. */
export function underContract(said: Said, now: Instant): readonly Candidate[] {
  const { folded } = said;
  if (!CONTRACT.test(folded) || OFFERED.test(folded) || NOT_CLIMATE.test(folded) || OTHERS.test(folded) || WISHED.test(folded)) return [];
  const ends = datesIn(folded, said.date ?? now);
  const over = ENDED.test(folded) && (ends.length === 0 || Math.min(...ends.map((date) => date.start)) <= now);
  if (over || FORMER.test(folded)) return [{ value: false, score: 3.5, said, date: said.date }];
  return [{ value: !NOT.test(folded), score: 3.5, said, date: said.date }];
}
