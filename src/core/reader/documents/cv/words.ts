/** Words that tell one thing on a CV from another, folded; en, de, nl, es and fr. */

/** What a job is called: to tell the role from the employer. */
export const ROLE =
  /technici?an|techniker|technicien|tecnic[oa]|engineer|ingenieur|ingenier[oa]|fitter|electrician|elektriker|elektronik|electricist|electricien|elektricien|monteur|mechatroni|mechani[ck]|mecanic|manager|leiter|leitung|assisten|apprentice|auszubildende|azubi|aprendiz|apprenti|leerling|officer|consultant|berater|developer|programmer|programmier|operat[oe]u?r|operari[oa]|supervisor|foreman|forewoman|meister|\bchef|\bchief|jef[ea]\b|encargad|trainee|intern\b|praktik|stagiair|\bstage\b|specialist|planner|planer|sales|verk(?:auf|oop|oper)|installat?eu?r|instalador|service desk|advis[eo]r|adviseur|asesor|teacher|lehrer|leraar|docent|profesor|enseignant|professeur|driver|fahrer|chauffeur|conductor|worker|arbeiter|werker|\bhand\b|hilfe\b|helfer|responsable|coordinat|koordinat|inspect|surveyor|welder|schweiss|lasser|soldador|soudeur|plumber|carpenter|joiner|painter|maler|tischler|nurse|pflege|carer|verpleeg|enfermer|infirmi|cook\b|koch\b|\bkok\b|cociner|cuisinier|waiter|kellner|camarer|serveu|clerk|sachbearbeit|medewerk|kaufmann|kauffrau|secretar|sekretar|accountant|buchhalt|boekhoud|contable|comptable|analyst|designer|architect|director|direct(?:eur|rice)|head of|\blead(?:er)?\b|steller\b|bediener|lagerist|magazijn|almacen|magasinier|warehouse|gardener|gartner|tuinman|jardiner|jardinier|owner|inhaber|eigenaar|founder|buyer|agent|representative|vertreter|comercial|vendedor|vendeu|charge d|conseiller|tutor|lecturer|researcher|scientist|wissenschaft|onderzoek|investigador|chercheu|soldier|sergeant|volunteer|cleaner|reinig|receptionist|librarian|editor|journalist|freelanc|self-employed|selbststandig|zelfstandig|autonomo|independant|zzp|kraft\b|maat\b|voorman|werkvoorbereid|capataz|ouvrier|agente|eigenaresse|inhaberin|geschaftsfuhr|proprietaire|gerant|propietari|dueno|duena|proprietor|partner\b|president|chair|clerk of|voorzitter|penningmeester|chairm|chairw|treasurer|mayor|burgermeister|vorsitzend|schatzmeister|presidente|alcald|\bmaire\b|tresorier/;

export const FIRM =
  /\b(?:ltd|limited|plc|llp|llc|gmbh|ag|kg|ohg|e\.?k\.?|bv|b\.v\.|nv|n\.v\.|vof|s\.?l\.?u?|s\.?a\.?|sarl|sas|inc|co|company|group|gruppe|groep|grupo|groupe|holding|works|werke?|services|systems|contractors|stadtwerke|betrieb|bedrijf|ets|etablissements|talleres|hospital|klinik|ziekenhuis|council|university|school|college)\b\.?/;

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
