import type { Workshop } from '../journal/workshop';

const LOOK_MS = 20_000;
const TIDY_MS = 6 * 3_600_000;

/**
 * Looks after the disk: says when there is little room, and tidies the store up now and then.
 *
 * @returns ends it
 */
export function watchStore(workshop: Workshop, log: (error: unknown) => void): () => void {
  let tidied = Date.now();
  let [seen, last] = [workshop.version, workshop.version];
  const look = async (): Promise<void> => {
    workshop.watchDisk();
    const now = Date.now();
    // While nobody enters anything: it takes a moment.
    const quiet = last === workshop.version;
    last = workshop.version;
    if (!quiet || now - tidied < TIDY_MS || seen === last) return;
    tidied = now;
    seen = last;
    await workshop.upkeep();
  };
  const timer = setInterval(() => void look().catch(log), LOOK_MS);
  timer.unref();
  return () => clearInterval(timer);
}
