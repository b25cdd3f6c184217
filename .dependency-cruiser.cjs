const STATIONS = 'beans|sort|roast|winnow|grind|rest|temper|mould|pack|taste|money|recipe';
/** What stations of the core may use, and not one another: everything they share goes through the ledger. */
const LOWER = 'trials|work|fields|composition|gates|entry|units|errors|ledger|workshop|stats|run|record/';

/** Rooms (the folders of a layer) use one another downward only: no circle of folders. */
module.exports = {
  forbidden: [
    {
      name: 'no-circle-of-rooms',
      severity: 'error',
      scope: 'folder',
      from: { path: '^(core|server|web)/src/[^/]+$' },
      to: { circular: true, path: '^(core|server|web)/src/[^/]+$' },
    },
    {
      name: 'no-station-from-another',
      comment: 'Areas share through the ledger, not with each other.',
      severity: 'error',
      from: { path: `^core/src/(${STATIONS})/` },
      to: { path: '^core/src/', pathNot: ['^core/src/$1/', `^core/src/(${LOWER})`] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    includeOnly: '^(core|server|web)/src/',
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx'] },
    parser: 'tsc',
  },
};
