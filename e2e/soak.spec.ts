import { expect, openDemo, test } from './page';

test('twenty cards one after the other, in one drawing context, leave nothing behind', async ({ page, context }) => {
  const warnings: string[] = [];
  page.on('console', (message) => warnings.push(message.text()));
  await openDemo(page, 'Thank-you easel');
  const session = await context.newCDPSession(page);
  const count = async (): Promise<number> => {
    await session.send('HeapProfiler.collectGarbage');
    return (await session.send('Memory.getDOMCounters')).nodes;
  };
  const visit = async (i: number): Promise<void> => {
    await page.getByRole('link', { name: 'Back to the shelf' }).click();
    await page
      .locator('.cards .card .picture')
      .nth(i % 12)
      .click();
    await expect(page.locator('dip-standing-view canvas')).toBeVisible();
  };
  for (let i = 0; i < 4; i++) await visit(i);
  const before = await count();
  for (let i = 0; i < 20; i++) await visit(i);
  expect((await count()) / before).toBeLessThan(1.6);
  expect(warnings.filter((words) => /WebGL|context/i.test(words))).toEqual([]);
});
