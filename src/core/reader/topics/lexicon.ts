/** Closed word lists: what a thing is called in several languages, folded, with the one name Millrace uses for it. */
export type Lexicon = Readonly<Record<string, string>>;

const lexicon = (entries: Readonly<Record<string, string>>): Lexicon =>
  Object.fromEntries(Object.entries(entries).flatMap(([value, names]) => names.split('|').map((name) => [name, value])));

export const CROPS = lexicon({
  tomato:
    'tomato|tomatoes|tomaten|tomate|tomates|tomaat|pomidor|pomidory|pomidorow|pomodori|pomodoro|tomater|strauchtomaten|rispentomaten|trostomaten|cherrytomaten|kirschtomaten',
  pepper: 'pepper|peppers|paprika|paprikas|pimiento|pimientos|poivron|poivrons|peperoni|papryka|papryki|sweet pepper|sweet peppers',
  cucumber:
    'cucumber|cucumbers|gurke|gurken|salatgurken|komkommer|komkommers|pepino|pepinos|concombre|concombres|cetrioli|ogorki|ogorkow|agurker',
  aubergine: 'aubergine|aubergines|auberginen|eggplant|eggplants|berenjena|berenjenas|melanzane',
  courgette: 'courgette|courgettes|zucchini|calabacin|calabacines',
  orchids: 'orchid|orchids|orchidee|orchideen|orchideeen|orquidea|orquideas|orchidees|phalaenopsis|orchidea|orchideas|storczyki|orkideer',
  roses: 'rose|roses|rosen|rozen|roos|rosas|schnittrosen|snijrozen|roze|roser',
  strawberries: 'strawberry|strawberries|erdbeeren|erdbeere|aardbeien|aardbei|fresa|fresas|fraise|fraises|fragole|truskawki',
  raspberries: 'raspberry|raspberries|himbeeren|frambozen|frambuesas|framboises',
  lettuce:
    'lettuce|lettuces|salat|kopfsalat|salate|sla|lechuga|lechugas|laitue|laitues|salades|salad leaves|salads|lattuga|salata|salater|blattsalate',
  chrysanthemums: 'chrysanthemum|chrysanthemums|chrysanten|chrysanthemen|crisantemo|crisantemos|chrysanthemes|crisantemi',
  gerbera: 'gerbera|gerberas|gerberi',
  lilies: 'lily|lilies|lilien|lelies|lirio|lirios|lys',
  tulips: 'tulip|tulips|tulpen|tulp|tulipan|tulipanes|tulipes',
  carnations: 'carnation|carnations|nelken|anjers|clavel|claveles|oeillets',
  'pot plants':
    'pot plant|pot plants|pot-plants|potted plants|topfpflanze|topfpflanzen|potplant|potplanten|planta en maceta|plantas en maceta|plantas de maceta|plantes en pot|cyclamen|cyclamens|ciclamen|alpenveilchen|pelargonium|pelargoniums|pelargonien|azalea|azaleas|azaleen|poinsettia|poinsettias|weihnachtssterne|kerststerren|kalanchoe|anthurium|anthuriums|begonia|begonias|begonien|rosliny doniczkowe|zimmerpflanzen|houseplants|house plants|kamerplanten|piante in vaso|potteplanter|krukvaxter|primula|primulas|primroses|primeln|hibiscus|spathiphyllum|ferns|farne|varens|helechos|fougeres|bromelia|bromelias|bromelien|zamioculcas|dracaena|ficus',
  'bedding plants':
    'bedding plants|bedding|beet- und balkonpflanzen|balkonpflanzen|perkplanten|perkgoed|plantas de temporada|plantes a massif|plantes a massifs|pansy|pansies|viola|violas|stiefmutterchen|violen|viooltjes|pensamientos|pensees|petunia|petunias|petunien|geraniums|geranium|geranien|geranios',
  herbs:
    'herb|herbs|krauter|kruiden|hierbas|hierbas aromaticas|aromaticas|herbes|herbes aromatiques|plantes aromatiques|basil|basilikum|basilicum|albahaca|basilic|ziola|erbe aromatiche|krydderurter|orter|topfkrauter',
  'young plants':
    'young plant|young plants|plug plants|plugs|seedlings|cuttings|jungpflanzen|stecklinge|jonge planten|plantgoed|stekken|plantones|plantulas|planta joven|semilleros|semillero|jeunes plants|boutures|sadzonki|giovani piante',
  trees:
    'tree|trees|baumschule|baumschulen|pepiniere|pepinieres|sapling|saplings|baume|geholze|bomen|arboles|arbres|arbustes|shrubs|baumschulware|drzewa|drzewka',
  cress: 'cress|watercress|garden cress|kresse|gartenkresse|brunnenkresse|waterkers|tuinkers|sterrenkers|berro|berros|cresson|cressons',
  alstroemeria: 'alstroemeria|alstroemerias|inkalilie|inkalilien|incalelie|incalelies|alstromeria|alstromerias',
  freesias: 'freesia|freesias|freesien|fresias|freesier',
  lisianthus: 'lisianthus|eustoma',
  hydrangeas: 'hydrangea|hydrangeas|hortensie|hortensien|hortensia|hortensias',
  spinach: 'spinach|baby spinach|spinat|spinazie|espinaca|espinacas|epinards',
  radishes: 'radish|radishes|radieschen|radijs|rabanos|rabanitos|radis',
  microgreens: 'microgreen|microgreens|micro greens|micro-greens|microgroenten|microbrotes|micropousses',
  blueberries: 'blueberry|blueberries|heidelbeeren|blauwe bessen|arandanos|myrtilles',
  blackberries: 'blackberry|blackberries|brombeeren|bramen|moras|mures',
  heather: 'heather|heathers|calluna|callunen|erika|erica|brezo|bruyeres',
  succulents: 'cactus|cacti|cactussen|kakteen|succulent|succulents|sukkulenten|vetplanten|suculentas|succulentes',
  citrus: 'citrus|citrus trees|zitruspflanzen|citrusplanten|citricos|agrumes',
  mushrooms: 'mushroom|mushrooms|pilze|champignons|paddenstoelen|setas|champinones|champignon',
  grapes: 'grapes|table grapes|tafeltrauben|druiven|uvas|uva de mesa|raisins de table',
  melons: 'melon|melons|melonen|meloenen|melones|sandia|sandias',
  beans: 'beans|bohnen|bonen|judias|judia verde|haricots',
  'cut flowers':
    'cut flower|cut flowers|schnittblumen|snijbloemen|flor cortada|fleurs coupees|flores de corte|kwiaty ciete|fiori recisi|afskarne blomster',
});

