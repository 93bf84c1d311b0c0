/** Floors between workspaces, and no circles anywhere. */
export default {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'core-stands-alone', severity: 'error', from: { path: '^core/src' }, to: { path: '^(web|server|cli|e2e)/' } },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { conditionNames: ['import', 'types', 'default'] },
  },
};
