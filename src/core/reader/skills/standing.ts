/**
 * How a sentence stands to the present and to whom it speaks of: folded words of en, de, nl, es, fr, it and pl that make a
 * statement one about the past, about plans, about somebody else, a wish, or a denial.
 */

const any = (...words: readonly string[]): RegExp => new RegExp(`\\b(?:${words.join('|')})\\b`);

/** “No”, in whatever form it takes; “No. of rooms” and “non-smokers” are none. */
export const NOT = any(
  "no(?!\\. ?(?:of|\\d|[a-z]{1,4}-?\\d))|not(?! only| just)|none|never|neither|nor|without|nobody|no one|nothing|cannot|\\w+n't",
  'kein|keine|keinen|keinem|keiner|keinerlei|nicht(?! nur)|nie|niemals|niemand|ohne|weder',
  'geen|niet(?! alleen)|nooit|niemand|zonder',
  'ningun|ninguna|nunca|nadie|sin|tampoco|no hay|no tenemos',
  "pas(?! seulement)|aucun|aucune|sans|jamais|personne ne|n'avons|n'est",
  'non(?!-)|nessun|nessuna|senza|mai',
  'nie|bez|zaden|zadnych|brak',
);

export const FORMER = any(
  'until (?:then|19\\d\\d|20\\d\\d|last|recently)|till (?:19|20)\\d\\d|formerly|previously|former|used to|back then|in those days|at that time|started (?:out )?with|began with|opened with|once (?:had|used|was|were)|no longer|before that|were sold|was sold|sold off|demolished|pulled down|gave up|given up|closed down',
  'bis (?:(?:zum jahr|ende|anfang) )?(?:19|20)\\d\\d|fruher|ehemals|ehemalige[nrs]?|damals|begann(?:en)? (?:\\w+ )?mit|fing(?:en)? (?:\\w+ )?mit|startete[n]? mit|nicht mehr|einst|verkauft|abgerissen|stillgelegt|aufgegeben',
  'tot (?:19|20)\\d\\d|vroeger|voorheen|destijds|toen nog|begon(?:nen)? (?:\\w+ )?met|startten met|niet meer|verkocht|gesloopt',
  'hasta (?:19|20)\\d\\d|antes|antiguamente|antiguo|antigua|empez(?:o|amos|aron) con|comenz(?:o|amos|aron) con|ya no|vendimos|vendido',
  "jusqu'en|autrefois|auparavant|a l'epoque|anciens?|ancienne|(?:avons |a )?commence avec|(?:avons |a )?debute avec|ne \\w+ plus|vendu",
  'fino al|un tempo|in passato|abbiamo iniziato con|non piu',
  'dawniej|kiedys|do (?:19|20)\\d\\d roku|zaczynalismy od|juz nie',
);

export const PLANNED = any(
  "will|'ll|shall|plans?|planned|planning|intends?|intend to|about to|going to|are to|is to|soon|by 20(?:2[7-9]|3\\d)|under construction|aim to|due to|expected",
  'geplant|planen|planung|kunftig|demnachst|bald|vorgesehen|im bau|entsteht|entstehen|soll|sollen',
  'zal|zullen|gepland|plannen|binnenkort|in aanbouw|komt er|komen er|er komt|er komen',
  'sera|seran|planea|planeamos|prevemos|prevista|previsto|proximamente|en construccion|ampliaremos|construiremos|vamos a|tendremos|entrara|entraran',
  'sera|seront|prevu|prevue|prevoyons|allons|bientot|en construction|agrandirons|construirons',
  'sara|previsto|presto|in costruzione|costruiremo',
  'bedzie|beda|planujemy|planowana|wkrotce|w budowie',
);

