// How the server is started. Most of what it makes is let go of at once: a small place for what is young keeps its memory
// small, and takes no longer. Of the database's functions only those are made quicker that are called for very long: to do it
// for all that a start goes through takes up to a third of it, and no entry is quicker for it.
export const SERVER = ['--max-semi-space-size=8', '--wasm-tiering-budget=100000000', 'server/dist/main.js'];

// Pieces of memory from 32 kB (columns, files, answers, what code is compiled in) are given back to the system when they are
// let go of, and not kept for later by each thread: read by glibc when the process begins, and by nobody elsewhere.
export const SERVER_ENV = {
  MALLOC_ARENA_MAX: '2',
  MALLOC_MMAP_THRESHOLD_: '32768',
  MALLOC_TRIM_THRESHOLD_: '131072',
};
