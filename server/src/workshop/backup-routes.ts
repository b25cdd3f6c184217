import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Backups } from '../store/backups';
import { restoreFrom } from './data';

const noBackup = (): DomainError => new DomainError('http/not-found', 'There is no backup of that name any more.');

/** Backups: what there are, one made now, one restored. */
export function backupRoutes(router: Router, backups: Backups): void {
  const { workshop } = router;
  router.read('/api/workshop/backups', 'Backups, newest first', async () => ({
    directory: backups.directory,
    backups: await backups.list(),
    now: workshop.now(),
  }));
  router.write('POST', '/api/workshop/backups', 'Make a backup now', z.object({}), () => backups.make('asked'));
  router.download('/api/workshop/backups/:name', 'One backup, packed', async (request) => {
    const stream = await backups.file(param(request.params, 'name'));
    if (!stream) throw noBackup();
    return { type: 'application/gzip', stream };
  });
  router.act(
    '/api/workshop/backups/:name/restore',
    'Put a backup in the place of everything; what is here now is backed up first',
    z.object({ confirm: z.string() }),
    async ({ confirm }, request) => {
      if (confirm.trim().toLowerCase() !== workshop.settings.name.trim().toLowerCase())
        throw new DomainError(
          'workshop/not-confirmed',
          'Type the name of the workshop to put the backup in its place.',
          [{ path: 'confirm', message: 'is not the name of this workshop' }],
        );
      const stream = await backups.read(param(request.params, 'name'));
      if (!stream) throw noBackup();
      let kept = '';
      const { steps } = await restoreFrom(workshop, stream, async () => {
        kept = (await backups.make('before-restore')).name;
      });
      return { steps, before: kept };
    },
  );
}

const DAY_MS = 86_400_000;
const LOOK_MS = 30 * 60_000;

/**
 * A backup a day on which something was entered. One that fails is said on every screen until one succeeds.
 *
 * @returns ends the watch
 */
export function watchBackups(router: Router, backups: Backups): () => void {
  const { workshop } = router;
  let seen = -1;
  const look = async (): Promise<void> => {
    const steps = workshop.book.steps.size;
    if (workshop.settings.demo || steps === 0 || steps === seen) return;
    const [newest] = await backups.list();
    if (newest && workshop.now() - newest.at < DAY_MS) return;
    await backups.make('daily');
    seen = steps;
  };
  const tick = setInterval(() => {
    look().then(
      () => workshop.trouble('backup', null),
      (error: unknown) => {
        router.app.log.error(error);
        workshop.trouble(
          'backup',
          `The daily backup into ${backups.directory} failed: ${error instanceof Error ? error.message : 'no reason given'}.`,
        );
      },
    );
  }, LOOK_MS);
  tick.unref();
  return () => clearInterval(tick);
}
