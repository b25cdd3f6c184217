// Packages are loaded once for all tests of a process, by Node itself: they are of the same context, and not what is tested.
module.exports = {
  process: (source, file, { supportsDynamicImport: ofTests }) => ({
    // Jest also asks for Node's own loader, which takes them as they are.
    code: ofTests ? `module.exports = loadedByNode(${JSON.stringify(file)});` : source,
  }),
  getCacheKey: (_source, file, { supportsDynamicImport: ofTests }) => `${ofTests ? 'loadedByNode' : 'source'}:${file}`,
};
