/** What tells one thing said in a talk from another, folded; en, de, nl, es and fr. */
const any = (...words: readonly string[]): RegExp => new RegExp(`(?<!\\p{L})(?:${words.join('|')})(?!\\p{L})`, 'u');

/** Our questions, by what they ask for. */
export const ASKS = {
  reason: any(
    'what (?:made|brings?|brought|led) you|why (?:did|do|are) you|what can (?:i|we) do|how can (?:i|we) help|what is it about|what happened',
    'was kann ich|was fuhrt sie|worum geht|warum (?:rufen|melden|haben)|wie kann ich',
    'wat kan ik|waarom (?:belt|heeft|wilt)|waar gaat het|hoe kan ik',
    'en que puedo|por que (?:llama|nos|ha)|que le trae|que ha pasado',
    "que puis-je|pourquoi (?:nous|vous|avez)|qu'est-ce qui vous amene|de quoi s'agit",
  ),
  goals: any(
    'what (?:should|must|do you want|would you like|do you need|are you looking for|do you expect|shall)|what (?:is|are) (?:it|they|the system) to do|should happen|so you (?:want|need)|you want',
    'was soll|was mochten|was brauchen|was wunschen|was erwarten|was muss|sie (?:mochten|wollen) also',
    'wat (?:moet|wilt|zoekt|verwacht|heeft u nodig)|u wilt dus',
    'que (?:quiere|necesita|busca|espera|deberia)|que tiene que|entonces quiere',
    'que (?:voulez|souhaitez|attendez|cherchez|doit)|de quoi avez|vous voulez donc',
  ),
  objections: any(
    '(?:what )?(?:could|might) (?:stand|get) in the way|hesitat\\w*|worr\\w+|concern\\w*|hold\\w* you back|what (?:makes|would make) you|doubts?|against it|stops? you',
    'bauchweh|bedenken|sorgen?|dagegen|zogern|hindert|im weg|zweifel',
    'bedenkingen|zorgen|aarzel\\w*|in de weg|twijfel\\w*|tegenhoud\\w*|houdt u tegen',
    'preocupa\\w*|dudas?|inconveniente|frena|impide|le hace dudar',
    'inquiet\\w*|craint\\w*|hesit\\w*|frein\\w*|reserves?|empeche\\w*|doutes?',
  ),
  outcome: any(
    'end of it|in your (?:own )?words|result|outcome|at the end|success',
    'am ende|ergebnis|ziel|erfolg',
    'aan het eind|resultaat|uiteindelijk',
    'al final|resultado|objetivo',
    'a la fin|resultat|au final|objectif',
  ),
  deadline: any(
    '(?:by )?when (?:do|would|should|must|does|is|will|shall|can)|how soon|deadline|by which date|what date',
    'bis wann|wann (?:muss|soll|brauchen|mochten|ware)|termin|frist',
    'wanneer (?:moet|wilt|heeft|zou)|tegen wanneer|voor wanneer|deadline',
    'para cuando|cuando (?:tiene|quiere|necesita|deberia)|fecha|plazo',
    'pour quand|quand (?:doit|voulez|faut|souhaitez)|delai|date limite|echeance',
  ),
  budget: any(
    '(?:thought of|have in mind) a sum|budget|how much (?:can|could|do|would|may)|spend|price range|figure in mind',
    'rahmen|budget|wie viel (?:darf|durfen|mochten|konnen)|ausgeben|preisvorstellung',
    'budget|hoeveel (?:mag|wilt|kunt)|bedrag|uitgeven',
    'presupuesto|cuanto (?:puede|quiere|piensa)|gastar',
    'budget|combien (?:pouvez|voulez|pensez)|enveloppe|depenser',
  ),
  decision: any(
    'who (?:signs|decides|else)|decide alone|do you decide|whose decision|who has the last word',
    'entscheiden sie|wer entscheidet|wer unterschreibt',
    'wie beslist|beslist u|wie tekent|wie gaat erover',
    'quien decide|decide usted|quien firma',
    'qui decide|decidez-vous|qui signe|c.est vous qui',
  ),
} as const;
export type Asked = keyof typeof ASKS;

