/** how often a page with a flow open says so */
export const HERE_EVERY_MS = 15_000;
