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
