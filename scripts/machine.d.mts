/** @returns a function that says how long it is since then, and what the machine did meanwhile */
export function watch(): () => string;
