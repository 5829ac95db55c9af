import type { Sections } from '../lines';

/** What heads the parts of a brief in en, de, nl, es and fr, folded, without its number. */
export const BRIEF_SECTIONS: Sections = {
  requirements:
    "(?:technical |main |our |functional |minimum |mandatory |detailed )?(?:requirements?|specifications?)(?: and wishes)?|scope of (?:work|works|supply|delivery)|what (?:we (?:need|want|are looking for|expect)|is needed|it (?:must|should) do|you (?:will )?deliver)|(?:our )?needs(?: and wishes)?|must(?: |-)haves?|musts?|deliverables|tasks|(?:technische |unsere )?anforderungen(?: an .{3,30})?|leistungs(?:umfang|beschreibung|verzeichnis)|lastenheft|pflichten(?:heft)?|was (?:wir (?:brauchen|wollen|suchen|erwarten)|gebraucht wird|sie leisten sollen)|umfang|forderungen|aufgaben|(?:pakket van |technische )?eisen(?: en wensen)?|wat (?:wij|we) (?:nodig hebben|willen|vragen|zoeken)|omvang|opdracht|(?:requisitos|requerimientos|exigencias)(?: tecnicos)?|alcance(?: de los trabajos)?|(?:lo )?que (?:necesitamos|queremos|pedimos|buscamos)|necesidades|pliego|(?:nos )?(?:exigences|besoins|attentes)(?: techniques)?|cahier des charges|ce (?:qu'il nous faut|que nous (?:voulons|cherchons|attendons))|prestations(?: attendues)?|perimetre|travaux(?: demandes)?",
  wishes:
    'wishes|nice to have|optional|desirable|options?|wunsche|wunschenswert|optionen|wensen|gewenst|deseable|deseos|opcional|souhaits|souhaitable|en option',
  excluded:
    '(?:expressly |explicitly )?(?:not (?:wanted|included|part of (?:this|it)|required|needed)|excluded|exclusions|out of scope|what we do not want)|nicht (?:gewunscht|gewollt|enthalten|teil .{3,30})|was wir nicht wollen|ausschlusse|niet (?:gewenst|inbegrepen|nodig)|wat wij niet willen|uitsluitingen|(?:lo que )?no (?:queremos|incluido|deseado)|exclusiones|(?:ce que nous ne voulons pas|non (?:souhaite|compris|inclus)|exclusions?)',
  budget:
    'budgets?|(?:target )?price|costs?|money|financ(?:e|es|ing)|kosten(?:rahmen)?|preis|budgetrahmen|finanzierung|geld|prijs|presupuesto|precio|financiacion|prix|couts?|financement|enveloppe',
  deadline:
    'dates?|deadlines?|timing|time ?(?:line|table|frame)|schedule|milestones|termine?|zeitplan|fristen|zeitrahmen|ablauf|planning|termijn(?:en)?|plazos?(?: de .{3,20})?|calendario|fechas|delais?|calendrier|echeances?|dates cles',
  decision:
    'decision|who decides|how (?:offers|we) (?:are compared|decide|choose)|award|evaluation|entscheidung|vergabe|wer entscheidet|besluit(?:vorming)?|beslissing|beoordeling|decision|quien decide|adjudicacion|decisions?|qui decide|choix|jugement des offres',
  contact:
    'contact(?: person| details)?|questions|kontakt|ansprechpartner(?:in)?|ruckfragen|contactpersoon|contacto|persona de contacto|interlocuteur',
  other:
    'background|introduction|purpose|about (?:us|the (?:project|company))|the (?:site|company|business|project)|(?:current |present )?situation|present .{3,30}|current .{3,30}|challenges?|difficulties|things to (?:know|watch)|conditions|constraints|scope|ausgangslage|ausgangssituation|hintergrund|einleitung|der betrieb|betrieb|bestand|besonderheiten|randbedingungen|rahmenbedingungen|bedingungen|achtergrond|inleiding|(?:het )?bedrijf|huidige situatie|aandachtspunten|voorwaarden|bijzonderheden|contexto|introduccion|antecedentes|la empresa|situacion actual|condiciones|particularidades|dificultades|contexte|presentation|introduction|situation actuelle|existant|contraintes|conditions|difficultes|appendix.*|anhang.*|bijlage.*|anexo.*|annexe.*',
};