export const ENERGY = lexicon({
  'natural gas':
    'natural gas|gas boiler|gas boilers|gas-fired|mains gas|erdgas|gaskessel|gasheizung|aardgas|gasketel|gasketels|gas natural|caldera de gas|calderas de gas|gaz naturel|chaudiere a gaz|chaudieres a gaz|chaudiere gaz|gaz de ville|gas metano|metano|gaz ziemny|gazu ziemnego|kotly gazowe',
  cogeneration:
    'cogeneration|combined heat and power|chp|cogenerator|blockheizkraftwerk|blockheizkraftwerke|bhkw|kraft-warme-kopplung|wkk|warmtekrachtkoppeling|wkk-installatie|cogeneracion|cogenerador|cogenerazione|kogeneracja',
  geothermal:
    'geothermal|geothermal heat|geothermal well|erdwarme|geothermie|tiefengeothermie|aardwarmte|aardwarmtebron|geotermia|geotermica|geothermique|geotermalna',
  biomass:
    'biomass|wood chip|wood chips|wood-chip|woodchip|woodchips|wood pellets|pellets|straw boiler|biomasse|hackschnitzel|holzhackschnitzel|holzpellets|holzheizung|biomassa|houtsnippers|houtkachel|biomasa|astillas|caldera de biomasa|huesos de aceituna|hueso de aceituna|plaquettes de bois|bois dechiquete|granules de bois|chaudiere a bois|biomasy|zrebki|cippato|olive stones',
  'heat pump':
    'heat pump|heat pumps|warmepumpe|warmepumpen|warmtepomp|warmtepompen|bomba de calor|bombas de calor|pompe a chaleur|pompes a chaleur|pompa di calore|pompa ciepla|pompy ciepla|varmepumpe',
  oil: 'heating oil|oil boiler|oil boilers|oil-fired|heizol|olkessel|olheizung|stookolie|gasoil|gasoleo|fioul|fuel oil|olej opalowy',
  coal: 'coal|kohle|steinkohle|steenkool|carbon mineral|charbon|wegiel|weglem',
  'waste heat':
    'waste heat|residual heat|surplus heat|abwarme|restwarmte|calor residual|chaleur fatale|chaleur residuelle|calore di scarto',
  'district heat':
    'district heat|district heating|heat network|fernwarme|nahwarme|stadsverwarming|warmtenet|red de calor|reseau de chaleur|teleriscaldamento|cieplo systemowe|fjernvarme|fjarrvarme',
  biogas:
    'anaerobic digester|anaerobic digestion|digester|mestvergister|vergister|biodigestor|methaniseur|methanisation|biogas|biogasanlage|biogaz|bio-gas|biomethane|biomethan',
  solar: 'solar heat|solar thermal|solarthermie|zonneboiler|zonnewarmte|energia solar|solar termica|solaire thermique',
  electricity:
    'electric boiler|electric boilers|electric heating|elektrokessel|elektrische ketel|e-boiler|caldera electrica|chaudiere electrique',
  propane: 'propane|lpg|flussiggas|propan|propaangas|propano|propaan',
});

export interface Mention {
  readonly value: string;
  readonly from: number;
  readonly to: number;
}

const PATTERNS = new WeakMap<Lexicon, RegExp>();

const JOINED_BEFORE = /^(?:snij|schnitt|topf|tros|rispen|cherry)/;
/** Long words join what they are made of: “Hackschnitzelheizung” is wood chips. */
function valueOf(named: string, list: Lexicon): string {
  const bare = named.replace(/'s$/, '');
  const word = list[bare] === undefined ? bare.replace(JOINED_BEFORE, '') : bare;
  return (
    list[word] ??
    list[word.replace(/(?:e?n|e?s)$/, '')] ??
    list[word.replace(/[ns]$/, '')] ??
    list[word.replace(/(?:heizung|kessel|anlage|ofen|installatie|ketel)(?:e?n|e?s)?$/, '')] ??
    ''
  );
}

/** Every thing of the list that folded text names, longest names first, none inside another. */
export function mentions(folded: string, list: Lexicon): readonly Mention[] {
  let pattern = PATTERNS.get(list);
  if (!pattern) {
    const names = Object.keys(list).sort((a, b) => b.length - a.length);
    pattern = new RegExp(
      `(?<![\\p{L}\\p{N}])(?:snij|schnitt|topf|tros|rispen|cherry)?(?:${names.join('|')})(?:heizung|kessel|anlage|ofen|installatie|ketel)?(?:'s|e?n|e?s)?(?![\\p{L}\\p{N}])`,
      'gu',
    );
    PATTERNS.set(list, pattern);
  }
  return [...folded.matchAll(pattern)].map((found) => ({
    value: valueOf(found[0], list),
    from: found.index,
    to: found.index + found[0].length,
  }));
}
