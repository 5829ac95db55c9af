/** Word stems (folded, in six languages) by which the built-in reader knows what a sentence is about. */
export interface Topic {
  readonly id: string;
  /** ids or words of a question that mean this topic */
  readonly asks: RegExp;
  /** a sentence must carry one of these */
  readonly cue: RegExp;
  /** makes a sentence surer */
  readonly boost?: RegExp;
  /** makes it about something else */
  readonly against?: RegExp;
  /** turns a yes into a no */
  readonly negation?: RegExp;
  /** for texts from a closed list: folded word → value */
  readonly values?: Readonly<Record<string, string>>;
}

const NOT =
  '\\b(?:no|not|none|never|without|kein|keine|keinen|nicht|ohne|geen|niet|zonder|no hay|sin|nie|bez|pas|aucun|aucune|sans|non|senza)\\b';

/** Both what they control with and since when stand beside these. */
const CONTROLS =
  /climate computer|climate control|controller|control system|controlled by|controls|klimacomputer|klimaatcomputer|klimaregel|\bregelt\b|\bgeregeld door|steuerung|regeltechniek|regelaar|ordenador (?:climatico|de clima)|control climatico|controlador|sterowa|komputer klimat|ordinateur climatique|regulation|computer climatico|centralina/;

export const TOPICS: readonly Topic[] = [
  {
    id: 'area',
    asks: /heated_area|area|hectare|glass|flache|oppervlak|superficie/,
    cue: /\b\d/,
    boost:
      /heat|glass|greenhous|glasshous|beheizt|gewachshaus|glas|verwarmd|kas|kassen|climatizad|calefac|invernadero|vidrio|szklarni|ogrzewan|serre|chauffe|riscaldat/,
    against:
      /unheated|open field|outdoor|outside|freiland|unbeheizt|vollegrond|onverwarmd|aire libre|plein champ|non chauffe|gruntow|campo aperto|plastic|folien|polytunnel|tunnel|planned|will add|geplant|gepland|previst|further|another|additional|extra|zusatzlich|park|garden/,
  },
  {
    id: 'controls',
    asks: /^controls$|climate computer|control system|controller|klimacomputer|klimaatcomputer/,
    cue: CONTROLS,
    boost: /since|installed|from \d{4}|seit|eingebaut|sinds|geplaatst|desde|instalad|depuis|installe|dal \d{4}|zainstalowan/,
  },
  {
    id: 'controls_since',
    asks: /controls_since|since when|how old/,
    cue: CONTROLS,
  },
  {
    id: 'expansion',
    asks: /expansion|expand|extension|investment|uitbreid|erweiter|ampliac/,
    cue: /\bexpan(?:d|si)|extend|extension|new glasshouse|new greenhouse|new bays|building (?:a|another|\d)|br(?:eak|oke) ground|under construction|erweiter|neubau|neue[sn]? gewachshaus|uitbreid|nieuwbouw|nieuwe kas|ampliaci|ampliar|nuevo invernadero|rozbudow|nowa szklarni|agrandiss|nouvelle serre|ampliament|nuova serra/,
    negation: new RegExp(NOT),
  },
  {
    id: 'all_year',
    asks: /all_year|all year|year-round|jaarrond|ganzjahrig/,
    cue: /all year|every month|year-round|year round|twelve months|all twelve|ganzjahrig|das ganze jahr|jaarrond|het hele jaar|todo el ano|los doce meses|caly rok|przez caly|toute l'annee|tutto l'anno|seasonal|only from (?:march|april|may)|season runs|closed in winter|nur von (?:marz|april|mai)|alleen van (?:maart|april|mei)|solo de (?:marzo|abril|mayo)|winter (?:we are |sind wir )?(?:empty|closed|geschlossen)/,
    negation:
      /seasonal|only from|season runs|closed in winter|nur von|alleen van|solo de|winter (?:we are |sind wir )?(?:empty|closed|geschlossen)/,
  },
  {
    id: 'service_contract',
    asks: /service_contract|service contract|maintenance contract/,
    cue: /service contract|maintenance contract|service agreement|wartungsvertrag|servicevertrag|onderhoudscontract|servicecontract|contrato de (?:mantenimiento|servicio)|umow[aeę] serwisow|contrat (?:de maintenance|d'entretien)|contratto di (?:manutenzione|assistenza)/,
    negation: new RegExp(NOT),
  },
  {
    id: 'crop',
    asks: /crop|grow(?:n|ing)?\b|teelt|kultur|cultivo/,
    cue: /./,
    values: {
      tomato: 'tomato',
      tomaten: 'tomato',
      tomate: 'tomato',
      tomatoes: 'tomato',
      pomidor: 'tomato',
      pomidory: 'tomato',
      pomodori: 'tomato',
      pepper: 'pepper',
      peppers: 'pepper',
      paprika: 'pepper',
      pimiento: 'pepper',
      pimientos: 'pepper',
      cucumber: 'cucumber',
      cucumbers: 'cucumber',
      gurken: 'cucumber',
      komkommer: 'cucumber',
      komkommers: 'cucumber',
      pepino: 'cucumber',
      pepinos: 'cucumber',
      orchid: 'orchids',
      orchids: 'orchids',
      orchideen: 'orchids',
      orchideeen: 'orchids',
      roses: 'roses',
      rosen: 'roses',
      rozen: 'roses',
      rosas: 'roses',
      strawberry: 'strawberries',
      strawberries: 'strawberries',
      erdbeeren: 'strawberries',
      aardbeien: 'strawberries',
      fresas: 'strawberries',
      lettuce: 'lettuce',
      salat: 'lettuce',
      sla: 'lettuce',
      lechuga: 'lettuce',
      chrysanthemums: 'chrysanthemums',
      chrysanten: 'chrysanthemums',
      cyclamen: 'pot plants',
      pelargoniums: 'pot plants',
      topfpflanzen: 'pot plants',
      potplanten: 'pot plants',
      herbs: 'herbs',
      krauter: 'herbs',
      kruiden: 'herbs',
      gerbera: 'gerbera',
      saplings: 'trees',
      azalea: 'pot plants',
      azaleas: 'pot plants',
      lilies: 'lilies',
      tulips: 'tulips',
      tulpen: 'tulips',
    },
  },
];

export function topicOf(id: string, wording: string): Topic | undefined {
  return TOPICS.find((topic) => topic.asks.test(id)) ?? TOPICS.find((topic) => topic.asks.test(wording));
}