/** Wishes and mere thoughts: nothing was said to happen. */
export const WISHED = any(
  'would like|would love|might|may one day|one day|perhaps|maybe|dream(?:s|ing)? of|consider(?:s|ing)?|thinking (?:of|about)|if (?:the|we|all)|could|hope to|saving (?:up )?for|working towards|hop(?:e|ing) for|wish list|fundraising|what we lack|still lack|whether|rumou?rs?|should (?:the|we)',
  'wurden gern|mochten|vielleicht|eines tages|irgendwann|uberlegen|erwagen|traumen|sparen (?:wir )?(?:auf|fur)|arbeiten (?:wir )?(?:daran|auf)|wenn|falls|konnten|hoffen|ob',
  'zouden graag|misschien|ooit|overwegen|dromen|sparen (?:we |wij )?voor|werken (?:we |wij )?aan|als het|indien|hopen',
  'nos gustaria|quiza|quizas|tal vez|algun dia|estudiamos|sonamos|ahorramos para|trabajamos para|si el|si la|ojala',
  'aimerions|peut-etre|un jour|envisageons|revons|economisons pour|travaillons a|reflechissons|si le|si la|esperons',
  'vorremmo|forse|un giorno|se il',
  'chcielibysmy|moze|kiedys|jesli',
);

/** What one strives for one does not have. */
export const ASPIRES = any(
  'saving (?:up )?for|working towards|not yet|still lack\\w*|dream(?:s|ing)? of|hop(?:e|es|ing) (?:to|for)|we miss',
  'sparen|noch nicht|noch kein\\w*|arbeiten (?:wir )?(?:daran|auf)|traumen',
  'nog niet|nog geen|werken (?:we |wij )?aan|dromen',
  'todavia no|aun no|ahorramos|sonamos|trabajamos para',
  'pas encore|economisons|revons|travaillons a',
);

/** Put off or called off. */
export const DROPPED = any(
  'postponed|cancelled|canceled|called off|on hold|shelved|withdrawn|abandoned|put off|dropped|rejected|refused',
  'verschoben|abgesagt|gestoppt|zuruckgestellt|aufgegeben|eingestellt|abgelehnt|auf eis',
  'uitgesteld|afgeblazen|geannuleerd|stopgezet|ingetrokken|afgewezen|in de ijskast',
  'aplazad[oa]|cancelad[oa]|suspendid[oa]|descartad[oa]|pospuest[oa]|rechazad[oa]',
  'reporte|reportee|annule|annulee|abandonne|abandonnee|suspendu|suspendue|refuse|refusee',
  'rinviat[oa]|annullat[oa]|odlozon[ay]|anulowan[ay]',
);

/** What was there has come to an end. */
export const ENDED = any(
  'ended|expired|lapsed|ran out|was lost|discontinued|stopped|closed|no longer|not (?:been )?renewed|(?:is|are|was|were|been) (?:gone|scrapped|swapped out|taken out|thrown out|replaced|retired|dismantled)',
  '(?:ist|sind|wurde|wurden) (?:weg|verschrottet|ersetzt|ausgebaut|abgebaut)|abgegeben|eingestellt|ausgelaufen|abgelaufen|erloschen|endete|beendet|nicht mehr|nicht verlangert',
  'gestopt|verlopen|beeindigd|afgelopen|niet meer|niet verlengd|(?:is|zijn|werd|werden) (?:weg|vervangen|gesloopt|afgevoerd)',
  'caduc[oa]\\w*|vencid[oa]|termino|finalizo|ya no|no (?:se )?renov\\w*|dejamos|(?:fue|fueron|ha sido) (?:sustituid[oa]s?|retirad[oa]s?|reemplazad[oa]s?)',
  "expire\\w*|termine\\w*|echu|arrete\\w*|n'est plus|(?:a|ont) ete (?:remplace|retire|demonte)\\w*|non renouvele\\w*",
);

