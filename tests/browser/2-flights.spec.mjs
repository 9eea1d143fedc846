import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { expect, link, test } from './hands.mjs';

const readout = async (page) => Number((await page.locator('#reading').innerText()).split(' ')[0]);

test('traces zoom and move from the whole flight to ten milliseconds', async ({ page }) => {
  await page.goto('/craft/curlew/52?log=1');
  const traces = page.locator('#traces');
  await expect(traces).toHaveAttribute('data-drawn', /\d/);
  const box = await traces.boundingBox();
  const span = async () => {
    await page.mouse.move(box.x + 70, box.y + 60);
    const from = await readout(page);
    await page.mouse.move(box.x + box.width - 120, box.y + 60);
    return (await readout(page)) - from;
  };
  expect(await span()).toBeGreaterThan(35);
  // Drag a part.
  await page.mouse.move(box.x + 300, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 400, box.y + 60, { steps: 5 });
  await page.mouse.up();
  expect(await span()).toBeLessThan(8);
  // Wheel in as far as it goes.
  await page.mouse.move(box.x + 400, box.y + 60);
  for (let i = 0; i < 45; i++) await page.mouse.wheel(0, -200);
  const least = await span();
  expect(least).toBeLessThan(0.0101);
  expect(least).toBeGreaterThan(0.005);
  await expect(page.locator('#values')).toContainText('deg/s');
  // Keys: move right, out again, all.
  await traces.focus();
  const at = await readout(page);
  await page.keyboard.press('ArrowRight');
  await page.mouse.move(box.x + box.width - 121, box.y + 61);
  expect(await readout(page)).toBeGreaterThan(at);
  await page.keyboard.press('-');
  expect(await span()).toBeGreaterThan(least * 1.5);
  await page.keyboard.press('Home');
  expect(await span()).toBeGreaterThan(35);
  await page.getByLabel('Rows of traces').selectOption('motors');
  await page.mouse.move(box.x + 300, box.y + 60);
  await expect(page.locator('#values')).toContainText('rpm');
  await page.getByLabel('Go to time, seconds').fill('20');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect(page.locator('#sticks rect').first()).toBeVisible();
  const [numbers] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  const rows = readFileSync(await numbers.path(), 'utf8').split('\n');
  expect(rows[0]).toContain('time_s,output_front_right_pct_least');
  expect(rows.length).toBeGreaterThan(100);
});

test('noise shows peaks by axis, two logs together, and exports', async ({ page }) => {
  await page.goto('/craft/curlew/53?log=2');
  await expect(page.locator('#noise-plot canvas')).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('deg/s RMS');
  await page.getByLabel('pitch').check();
  await page.locator('#noise-plot .u-over').hover({ position: { x: 200, y: 100 } });
  await expect(page.locator('#reading')).toContainText(/Hz\s+measured/);
  await page.getByLabel('beside it').selectOption({ index: 1 });
  await expect(page.locator('.says')).toContainText('Changed since');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  const text = readFileSync(await file.path(), 'utf8').split('\n');
  expect(text[0]).toContain('hz,measured_db,filtered_db');
  expect(text.length).toBeGreaterThan(500);
  const [picture] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'PNG' }).click()]);
  expect(readFileSync(await picture.path()).subarray(1, 4).toString()).toBe('PNG');
});

test('a log is downloaded, brought back in, and a bad one is refused in words', async ({ page }) => {
  await link(page, 'bittern');
  await page.goto('/craft/bittern/51');
  const rows = page.locator('#logs tbody tr[data-log]');
  const before = await rows.count();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).first().click()]);
  const csv = readFileSync(await file.path(), 'utf8');
  expect(csv).toContain('time_s,throttle_pct');
  await page.locator('[data-import]').setInputFiles({ name: 'reeds.csv.gz', mimeType: 'application/gzip', buffer: gzipSync(csv.replace('flight.card', 'flight.was')) });
  await expect(rows).toHaveCount(before + 1, { timeout: 40_000 });
  await expect(rows.first()).toContainText('reeds.csv.gz');
  await page.locator('[data-import]').setInputFiles({ name: 'lunch.csv', mimeType: 'text/csv', buffer: Buffer.from('bread,cheese\n1,2\n') });
  await expect(page.locator('.job')).toContainText('Bring in lunch.csv: failed');
  await expect(page.locator('.job')).toContainText('no column time_s');
  await page.getByRole('button', { name: 'Put aside' }).click();
  await expect(page.locator('.job')).toHaveCount(0);
});
