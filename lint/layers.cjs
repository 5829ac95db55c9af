/**
 * Who may import whom (docs/architecture in the README's map). Type imports count. Every rule has a file under
 * lint/broken that breaks it, and lint/layers.test.ts sees that the rule then fails.
 */
const npm = 'node_modules/';
/** The rooms of the server: each holds its use cases and, in `store`, its statements. */
const AREA = '(platform|access|workspace|records|intake|research|flows|trips|messages|desk)';
const TEST = '\\.(test|spec)\\.tsx?$|^src/testing/';
const rule = (name, from, to, comment) => ({ name, severity: 'error', from, to, comment });
/** A core folder may reach the folders named and itself. */
const order = (folder, allowed) =>
  rule(
    `core-order-${folder}`,
    { path: `^src/core/${folder}/`, pathNot: TEST },
    { path: '^src/core/', pathNot: `^src/core/(${[folder, ...allowed].join('|')})/` },
    'core is read bottom-up',
  );

/** The flow language from the ground up: tree, what names mean, parts of sentences, verbs, then text, checks and speech. */
const within = (folder, allowed) =>
  rule(
    `flow-order-${folder}`,
    { path: `^src/core/flow/${folder}/`, pathNot: TEST },
    { path: '^src/core/flow/', pathNot: `^src/core/flow/(${[folder, ...allowed].join('|')})/` },
    'the language is read bottom-up',
  );

