/** What makes a project harder than others, by the folded words that give it away; en, de, nl, es and fr. */
export const SIGNS: readonly (readonly [string, RegExp])[] = [
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
    /\b(?:while|without|during)\b.{0,40}\b(?:production|operations?|working|interrupt\w*|stopping)|\b(?:bei laufendem betrieb|im laufenden betrieb|lauft weiter|doorgewerkt|tijdens het werk|wahrend der arbeiten|pendant les travaux|durante las obras|every day of the year|all year round|rund um die uhr|around the clock|en pleine activite|toute l'annee|todo el ano|ohne unterbrechung|lopend bedrijf|lopende productie|zonder onderbreking|sin parar|sin interrumpir|sans interruption|sans arreter)/,
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
  [
    'penalties',
    /\b(?:penalt\w*|liquidated damages|for (?:every|each) (?:week|day) (?:of delay|late)|je woche verzug|per week vertraging|vertragsstrafe\w*|boete\w*|penalizacion\w*|penalites?)\b/,
  ],
  [
    'further parties at the site',
    /\b(?:other contractors?|main contractor|architect\w*|consultant|generalunternehmer|architekt\w*|planungsburo|aannemer|arquitect\w*|contratista|maitre d'œuvre|bureau d'etudes)\b/,
  ],
  [
    'something in the way that is dangerous or protected',
    /\b(?:asbest\w*|amiant\w*|contaminat\w*|kontaminier\w*|verontreinig\w*|contaminad\w*|pollue\w*|archaeolog\w*|roman|monument\w*|flood\w*|hochwasser|overstrom\w*|inunda\w*|inond\w*)\b/,
  ],
  [
    'drawings or papers are missing',
    /\b(?:no|not|without|missing|keine|fehlen|geen|ontbreken|sin|faltan|pas de|aucun)\b.{0,40}\b(?:drawings?|plans?|documentation|records|plane|zeichnungen|unterlagen|tekeningen|planos|documentacion|schemas|documents)\b/,
  ],
  [
    'times at which work is allowed',
    /\b(?:may|can) only\b|\b(?:kann|konnen|darf|durfen)\b.{0,12}\bnur\b|\b(?:kan|mag|mogen)\b.{0,12}\balleen\b|\bsolo (?:se )?pued\w+|\bonly be done\b|\b(?:nur|alleen|uitsluitend|solo|seulement|uniquement)\b.{0,40}\b(?:zwischen|tussen|entre|in der zeit|in de weken)\b|\boutside these times\b/,
  ],
  [
    'what must not be done there',
    /\b(?:must|may|shall) not\b|\bdarf (?:nicht|kein\w*)\b|\bmag (?:niet|geen)\b|\bno (?:se )?puede\b|\bne (?:doit|peut) pas\b|\bnothing \w+ may\b/,
  ],
  [
    'a weak or missing line to the outside',
    /\b(?:no|poor|weak|slow|bad|kein|schlecht\w*|geen|slecht\w*|sin|mala|pas d|mauvais\w*)\b.{0,20}\b(?:internet|network|signal|reception|netz\w*|empfang|verbinding|bereik|cobertura|reseau|connexion)\b|\bradio link\b|\bdrops out\b/,
  ],
  [
    'others have a say in it or a share of it',
    /\b(?:neighbour|neighbor|landlord|lessor|nachbar\w*|vermieter\w*|buurman|buren|verhuurder|vecino|arrendador|voisin|bailleur|notar\w*|notaris|notario|notaire|veto|co-owner|joint owner)\b/,
  ],
  [
    'rules of hygiene or safety',
    /\b(?:hygien\w*|clean ?room|sterile|protective clothing|overalls|schutzkleidung|quarantaine|quarantine|higien\w*)\b/,
  ],
  [
    'crossing roads, water or other land',
    /\b(?:under|across|below|unter|onder|bajo|sous)\b.{0,30}\b(?:road|river|canal|railway|strasse|fluss|bahn\w*|weg|rivier|kanaal|spoor|carretera|rio|via|route|riviere|voie)\b/,
  ],
];