/** Somebody else is spoken of. */
export const OTHERS = any(
  "customers?|clients?|neighbou?rs?|neighbou?r's|neighbou?ring|next door|suppliers?|competitors?|members?|partners?|partner \\w+|sister (?:firm|company|house|site|business)|subsidiary|our parent|parent company|other people's|somebody else's|privately owned|belongs? to (?:a|an|the|our) (?!firm\\b|company\\b|house\\b)|rent(?:ed|s)?|hired? (?:from|by)|borrow(?:ed)?|on loan|shared with|the region|region's|the industry|the sector|the county|country|nationwide|on average|typical|visited|colleagues (?:at|in)|two doors down|up the road|round the corner|friends from|elsewhere|(?:a|an|another|some) (?:\\w+ ){1,5}who|a friend|our friends|friends of ours|for others",
  'kunden|kundin|nachbar\\w*|nebenan|lieferant\\w*|mitglied\\w*|partner\\w*|schwester\\w*|tochter(?:firma|gesellschaft)|muttergesellschaft|fremde[nrsm]?|privat\\w*|(?:an)?gemietet\\w*|mieten|anmieten|geliehen|mitnutzen|branche|bundesweit|durchschnitt\\w*|wettbewerb\\w*|mitbewerb\\w*|landkreis|andere[nr]? betriebe?|besuchten|kollegen|anderswo|andernorts|unsere freunde|befreundet\\w*',
  'klant(?:en)?|buurman|buren|buurbedrijf|leverancier\\w*|leden|partner\\w*|zuster\\w*|dochterbedrijf|moederbedrijf|particulier\\w*|gehuurd|huren|geleend|gedeeld met|de sector|gemiddeld\\w*|concurrent\\w*|regio|bezochten|collega\\w*|elders',
  'clientes?|vecin[oa]s?|proveedor\\w*|socios|socio|filial|matriz|hermana|ajen[oa]s?|alquil\\w+|prestad[oa]s?|compartid[oa]s?|el sector|la comarca|provincia|media nacional|competidor\\w*|visitamos|nuestros amigos|en otr[oa]s? (?:lugar|sitio|parte)\\w*',
  'nos clients?|clients?|voisins?|voisine|fournisseurs?|adherents?|partenaires?|filiale|maison soeur|societe soeur|nos amis|particuliers?|lou(?:e|es|ons|ee|ees)|prete[es]*|partage[es]*|le secteur|la region|moyenne|concurrents?|visite chez|confreres?|proprietaires?|ailleurs',
  'clienti|vicin[oi]|fornitor\\w*|soci|klienci|klientow|sasiad\\w*|dostawc\\w*',
);

/** Held in reserve, not what is asked for. */
export const RESERVE = any(
  'back-?up|stand-?by|reserve|emergency|peak|peaks|only when|top up',
  'reserve|notfall|spitzenlast|ersatz|nur bei|absicherung',
  'reserve|nood|back-?up|piek|alleen bij|achtervang',
  'reserva|emergencia|respaldo|apoyo|picos',
  'secours|appoint|reserve|pointe',
  'riserva|emergenza|rezerw\\w*|awaryjn\\w*',
);

/** The greater part. */
export const MAIN = any(
  'main|mainly|chiefly|primarily|mostly|most of|principal|core|primary|specialis\\w*|specializ\\w*|above all|flagship|largest|number one|delivers most|gives most|known for|heart of|half (?:of )?(?:our|the)|two thirds|three quarters',
  'haupt\\w*|vor allem|uberwiegend|vorwiegend|spezialis\\w*|hauptsachlich|schwerpunkt|in erster linie|wichtigste[nrs]?|grosste[nrs]?|herzstuck|halfte|drei viertel|das meiste',
  'hoofd\\w*|vooral|voornamelijk|gespecialiseerd|specialist|belangrijkste|met name|grootste|het meeste',
  'principal\\w*|sobre todo|especializad\\w*|especialistas?|mayoria|mayor parte|ante todo|la mitad',
  'principal\\w*|surtout|specialis\\w*|avant tout|essentiellement|la plupart|la moitie',
  'principal\\w*|soprattutto|specializzat\\w*|glownie|glown\\w*|specjaliz\\w*',
);

