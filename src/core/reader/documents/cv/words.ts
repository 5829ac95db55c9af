/** Words that tell one thing on a CV from another, folded; en, de, nl, es and fr. */

export { JOB_WORDS as ROLE } from '../../../base';

export const FIRM =
  /\b(?:ltd|limited|plc|llp|llc|gmbh|ag|kg|ohg|e\.?k\.?|bv|b\.v\.|nv|n\.v\.|vof|s\.?l\.?u?|s\.?a\.?|sarl|sas|inc|co|company|group|gruppe|groep|grupo|groupe|holding|works|werke?|services|systems|contractors|stadtwerke|betrieb|bedrijf|ets|etablissements|talleres|council|university|school|college)\b\.?/;

/** Where one learns. */
export const SCHOOL =
  /college|university|universit|school\b|schule|academy|akademie|academi[ea]|institut|lycee|\bies\b|instituto|\broc\b|vakschool|hogeschool|hochschule|polytech|\biut\b|\bcfa\b|centro de formacion|centre de formation|kolleg|gymnasium|handwerkskammer|\bihk\b|\bcpd\b|training centre/;

/** Time that went to something else than work or training, and is said so. */
export const BREAK =
  /(?:career|family|work) break|(?:parental|maternity|paternity|sick|carer'?s?|unpaid) leave|elternzeit|mutterschutz|erziehungszeit|familienzeit|familienpause|kinderpause|auszeit|weltreise|arbeits(?:suchend|los)|krankheit\b|genesung|pflege (?:der|des|meiner|meines|von)|sabbatical|sabbatjahr|gap year|travell?ing|travels? (?:in|through|round)|unemployed|looking for work|between jobs|caring for|cared for|care of (?:my|a)|looking after|illness|recover|redundan|ouderschapsverlof|zorgverlof|mantelzorg|zorg voor|wereldreis|op reis|werkzoekend|tussen twee banen|thuis bij|excedencia|baja (?:por|de|maternal)|permiso (?:por|de) (?:maternidad|paternidad)|cuidado de|desempleo|en paro|ano sabatico|viaje (?:por|alrededor)|conge (?:parental|maternite|sabbatique|maladie)|recherche d'emploi|tour du monde|sans emploi|au foyer/;

/** Learning while one works, in a section of jobs. */
export const APPRENTICE =
  /\bapprentic|auszubildende|azubi|\blehre\b|ausbildung zu[rm]\b|leerling\b|aprendiz\b|\bapprentie?\b|alternance|\btraineeship\b|werkstudent|duales studium/;

export const UNFINISHED =
  /(?:not (?:finished|completed)|without (?:a )?degree|broken off|left without|dropped out|unfinished|incomplete|ohne abschluss|abgebrochen|nicht (?:abgeschlossen|beendet)|niet (?:afgerond|afgemaakt|voltooid)|zonder diploma|gestopt|sin terminar|no terminad[oa]|inacabad|sin titulo|interrump|non (?:acheve|termine)|inacheve|sans diplome|interrompu|in progress|ongoing|laufend|lopend|en curso|en cours)/;

export const BORN =
  /(?:date of birth|d\.?o\.?b\.?|born(?: on)?|geboren(?: am| op)?|geb\.|geburtsdatum|geboortedatum|nee? le|date de naissance|fecha de nacimiento|nacid[oa](?: el)?)\s*(?::\s*)?/;
