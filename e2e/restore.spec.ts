import { writeFileSync } from 'node:fs';
import { expect, test } from './test';

test.use({ workshop: 'restored' });

test('everything of one workshop goes out as a ZIP and comes into an empty one; another file is told from it', async ({
  page,
  workshops,
}, info) => {
  const zip = info.outputPath('wunsch-workshop.zip');
  writeFileSync(zip, await (await page.request.get(`${await workshops.at('demo')}/api/workshop/export.zip`)).body());
  await page.goto('/');
  await page.getByRole('link', { name: 'Or restore an export there' }).click();
  const file = page.getByLabel('Restore an export into this empty workshop');
  await file.setInputFiles({ name: 'notes.md', mimeType: 'text/markdown', buffer: Buffer.from('# Notes') });
  await expect(page.getByRole('alert')).toContainText('That is no export of a workshop');
  await file.setInputFiles(zip);
  // All of a demo is read row by row, with others in between.
  await expect(page.getByRole('heading', { name: 'Orrin & Lusk, Saltgarth' })).toBeVisible({ timeout: 90_000 });
  await expect(file).toHaveCount(0);
  await page.goto('/lot/L005');
  // Its photos came along.
  const picture = page.getByRole('img').first();
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
});