/** Words to a machine that reads, in several languages: whatever stands with them is no statement of the firm. */
const TO_MACHINES = new RegExp(
  [
    '\\b(?:ignore|disregard|forget|override|bypass)\\b.{0,40}\\b(?:instructions?|prompts?|(?:your|previous|prior|all|these|those|above) (?:\\w+ )?(?:rules?|guidelines|context|text)|everything (?:above|before|else)|the above)',
    '\\b(?:ignorier\\w*|vergiss|missachte)\\b.{0,40}\\b(?:anweisung\\w*|vorgaben|regeln|bisherig\\w*|alles)',
    '\\b(?:negeer|vergeet)\\b.{0,40}\\b(?:instructies|opdrachten|regels|alles|vorige|bovenstaande)',
    '\\b(?:ignora|olvida|descarta)\\w*\\b.{0,40}\\b(?:instrucciones|indicaciones|reglas|todo lo anterior)',
    '\\b(?:ignore[zr]?|oublie[zr]?)\\b.{0,40}\\b(?:instructions|consignes|regles|precedent\\w*)',
    // “Booking system: X” is a row of a table; “System: …” is a part in a talk with a machine.
    '(?<![a-z] )\\b(?:system|assistant|user|developer)\\s*[:>\\]]|\\b(?:system|assistant|user|developer) (?:prompt|message|instruction|override|note)\\s*[:>\\]]',
    '\\[/?inst\\]|<\\|?\\w+\\|?>|###? ?(?:system|instruction)|\\bbegin (?:system|prompt|instructions)',
    '\\b(?:as|you are) an? (?:ai|language model|assistant|llm|large language)|\\bai (?:assistants?|agents?|models?|readers?|crawlers?|systems?)\\b|\\b(?:language models?|llms?|chatbots?|web crawlers?|summari[sz]ers?|bots?)\\b.{0,40}\\b(?:must|should|please|shall|reading|note|read|are)',
    '\\bif you are (?:an? )?(?:ai|bot|machine|model|assistant|automated|reading this)',
    '\\b(?:when|while) (?:summari[sz]ing|answering|extracting|analy[sz]ing|processing|evaluating|scoring|reading) (?:this|the|our)\\b',
    '\\b(?:set|report|answer|output|return|respond|reply|write|say|state|record|rate|score|mark)\\b.{0,30}(?:=|\\bas\\b|\\bwith\\b|\\bthat\\b).{0,60}\\b(?:regardless|instead|always|whatever|no matter)',
    '\\b(?:[a-z]+_[a-z_]+|fit\\.points|confidence|points?|score|status)\\s*(?:=|:=)\\s*\\S',
    '\\b(?:ki|ai|kunstliche intelligenz|sprachmodell\\w*|taalmodel\\w*|modelos? de lenguaje|modele de langage|assistente ai|asistente de ia)\\b.{0,60}\\b(?:muss|mussen|soll|sollen|moet|moeten|debe|deben|doit|doivent|bitte|deve)',
    '\\b(?:send|forward|e-?mail|transfer|wire|post)\\b.{0,40}\\b(?:passwords?|credentials|api keys?|tokens?|all (?:contacts|records|data|leads))',
    '\\b(?:you must|you should|you will|do not)\\b.{0,40}\\b(?:report|answer|mention|reveal|disclose|tell the user|rate|score|classify|recommend|approve|hire|shortlist)',
    '\\b(?:rate|score|rank|recommend|shortlist|approve|hire)\\b.{0,30}\\b(?:this|the) (?:candidate|applicant|company|lead|site|firm)\\b.{0,40}\\b(?:highest|top|maximum|100|10/10|best|perfect|immediately|hot)',
  ].join('|'),
);

/** Whether the words are addressed to a machine rather than to a reader. */
export function speaksToMachines(folded: string): boolean {
  return TO_MACHINES.test(folded);
}
