import { fieldsOf, type Field } from '../../facts';

const COUNTS: Readonly<Record<string, string>> = {
  a: '1',
  an: '1',
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
  ten: '10',
};
/** A count written out, as digits; anything else as it is. */
export const digits = (word: string): string => COUNTS[word] ?? word;

/** A name a phrase may speak of, as flow text writes it. */
export interface Named {
  readonly path: string;
  readonly type: Field['type'] | 'points';
  readonly unit?: string | undefined;
}

/** What people call a field besides its label. Two paths under one word are two readings. */
const ALSO: Readonly<Record<string, readonly string[]>> = {
  email: ['email', 'e-mail', 'mail', 'mail address', 'email address', 'e-mail address', 'address'],
  phone: ['phone', 'phone number', 'telephone', 'number'],
  'company.phone': ['phone', 'company phone', 'switchboard'],
  job_title: ['role', 'job', 'title', 'job title'],
  language: ['language'],
  status: ['status'],
  'company.status': ['status', 'company status'],
  met_at: ['stand', 'where we met'],
  'company.name': ['company', 'firm', 'company name'],
  'company.website': ['site', 'web site', 'website', 'home page', 'homepage'],
  'company.city': ['place', 'city', 'town'],
  'company.country': ['country'],
  'company.employees': ['employees', 'staff', 'people', 'size'],
  'company.sites': ['sites', 'locations'],
  'company.heated_area': ['heated area', 'area', 'glass', 'glasshouse', 'glass area', 'greenhouse area', 'size'],
  'company.main_crop': ['crop', 'main crop'],
  'company.controls': ['controls', 'climate computer', 'computer'],
  'company.controls_since': ['controls since', 'age of the controls'],
  'company.expansion': ['expansion', 'expansion announced', 'announced expansion'],
  'company.all_year': ['grows all year', 'grow all year', 'all year', 'year round'],
  'company.energy': ['energy', 'heating'],
  'company.service_contract': ['service contract', 'contract'],
};

const FIELDS = new Map<string, Named>([
  ...fieldsOf('person').map((field): [string, Named] => [field.key, { path: field.key, type: field.type, unit: field.unit }]),
  ...fieldsOf('company').map((field): [string, Named] => [
    `company.${field.key}`,
    { path: `company.${field.key}`, type: field.type, unit: field.unit },
  ]),
]);

const DEAL: readonly { readonly words: readonly string[]; readonly named: Named }[] = fieldsOf('deal').map((field) => ({
  words: [
    field.label,
    field.key.replace(/_/g, ' '),
    ...(field.key === 'quiet_days' ? ['silence', 'days silent', 'quiet days'] : []),
    ...(field.key === 'amount' ? ['value', 'sum'] : []),
  ],
  named: { path: field.key, type: field.type, unit: field.unit },
}));

/** What the lines above leave to speak of: the name of the last score, message and deal. */
export interface Above {
  /** in a flow about deals, fields of the person are reached through `person` */
  readonly about: 'person' | 'deal';
  readonly score?: string | undefined;
  readonly message?: string | undefined;
  readonly deal?: string | undefined;
}

const bare = (word: string): string => word.trim().replace(/^(?:the|a|an|their|his|her|its|any|some|our)\s+/, '');

/** Every name a word may stand for; none when it stands for nothing. */
export function namesFor(word: string, above: Above): readonly Named[] {
  const said = bare(word.toLowerCase());
  if (/^(?:score|points|fit|rating)$/.test(said)) return above.score ? [{ path: `${above.score}.points`, type: 'points' }] : [];
  if (/^(?:band|class)$/.test(said)) return above.score ? [{ path: `${above.score}.band`, type: 'text' }] : [];
  const exact = FIELDS.get(said.replace(/ /g, '_')) ?? FIELDS.get(`company.${said.replace(/ /g, '_')}`);
  const paths = Object.entries(ALSO).flatMap(([path, words]) => (words.includes(said) ? [path] : []));
  const found = paths.length > 0 ? paths.flatMap((path) => FIELDS.get(path) ?? []) : exact ? [exact] : [];
  if (above.about === 'person') return found;
  const deal = DEAL.filter(({ words }) => words.includes(said)).map(({ named }) => named);
  return [...deal, ...found.map((named) => (named.path.includes('.') ? named : { ...named, path: `person.${named.path}` }))];
}
