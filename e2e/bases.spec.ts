import { expect, expectAccessible, openDemo, savedBy, setSize, test, tryStep } from './page';

const KINDS = [
  ['Folded card', 'Depth'],
  ['Doors with a rising strip', 'Closed width'],
  ['Tucked-wing display', 'Closed width'],
  ['Bellows box with a window', 'Closed width'],
  ['Layered stage', 'Inner width'],
  ['Easel, folded front', 'Depth'],
  ['Easel, one long strip', 'Display height'],
  ['Easel, hung shape', 'Height of the shape'],
  ['Easels in a row', 'Depth'],
  ['Four-wall box', 'First wall'],
  ['Step easel with a floating panel', 'Depth'],
  ['Half-turn stand', 'Blank, along the line'],
  ['Swing card', 'Blank, across'],
  ['Film stand', 'Film height'],
  ['Rising pocket', 'Back'],
] as const;

for (const [kind, size] of KINDS) {
  test(`${kind}: from Movements to the bench, changed, undone, looked at, exported, printed and made`, async ({ page }) => {
    await page.goto('/movements');
    await page.getByRole('button', { name: `Start ${kind}`, exact: true }).click();
    await page.getByLabel('Across the fold').fill('130 mm');
    await page.getByLabel('Along the fold').fill('130 mm');
    await page.getByRole('button', { name: 'Take it to the bench' }).click();
    await tryStep(page, size);
    const opening = page.getByRole('slider', { name: 'Opening' });
    for (const key of ['Home', 'End']) await opening.press(key);
    await page.getByRole('button', { name: 'Which side shows' }).click();
    await expect(page.locator('dip-sides-view figure')).toHaveCount(3);
    await page.getByRole('button', { name: 'Thickness when closed' }).click();
    await expect(page.locator('dip-thickness-view strong')).toHaveText(/mm$/);
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Print and files' }).click();
    const pattern = JSON.parse((await savedBy(page, 'Crease pattern (FOLD)')).toString()) as {
      file_spec: number;
      edges_assignment: string[];
    };
    expect(pattern.file_spec).toBe(1.2);
    expect(pattern.edges_assignment).toContain('B');
    expect((await savedBy(page, 'One page with everything')).subarray(0, 5).toString()).toBe('%PDF-');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Make it' }).click();
    await expect(page.getByRole('heading', { name: 'Put everything on the table' })).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: /^Trim: / })).toBeVisible();
  });
}

test('a layer of another width is found at the root and mended in one step', async ({ page }) => {
  await openDemo(page, 'First frost');
  await page.locator('#base-layers-1-width').fill('112 mm');
  await page.locator('#base-layers-1-width').press('Tab');
  await expect(
    page.getByText('The back is 110 mm wide, layer 1 112 mm: 2 mm apart, so that the stage does not shear flat.').first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Make the layer 1 110 mm.' }).click();
  await expect(page.getByText(/Ready to make/).first()).toBeVisible();
});

test('a drawing of the maker’s own becomes the window', async ({ page }) => {
  await openDemo(page, 'Lantern box');
  await page.getByLabel('Drawing for Window').setInputFiles({
    name: 'moth.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><g transform="scale(2)"><path d="M0 0Q20 30 40 0L30 40H10Z"/></g></svg>'),
  });
  await expect(page.getByRole('combobox', { name: 'Window', exact: true })).toContainText('moth.svg');
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Window', exact: true })).toContainText('moth.svg');
});

test('limits of the post are checked only once they are entered', async ({ page }) => {
  await openDemo(page, 'Lantern box');
  await expect(page.getByText(/Your post/)).toHaveCount(0);
  await page.getByText('Limits of my post').click();
  await setSize(page, 'Thickness up to', '1 mm');
  // As thick as the closed card is with its layers and the band round it.
  await expect(page.getByText(/^Your post does not take it: [1-9]\.\d mm thick, and 1 mm is the limit you entered\.$/)).toBeVisible();
});
