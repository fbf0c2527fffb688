import { expect, test } from '@playwright/test';
import { accessible, enter, freshStation, watch } from './helpers';

/** A JPEG of 40 by 20 pixels, left half dark, made by the page itself, held with its top to the right, and taken at a place. */
async function sidewaysPhoto(page: import('@playwright/test').Page): Promise<Buffer> {
  const base64 = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = 40;
    canvas.height = 20;
    const pen = canvas.getContext('2d');
    if (!pen) throw new Error('no canvas');
    pen.fillStyle = '#fff';
    pen.fillRect(0, 0, 40, 20);
    pen.fillStyle = '#000';
    pen.fillRect(0, 0, 20, 20);
    return canvas.toDataURL('image/jpeg', 0.95).split(',')[1];
  });
  const plain = Buffer.from(base64, 'base64');
  // EXIF with orientation 6 (the camera was held upright) and a place, big-endian TIFF (CIPA DC-008)
  const entry = (tag: number, type: number, count: number, value: number): Buffer => {
    const bytes = Buffer.alloc(12);
    bytes.writeUInt16BE(tag, 0);
    bytes.writeUInt16BE(type, 2);
    bytes.writeUInt32BE(count, 4);
    if (type === 3) bytes.writeUInt16BE(value, 8);
    else bytes.writeUInt32BE(value, 8);
    return bytes;
  };
  const tiff = Buffer.concat([
    Buffer.from('MM\0*\0\0\0\x08\0\x01', 'latin1'),
    entry(0x0112, 3, 1, 6),
    Buffer.alloc(4),
    Buffer.from('GPSLatitude 50.2 N', 'latin1'),
  ]);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([plain.subarray(0, 2), head, body, plain.subarray(2)]);
}

test('the diary keeps photos upright and without their place, is filtered, pinned, changed, and goes into the bin with its photos', async ({
  page,
}) => {
  const faults = await watch(page);
  await freshStation(page, [50.2, -19.3]);
  await enter(page, 'notebook', 'diary');
  const list = page.locator('[data-evidence]');
  const write = page.getByRole('region', { name: 'Write' });
  await write.getByLabel('What you did or saw').fill('Hung the rope over the hawthorn.');
  await write.getByLabel(/^Photos/).setInputFiles([
    { name: 'rope.jpg', mimeType: 'image/jpeg', buffer: await sidewaysPhoto(page) },
    { name: 'rope 2.jpg', mimeType: 'image/jpeg', buffer: await sidewaysPhoto(page) },
  ]);
  await write.getByRole('button', { name: 'Write it down' }).click();
  await expect(list.getByRole('img')).toHaveCount(2);
  // what is kept: turned (20 by 40), dark above, and nothing of the place
  const address = await list
    .getByRole('link', { name: /^Photo of/ })
    .first()
    .getAttribute('href');
  const kept = await page.request.get(String(address));
  expect(kept.headers()['content-type']).toBe('image/jpeg');
  expect((await kept.body()).toString('latin1')).not.toMatch(/Exif|GPSLatitude/);
  const seen = await page.evaluate(async (src) => {
    const picture = await createImageBitmap(await (await fetch(src)).blob());
    const canvas = document.createElement('canvas');
    canvas.width = picture.width;
    canvas.height = picture.height;
    const pen = canvas.getContext('2d');
    pen?.drawImage(picture, 0, 0);
    const at = (y: number) => pen?.getImageData(10, y, 1, 1).data[0] ?? -1;
    return { width: picture.width, height: picture.height, above: at(5), below: at(35) };
  }, String(address));
  expect([seen.width, seen.height]).toEqual([20, 40]);
  expect(seen.above).toBeLessThan(60);
  expect(seen.below).toBeGreaterThan(200);
  // a file that is no picture is told, and what was typed stays
  await write.getByLabel('What you did or saw').fill('A note with a text for a photo.');
  await write
    .getByLabel(/^Photos/)
    .setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') });
  await write.getByRole('button', { name: 'Write it down' }).click();
  await expect(write.getByText('x.jpg is not a picture that this browser reads')).toBeVisible();
  await expect(write.getByLabel('What you did or saw')).toHaveValue('A note with a text for a photo.');
  await page.reload();
  // filters, a pin, a change; all of it survives a reload
  await write.getByLabel('What you did or saw').fill('Rain all day.');
  await write.getByRole('button', { name: 'Write it down' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await list.getByRole('listitem').filter({ hasText: 'hawthorn' }).getByRole('button', { name: /^Pin/ }).click();
  await expect(list.getByRole('listitem').first()).toContainText('hawthorn');
  await page.getByLabel('with photos').check();
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await page.getByLabel('with photos').uncheck();
  await page.getByLabel('To', { exact: true }).fill('2020-01-01');
  await expect(page.getByText('No entry is left by these filters. Widen one.')).toBeVisible();
  await page.reload();
  await expect(list.getByRole('listitem').first()).toContainText('hawthorn');
  await accessible(page, 'diary with photos');
  // on paper: the list without the controls
  await page.emulateMedia({ media: 'print' });
  await expect(list).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print these' })).toBeHidden();
  await expect(page.getByRole('navigation')).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  // its photos go along, and come back with it
  await list
    .getByRole('button', { name: /^Delete Entry/ })
    .first()
    .click();
  await expect(page.getByRole('alertdialog')).toContainText('2 photos');
  await page
    .getByRole('alertdialog')
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(list.getByRole('img')).toHaveCount(0);
  await enter(page, 'notebook', 'bin');
  await page
    .getByRole('button', { name: /^Bring back/ })
    .first()
    .click();
  await enter(page, 'notebook', 'diary');
  await expect(list.getByRole('img')).toHaveCount(2);
  expect(faults).toEqual([]);
});
