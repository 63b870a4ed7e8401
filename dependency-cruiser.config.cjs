/**
 * Who may import whom. Folders of core with many files have rooms of their own, each with its door. Inside core: num → vec → curve → outline → {paint, easing, shapes, text, ops, svg, match} → morph → {lane, piece} → frame → output, never back.
 * In web: ui → nothing of ours; state → core; outputs → core; workers → outputs; editor → core, state, workers; context → editor; views → all of these; app → all.
 */
const coreMay = {
  api: ['easing', 'piece'],
  num: [],
  vec: [],
  curve: ['num', 'vec'],
  outline: ['num', 'vec', 'curve'],
  paint: ['vec'],
  shapes: ['num', 'vec', 'outline'],
  text: ['outline'],
  ops: ['num', 'vec', 'curve', 'outline', 'paint'],
  easing: ['num', 'vec', 'curve'],
  svg: ['num', 'vec', 'curve', 'outline', 'paint'],
  match: ['num', 'vec', 'curve', 'outline'],
  morph: ['num', 'vec', 'curve', 'outline', 'svg', 'match'],
  lane: ['num', 'vec', 'curve', 'easing', 'paint', 'svg', 'morph'],
  piece: [
    'num',
    'vec',
    'curve',
    'outline',
    'paint',
    'easing',
    'shapes',
    'text',
    'ops',
    'svg',
    'match',
    'morph',
    'lane',
  ],
  frame: ['num', 'vec', 'curve', 'outline', 'shapes', 'paint', 'easing', 'match', 'morph', 'lane', 'piece'],
  output: ['num', 'vec', 'curve', 'outline', 'paint', 'easing', 'svg', 'morph', 'lane', 'piece', 'frame'],
};
/** Rooms of one folder of core: which of its other rooms each may use, through their doors. */
const coreRooms = {
  piece: {
    records: [],
    time: ['records'],
    place: ['records', 'time'],
    rules: ['records', 'time'],
    schema: ['records'],
    edit: ['records', 'time', 'place'],
    arrive: ['records', 'time', 'place', 'rules', 'edit'],
  },
  frame: { plan: [], lanes: ['plan'], picture: ['plan', 'lanes'] },
};
const webMay = {
  ui: [],
  state: [],
  outputs: [],
  workers: ['outputs'],
  editor: ['state', 'workers'],
  context: ['editor', 'state', 'workers'],
  canvas: ['context', 'editor', 'state', 'ui', 'workers'],
  rail: ['canvas', 'context', 'editor', 'state', 'ui', 'workers'],
  panels: ['canvas', 'context', 'editor', 'state', 'ui', 'workers'],
  shelf: ['canvas', 'context', 'editor', 'state', 'ui', 'workers'],
  drawer: ['canvas', 'context', 'editor', 'shelf', 'state', 'ui', 'workers'],
  rooms: ['canvas', 'context', 'drawer', 'editor', 'outputs', 'panels', 'rail', 'shelf', 'state', 'ui', 'workers'],
};
/** Rooms of the editor: which of its other rooms each may use. */
const editorMay = {
  viewport: [],
  plans: [],
  saving: [],
  outputs: [],
  playback: [],
  scene: [],
  hit: ['scene'],
  snap: ['scene'],
  actions: ['hit', 'scene'],
  arrivals: ['actions'],
  tools: ['actions', 'hit', 'scene', 'snap'],
  match: ['plans', 'playback', 'viewport'],
  drawing: ['playback', 'scene', 'snap', 'tools', 'viewport'],
  commands: ['actions', 'scene', 'tools'],
  overlay: ['drawing', 'tools'],
};
/** Rooms that stand above the editor as a whole, and take it. */
const ABOVE_THE_EDITOR = ['commands', 'overlay'];
const TESTS = '\\.test\\.ts$|/testing/';
const corner = (name, allowed) => ({
  name: `core-${name}`,
  severity: 'error',
  comment: `core/${name} may import ${allowed.join(', ') || 'nothing of ours'}`,
  from: { path: `^core/src/${name}/`, pathNot: TESTS },
  to: { path: '^core/src/', pathNot: `^core/src/(?:${[name, ...allowed].join('|')})/|^core/src/errors\\.ts$` },
});
const coreRoom = (folder, name, allowed) => {
  const may = [`${folder}/${name}/`, ...allowed.map((other) => `${folder}/${other}/index\\.ts$`)];
  return {
    name: `core-${folder}-${name}`,
    severity: 'error',
    comment: `core/${folder}/${name} may import ${allowed.join(', ') || 'no other room'} of ${folder}, through the door`,
    from: { path: `^core/src/${folder}/${name}/`, pathNot: TESTS },
    to: { path: `^core/src/${folder}/`, pathNot: `^core/src/(?:${may.join('|')})` },
  };
};
const editorRoom = (name, allowed) => ({
  name: `editor-${name}`,
  severity: 'error',
  comment: `editor/${name} may import ${allowed.join(', ') || 'no other room'} of the editor`,
  from: { path: `^web/src/editor/${name}/`, pathNot: TESTS },
  to: {
    path: '^web/src/editor/',
    pathNot: `^web/src/editor/(?:(?:${[name, ...allowed].join('|')})/${ABOVE_THE_EDITOR.includes(name) ? '|editor\\.ts$' : ''})`,
  },
});
/** A new room of the editor has no rule yet: it is to get one. */
const editorUnruled = {
  name: 'editor-room-without-rule',
  severity: 'error',
  comment: 'each folder of the editor stands in editorMay',
  from: { path: '^web/src/editor/[^/]+/', pathNot: `^web/src/editor/(?:${Object.keys(editorMay).join('|')})/` },
  to: {},
};
const room = (name, allowed) => ({
  name: `web-${name}`,
  severity: 'error',
  from: { path: `^web/src/${name}/`, pathNot: TESTS },
  to: { path: '^web/src/', pathNot: `^web/src/(?:${[name, ...allowed].join('|')})/|\\.scss$` },
});

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    ...Object.entries(coreMay).map(([name, allowed]) => corner(name, allowed)),
    ...Object.entries(coreRooms).flatMap(([folder, rooms]) =>
      Object.entries(rooms).map(([name, allowed]) => coreRoom(folder, name, allowed)),
    ),
    {
      name: 'core-by-index-inside',
      severity: 'error',
      comment: 'a folder of core is used through its index.ts',
      from: { path: '^core/src/([^/]+)/', pathNot: TESTS },
      to: { path: '^core/src/([^/]+)/.+', pathNot: `^core/src/$1/|^core/src/[^/]+/index\\.ts$` },
    },
    {
      name: 'core-packages',
      severity: 'error',
      comment: 'core uses pure packages only, and nothing of Node',
      from: { path: '^core/src/', pathNot: TESTS },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core', 'npm-no-pkg', 'npm-unknown'],
        pathNot:
          'node_modules/(?:saxes|css-what|culori|flatbush|flatqueue|immer|opentype\\.js|@types/culori|@types/opentype\\.js)/',
      },
    },
    { name: 'core-alone', severity: 'error', from: { path: '^core/src/' }, to: { path: '^(?:web|server|e2e)/' } },
    {
      name: 'core-by-index',
      severity: 'error',
      from: { path: '^(?:web|server)/src/', pathNot: TESTS },
      to: { path: '^core/src/', pathNot: '^core/src/index\\.ts$' },
    },
    { name: 'server-not-web', severity: 'error', from: { path: '^server/' }, to: { path: '^web/' } },
    { name: 'web-not-server', severity: 'error', from: { path: '^web/' }, to: { path: '^server/' } },
    ...Object.entries(webMay).map(([name, allowed]) => room(name, allowed)),
    ...Object.entries(editorMay).map(([name, allowed]) => editorRoom(name, allowed)),
    editorUnruled,
    {
      name: 'editor-without-react',
      severity: 'error',
      from: { path: '^web/src/(?:editor|state|workers)/', pathNot: TESTS },
      to: { path: 'node_modules/(?:react|react-dom|react-bootstrap)/' },
    },
    { name: 'testing-stays-out', severity: 'error', from: { pathNot: TESTS }, to: { path: '/testing/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
