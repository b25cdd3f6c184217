/** What Node is told to start the server: options, and its file within the project. */
export declare const SERVER: readonly string[];