module.exports = {
  forbidden: [
    rule(
      'core-is-pure',
      { path: '^src/core/', pathNot: TEST },
      { pathNot: `^src/core/|${npm}` },
      'the same code runs in worker, browser and test',
    ),
    rule(
      'core-packages',
      { path: '^src/core/', pathNot: TEST },
      {
        path: npm,
        pathNot: `${npm}(@types/)?(zod|luxon|@lezer|libphonenumber-js|csv-parse|diff|cheerio|ical\\.js|snowball-stemmers|stopword)`,
      },
      'core uses a short named list of pure packages',
    ),
    rule('core-no-node', { path: '^src/core/', pathNot: TEST }, { dependencyTypes: ['core'] }, 'no Node built-ins in core'),
    order('base', []),
    order('units', ['base']),
    order('fields', ['base', 'units']),
    order('facts', ['base', 'fields']),
    order('feel', ['base']),
    order('hiring', ['base']),
    order('score', ['base', 'fields', 'facts', 'feel']),
    order('teams', ['base']),
    order('match', ['base', 'fields', 'facts']),
    order('lookup', ['base', 'fields', 'facts', 'match']),
    order('calendar', ['base']),
    order('writer', ['base', 'fields', 'facts', 'feel']),
    order('flow', ['base', 'units', 'fields', 'facts', 'feel', 'score', 'lookup', 'writer']),
    order('formats', ['base']),
    order('reader', ['base', 'fields', 'facts', 'flow', 'formats', 'units']),
    order('reply', ['base', 'reader']),
    order('answers', ['base', 'fields', 'facts', 'feel', 'writer', 'reader', 'reply']),
    order('holding', ['base', 'answers', 'fields', 'feel', 'flow', 'reply']),
    order('things', ['base', 'answers', 'fields', 'facts', 'feel', 'flow', 'lookup', 'score', 'writer', 'reader']),
    order('sign-in', ['base']),
    order('sending', ['base', 'writer']),
    order('first-day', ['base', 'fields', 'flow', 'score']),
    order('dossier', ['base', 'fields', 'facts', 'feel', 'formats', 'reader']),
    order('intake', ['base', 'units', 'fields', 'facts', 'feel', 'match', 'lookup']),
    order('forecast', ['base', 'calendar', 'flow']),
    order('engine', ['base', 'fields', 'facts', 'feel', 'flow', 'lookup', 'match', 'score', 'writer', 'calendar', 'reader']),
    within('tree', []),
    within('meaning', ['tree']),
    within('parts', ['tree', 'meaning']),
    within('verbs', ['tree', 'meaning', 'parts']),
    within('syntax', ['tree', 'verbs']),
    within('check', ['tree', 'meaning', 'verbs']),
    within('say', ['tree', 'parts', 'verbs']),
    rule(
      'engine-verbs-apart',
      { path: '^src/core/engine/verbs/', pathNot: `${TEST}|^src/core/engine/verbs/(index|verb|opened|compose|batch)\\.ts$` },
      { path: '^src/core/engine/verbs/', pathNot: '^src/core/engine/verbs/(verb|opened|compose|batch)\\.ts$' },
      'a verb knows no other verb',
    ),
    rule(
      'flow-verbs-apart',
      { path: '^src/core/flow/verbs/', pathNot: `${TEST}|^src/core/flow/verbs/(index|verb|shapes)\\.ts$` },
      { path: '^src/core/flow/verbs/', pathNot: '^src/core/flow/verbs/(verb|shapes)\\.ts$' },
      'a verb knows no other verb',
    ),
    rule(
      'doors-only',
      { path: '^src/core/([^/]+)/', pathNot: TEST },
      { path: '^src/core/[^/]+/.+', pathNot: '^src/core/$1/|/index\\.ts$' },
      'a folder is entered by its index',
    ),
    rule(
      'core-doors-only',
      { path: '^src/(api|server|standins|app|ui|testing)/' },
      { path: '^src/core/', pathNot: '/index\\.ts$' },
      'a folder is entered by its index',
    ),
    rule('api-thin', { path: '^src/api/', pathNot: TEST }, { path: '^src/', pathNot: '^src/(api|core)/' }, 'shared shapes carry no logic'),
    rule(
      'sql-in-store',
      { pathNot: `^src/server/(db|${AREA}/store)/|^bench/|^src/testing/|\\.test\\.ts$` },
      { path: `${npm}postgres/` },
      'one place to read for every statement',
    ),
    rule(
      'store-decides-nothing',
      { path: `^src/server/${AREA}/store/` },
      { path: `^src/server/(worker|adapters|http|wire|ports)/|^src/server/${AREA}/(?!store/)` },
      'rows in, rows out',
    ),
    rule(
      'ports-are-contracts',
      { path: '^src/server/ports/', pathNot: TEST },
      { path: '^src/', pathNot: '^src/(core|server/ports)/' },
      'a port never knows its versions',
    ),
    rule(
      'box-knows-nothing',
      { path: '^src/server/box/', pathNot: TEST },
      { path: '^src/', pathNot: '^src/(core|server/(box|ports))/' },
      'what reads things from outside reaches no database, no secret and no address',
    ),
    rule(
      'box-behind-its-port',
      { path: '^src/', pathNot: `^src/server/(box|wire|adapters)/|${TEST}` },
      { path: '^src/server/box/' },
      'who wants something read asks the port',
    ),
    rule(
      'areas-see-ports',
      { path: `^src/server/${AREA}/`, pathNot: TEST },
      { path: '^src/(server/(adapters|worker|wire|http)|standins|app|ui)/' },
      'adapters swap freely',
    ),
    rule(
      'platform-below-areas',
      { path: '^src/server/platform/', pathNot: TEST },
      { path: `^src/server/${AREA}/`, pathNot: '^src/server/platform/' },
      'what every room stands on knows none of them',
    ),
    rule(
      'access-below-areas',
      { path: '^src/server/access/', pathNot: TEST },
      { path: `^src/server/${AREA}/`, pathNot: '^src/server/(platform|access)/' },
      'who may do what is asked by every room and asks none',
    ),
    rule(
      'worker-via-usecases',
      { path: '^src/server/worker/', pathNot: TEST },
      { path: `^src/(server/(${AREA}/store|adapters|wire|db)|app|ui)/` },
      'one way to do a thing',
    ),
    rule(
      'adapters-alone',
      { path: '^src/server/adapters/([^/]+)', pathNot: TEST },
      { path: `^src/server/(${AREA}|worker|db|wire|adapters)/`, pathNot: '^src/server/adapters/$1' },
      'no hidden order between outside services',
    ),
    rule(
      'wire-picks',
      { path: '^src/', pathNot: `^src/server/(wire|adapters)/|${TEST}` },
      { path: '^src/server/adapters/' },
      'the choice of world is in one place',
    ),
    rule(
      'standins-never-ship',
      { path: '^src/', pathNot: `^src/standins/|${TEST}` },
      { path: '^src/standins/' },
      'production cannot fall back to a toy',
    ),
    rule(
      'standins-by-contract',
      { path: '^src/standins/', pathNot: TEST },
      { path: '^src/', pathNot: '^src/(standins|core|server/ports)/' },
      'they use the same door as the real thing',
    ),
    rule(
      'app-thin',
      { path: '^src/app/' },
      { path: `^src/(server/(${AREA}/store|db|adapters|worker)|core/engine|standins)/` },
      'a route asks a use case',
    ),
    rule(
      'ui-no-server',
      { path: '^src/ui/', pathNot: TEST },
      { path: '^src/(server|standins|app)/' },
      'the browser bundle is safe by rule',
    ),
    rule('ui-no-node', { path: '^src/ui/', pathNot: TEST }, { dependencyTypes: ['core'] }, 'the browser has no Node built-ins'),
    rule(
      'state-without-react',
      { path: '^src/ui/[^/]+/state/', pathNot: TEST },
      { path: `${npm}(react|react-dom|@mui|next|recharts|@codemirror)/|^src/ui/[^/]+/view/|^src/ui/kit/.*\\.tsx$` },
      'the editor is testable without a browser',
    ),
    rule('kit-is-blind', { path: '^src/ui/kit/' }, { path: '^src/(core|api)/|^src/ui/(?!kit/)' }, 'looks carry no domain'),
    rule(
      'features-apart',
      { path: '^src/ui/([^/]+)/' },
      { path: '^src/ui/', pathNot: '^src/ui/($1|kit|client)/' },
      'pages can be deleted whole',
    ),
    rule(
      'next-at-the-rim',
      { path: '^src/', pathNot: '^src/(app|ui)/|^src/server/wire/http\\.ts$' },
      { path: `${npm}(next|react|react-dom|@mui)/` },
      'the server part outlives the framework',
    ),
    rule('e2e-from-outside', { path: '^e2e/' }, { path: '^src/', pathNot: '^src/standins/' }, 'tests see what a person sees'),
    rule('tests-not-shipped', { path: '^src/', pathNot: TEST }, { path: `${TEST}|^(e2e|bench|lint)/` }, 'obvious'),
    rule('no-cycles', { path: '^src/' }, { circular: true }, 'the graph stays readable'),
    rule(
      'no-undeclared',
      { path: '^(src|e2e|bench)/' },
      { dependencyTypes: ['npm-no-pkg', 'npm-unknown', 'unknown', 'undetermined'] },
      'every package stands in package.json',
    ),
    rule(
      'no-orphans',
      {
        orphan: true,
        path: '^src/',
        pathNot:
          '(page|layout|route|not-found|error|loading)\\.tsx?$|icon\\.svg$|/wire/|^src/standins/main\\.ts$|grammar\\.gen|\\.css$|\\.d\\.ts$|^src/testing/|\\.grammar$',
      },
      {},
      'what nothing uses is deleted',
    ),
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.sql$|\\.next/' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      mainFields: ['module', 'main', 'types'],
    },
  },
};