export const WANTS = any(
  "i (?:also )?(?:want|need|wish|would like|'d like|expect)|we (?:want|need|wish|would like)|if i may wish|it (?:should|must|has to|needs to) \\w+|no more than",
  '(?:will|mochte|brauche|wunsche) ich|ich (?:will|mochte|brauche|wunsche|hatte gern)|wir (?:wollen|brauchen|mochten)|(?:muss|soll(?:te)?) (?:sie|es|das|die|der|er)|erstens|zweitens|drittens|am liebsten|und dann (?:soll|muss)',
  '(?:wil|wou|zou) ik|ik (?:wil|zoek|heb .{1,20} nodig|zou graag)|(?:wij|we) (?:willen|zoeken|hebben nodig)|(?:moet|hoort) (?:het|hij|ze|die)|het moet|ten eerste|ten tweede|het liefst',
  '(?:yo )?(?:quiero|necesito|busco|quisiera|me gustaria)|queremos|necesitamos|tiene que|deberia|primero|segundo',
  "je (?:veux|voudrais|souhaite|cherche|voulais)|j'ai besoin|j'aimerais|nous (?:voulons|avons besoin|souhaitons|cherchons)|il (?:faut|doit|faudrait)|on (?:veut|voudrait)|d'abord|ensuite",
);
export const REASON = any(
  '(?:the|that is the|whole) reason|reason is|why i (?:am calling|wrote|called|ring)|that is why|because of that|so i (?:called|wrote|am calling)|without .{3,40} i lose',
  'warum ich anrufe|deshalb (?:rufe|melde)|ich rufe (?:an )?(?:wegen|weil)|der grund|darum',
  'daarom bel|de reden|ik bel (?:omdat|vanwege|over)|waarom ik bel',
  'por eso (?:llamo|escribo)|el motivo|la razon|llamo (?:porque|por)',
  "c'est pour(?:quoi| ca)|la raison|j'appelle (?:parce|pour|car)|voila pourquoi",
);
export const OUTCOME = any(
  'in my words|in the end i|what i (?:really )?(?:wish|want)(?: for)?(?:, [^,.]{2,20},)? (?:is|in the end)|at the end of the day i|my dream|then i would be happy',
  'am ende (?:mochte|will|soll)|im grunde (?:will|mochte)|hauptsache|mein traum',
  'uiteindelijk wil|aan het eind wil|het liefst wil|als het maar|mijn droom',
  'al final (?:quiero|lo que)|lo que (?:de verdad )?quiero|mi sueno|lo importante es',
  "au final je|ce que je (?:veux|voudrais) (?:vraiment )?c'est|l'important c'est|mon reve",
);

