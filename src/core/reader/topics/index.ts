import { fold } from '../../base';

export type TopicId =
  'area' | 'controls' | 'controls since' | 'expansion' | 'all year' | 'contract' | 'crop' | 'energy' | 'sites' | 'employees' | 'decider';

/** What a question is about, by its name and then by its words (folded), in the languages builders write in. */
const ASKS: readonly (readonly [TopicId, RegExp])[] = [
  [
    'controls since',
    /controls?_since|controls?_age|age_of_controls|since when|how old|how long have they|seit wann|wie alt|sinds wanneer|hoe oud|desde cuando|que antiguedad|depuis quand|quel age/,
  ],
  [
    'controls',
    /^controls?$|current_controls|climate_computer|climate computer|climate control|control system|controller|controls do|klimacomputer|klimaregel|klimaatcomputer|ordenador climatico|control climatico|ordinateur climatique|regulation climatique/,
  ],
  [
    'contract',
    /service_contract|service contract|maintenance contract|wartungsvertrag|onderhoudscontract|contrato de mantenimiento|contrat de maintenance|contrat d'entretien/,
  ],
  ['all year', /all_year|year_round|all year|year-round|jaarrond|hele jaar|ganzjahrig|ganze jahr|todo el ano|toute l'annee/],
  ['expansion', /expansion|expand|extension|invest|uitbreid|erweiter|ausbau|ampliac|amplia|agrandi/],
  [
    'energy',
    /energy|heat_source|heating|heated with|fuel|energie|womit .*heiz|beheizt|stook|verwarmd met|energia|calefac|chauffage|chauff/,
  ],
  [
    'sites',
    /^sites?$|number_of_sites|site_count|locations?|how many sites|how many nurser|standorte|locaties|vestigingen|emplazamientos|cuantos centros|cuantas fincas|combien de sites/,
  ],
  ['employees', /employees|headcount|staff|people work|mitarbeiter|medewerkers|empleados|salaries|effectif/],
  ['decider', /deci[ds]|who signs|entscheid|beslis|decisor|quien decide|qui decide/],
  [
    'area',
    /heated_area|glass_area|area under|under glass|heated glass|greenhouse area|glasshouse area|hectares? of glass|glasflache|unter glas|gewachshausflache|glasoppervlak|onder glas|kasoppervlak|superficie (?:acristalada|de invernadero|climatizada|sous|de serre|chauffee)|invernadero.*superficie/,
  ],
  ['crop', /crop|what do they grow|grow mainly|kultur|was bauen|teelt|wat telen|cultivo|que cultivan|culture|que cultivent/],
];

export function topicOf(id: string, wording: string): TopicId | undefined {
  const name = fold(id);
  const asked = fold(wording);
  return ASKS.find(([, pattern]) => pattern.test(name))?.[0] ?? ASKS.find(([, pattern]) => pattern.test(asked))?.[0];
}
