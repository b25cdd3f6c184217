// How the server is started. Most of what it makes is let go of at once: a small place for what is young keeps its memory
// small, and takes no longer.
export const SERVER = ['--max-semi-space-size=8', 'server/dist/main.js'];