/** What stands against it, by kind. */
export const OBJECTIONS: readonly (readonly [string, RegExp])[] = [
  [
    'competitor',
    any(
      'another firm|other (?:firm|supplier|offer)|offered me|competitor|someone else|second offer|they say i need no',
      'andere firma|anderen anbieter|ein anderes angebot|mitbewerber|konkurrenz|hat mir .{2,30} angeboten',
      'andere leverancier|andere partij|ander aanbod|concurrent|aangeboden',
      'otra empresa|otro proveedor|otra oferta|competencia|me han ofrecido',
      "autre (?:societe|fournisseur|offre|entreprise)|concurren\\w+|m'a propose",
    ),
  ],
  [
    'price',
    any(
      'too (?:dear|expensive|much money)|cannot (?:afford|do .{2,20} at once|pay)|money,? of course|no money|gets thin|price is|that is a lot|over (?:my|our) budget|half of that|cheaper',
      'zu teuer|kann ich mir nicht leisten|kein geld|viel geld|nicht bezahlen|sprengt|zu hoch',
      'te duur|kan ik niet betalen|geen geld|veel geld|te hoog',
      'demasiado caro|muy caro|no puedo pagar|no hay dinero|mucho dinero',
      "trop cher|pas les moyens|pas d'argent|beaucoup d'argent|trop eleve",
    ),
  ],
  [
    'contract',
    any(
      'contract is void|under contract|bound by|warranty (?:is|would be)|lawyer|liab\\w+|data protection|not allowed',
      'vertrag (?:lauft|bindet)|garantie (?:verlier|erlischt)|gewahrleistung|datenschutz|nicht erlaubt|anwalt|haft\\w+',
      'contract loopt|zit(?:ten)? vast|garantie vervalt|niet toegestaan|aansprakelijk',
      'contrato|garantia se pierde|no esta permitido|responsabilidad',
      'contrat court|engages? jusqu|garantie|pas le droit|responsabilite',
    ),
  ],
  [
    'effort',
    any(
      'no people|no time for|nobody has time|have to type|too (?:much work|complicated|difficult)|staff (?:will|would|do) not|learn (?:it|all that)|one more screen|dead before it starts',
      'keine leute|keine zeit|zu kompliziert|zu viel arbeit|niemand (?:hat|kann|will)|umgewohnen|schulung',
      'geen mensen|geen tijd|te ingewikkeld|te veel werk|niemand (?:heeft|kan|wil)',
      'no tengo (?:gente|tiempo|personal)|complicado|mucho trabajo|nadie (?:tiene|sabe|quiere)',
      "pas de (?:monde|personnel|temps)|trop complique|trop de travail|personne (?:n'a|ne sait|ne veut)",
    ),
  ],
  [
    'trust',
    any(
      'bad experience|went (?:bust|bankrupt)|how do i know|still (?:be there|exist)|who else has|prove it|heard that before|never heard of you|let (?:me|us) down|promised (?:me|us)',
      'schlechte erfahrung\\w*|pleite|woher weiss ich|in zehn jahren|insolvent|versprochen|nie gehort|im stich',
      'slechte ervaring\\w*|failliet|hoe weet ik|over tien jaar|beloofd|in de steek|nooit van gehoord',
      'mala experiencia|malas experiencias|quebro|como se|dentro de diez anos|prometi\\w+',
      'mauvaise experience|faillite|comment savoir|dans dix ans|promis|laisse tomber|jamais entendu',
    ),
  ],
  [
    'disruption',
    any(
      'stands? still|everything stops|in the middle of|close (?:the|for)|cannot (?:stop|close)|lose (?:the|my|our) (?:customers|clients|guests)|while we (?:work|are open)|harvest every',
      'steht alles still|stillstand|betrieb (?:steht|schliessen)|nicht schliessen|laufenden betrieb|umbau',
      'ligt alles stil|stil ligt|niet dicht|dicht moet|verbouwing',
      'se para todo|parar|no puedo cerrar|cerrar',
      "tout s'arrete|arreter|fermer|a l'arret",
    ),
  ],
  [
    'timing',
    any(
      'not (?:now|this year|before)|too (?:soon|early|late)|busy season|in (?:april|may|june|july|august|december|january|the season).{0,40}(?:nobody|no one|cannot|sell)|wait until',
      'jetzt nicht|(?:zu fruh|zu spat)|hochsaison|da kann keiner|erst (?:nach|im|wenn)|keine luft',
      'nu niet|te vroeg|te laat|hoogseizoen|dan kan niemand|pas (?:na|in|als)',
      'ahora no|demasiado (?:pronto|tarde)|temporada|hasta que no',
      'pas maintenant|trop (?:tot|tard)|pleine saison|pas avant|seulement apres',
    ),
  ],
  [
    'authority',
    any(
      'not (?:my|mine) (?:decision|to decide)|have to ask|cannot decide|my (?:partner|wife|husband|boss|board) (?:has to|must|will not|is against)',
      'nicht allein entscheiden|muss (?:ich )?(?:erst )?fragen|mein (?:chef|partner|mann) (?:ist dagegen|muss)|meine (?:chefin|frau) (?:ist dagegen|muss)',
      'niet alleen beslissen|moet (?:ik )?(?:eerst )?vragen|is ertegen',
      'no (?:lo )?decido yo|tengo que (?:preguntar|consultar)|esta en contra',
      'pas a moi de decider|je dois (?:demander|consulter)|est contre',
    ),
  ],
  [
    'technical',
    any(
      'does not (?:fit|work with|talk to)|not compatible|old (?:wiring|cables|machine)|no (?:internet|signal|network)|cannot be connected|will it work with',
      'passt nicht|nicht kompatibel|alte leitungen|kein (?:internet|netz)|lasst sich nicht',
      'past niet|niet compatibel|oude leidingen|geen (?:internet|bereik)|niet koppelen',
      'no (?:es compatible|encaja|funciona con)|sin (?:internet|cobertura)|instalacion vieja',
      "pas compatible|vieilles? install\\w+|pas (?:d'internet|de reseau)|ne marche pas avec",
    ),
  ],
];

