/** What Node is told to start the server: options, and its file within the project. */
export declare const SERVER: readonly string[];
/** What its process is told of memory. */
export declare const SERVER_ENV: Readonly<Record<string, string>>;