export const PROMISES = any(
  "i(?:'ll| will| can| could)? (?:send|ring|call|write|come|bring|check|ask|look|let you know|get back)|we(?:'ll| will) (?:send|call|come|bring|ring|speak|meet)|you send me|could you send",
  'ich (?:schicke|sende|rufe|melde|komme|schreibe|frage|bringe|schaue|prufe)|wir (?:schicken|senden|rufen|kommen|melden)|(?:schicke|sende|komme|melde) ich|dass ich mir das ansehe|bringen sie',
  'ik (?:stuur|bel|mail|kom|schrijf|vraag|kijk|breng)|(?:wij|we) (?:sturen|bellen|komen)|(?:stuur|bel|kom) ik',
  '(?:le|te|os) (?:envio|mando|llamo|escribo)|(?:enviare|mandare|llamare|pasare)|me paso|nos vemos|mandeme',
  'je (?:vous )?(?:envoie|enverrai|rappelle|rappellerai|passe|passerai|ecris|verifie)|on se (?:voit|rappelle)|nous (?:passons|viendrons|envoyons)|envoyez-moi',
);
export const MEETS = any(
  'visit|meet\\w*|speak again|ring (?:me|you|again)|call (?:me|you|again)|come by|appointment|see you|offer|send|demo',
  'termin|besuch\\w*|vorbei|treffen|anrufen|ruf\\w* .{0,20}an|telefonieren|komme\\w*|schick\\w*|angebot|da bin ich|uhr',
  'afspraak|langs|bezoek|bellen|bel|stuur\\w*|offerte|kom\\w*',
  'cita|visita|reunion|llam\\w+|paso|envi\\w+|oferta|vemos',
  'rendez-vous|visite|rappel\\w*|passe\\w*|envoi\\w*|devis|voit',
);
/** What takes back what was said just before. */
export const TAKES_BACK =
  /^(?:no|nope|nein|nee|non|halt|wait|sorry|hold on|moment|i mean|falsch|pardon|perdon|rather|make that|correction|actually|ach nein|oder nein|stop|quatsch|i was wrong|that is wrong|stimmt nicht)(?!\p{L})/u;
export const YES = any(
  'yes|yeah|right|exactly|correct|that is (?:me|it|right|correct)|good|done|please|sure|agreed|perfect|fine',
  'ja|genau|richtig|stimmt|gut|einverstanden|passt|jawohl|gern\\w*',
  'ja|precies|klopt|goed|prima|akkoord|graag',
  'si|exacto|correcto|eso es|bien|de acuerdo|vale|perfecto',
  "oui|exact\\w*|c'est (?:ca|bien|moi)|d'accord|parfait|entendu|tres bien",
);
export const DENIES = /^(?:no|nope|nein|nee|non|not quite|nicht ganz|niet helemaal)(?!\p{L})/u;
export const NO_SUM = any(
  'no budget|no sum|no idea what it costs|hoping you would tell me|not thought of',
  'kein budget|keinen rahmen|keine ahnung was',
  'geen budget|geen idee',
  'no tengo presupuesto|ni idea',
  'pas de budget|aucune idee',
);
/** Who decides. */
export const DECIDES = any(
  'i decide|we (?:both )?decide|decides?|both sign|signs?|last word|i alone|up to me|she does the money',
  'ich entscheide|entscheid\\w+|unterschreib\\w+|meine frau und ich|mein mann und ich|letzte wort',
  'ik beslis|beslis\\w+|teken\\w*|mijn (?:vrouw|man|vader|broer) en ik',
  'decido|decid\\w+|firma\\w*|mi (?:mujer|marido|socio) y yo',
  'je decide|decid\\w+|sign\\w+|ma femme et moi|mon mari et moi',
);

/** Wishes that only keep the talk going. */
export const MERE_TALK = any(
  'would like to (?:see|speak|talk|hear|know|ask|meet)|(?:they|he|she) (?:says?|thinks?|told)|want to (?:see|hear|know|ask)|(?:need|want) to (?:go|run|hang up)',
  'mochte ich (?:wissen|fragen|sehen|horen)|(?:er|sie) (?:sagt|sagen|meint)|ich muss (?:los|weg|weiter)',
  'wil ik (?:weten|vragen|zien)|(?:hij|zij|ze) (?:zegt|zeggen)|ik moet (?:gaan|weg|hangen)',
  'quiero (?:saber|preguntar|ver)|(?:el|ella|ellos) dicen?|tengo que (?:irme|colgar)',
  'je (?:veux|voudrais) (?:savoir|demander|voir)|(?:il|elle|ils) (?:dit|disent)|je dois (?:y aller|filer)',
);
/** Weighed as an objection whatever was asked. */
export const ALWAYS_AGAINST = new Set(['competitor', 'trust', 'contract']);
/** Questions that are doubts. */
export const DOUBTS = any(
  'how (?:do|can|should) i know|who tells me|what if',
  'woher weiss ich|wer sagt mir|was ist,? wenn',
  'hoe weet ik|wie zegt mij|wat als',
  'como se|y si',
  'comment (?:savoir|je sais)|et si',
);
