import 'fake-indexeddb/auto';
import { openBrowser } from '../e2e/support/browser';
import { startServer } from '../e2e/support/server';
import { BenchPage } from '../e2e/support/bench-page';
import { seeded } from '../e2e/support/seeds';
try {
  const server = await startServer();
  const browser = await openBrowser();
  const bench = await BenchPage.open(browser, server.url, { seed: await seeded() });
  const { page } = bench;
  const menu = async (name: string) => {
    await page.locator('button[aria-haspopup=menu]').first().click();
    await page.getByRole('menuitem', { name }).click();
  };
  await menu('Start a project of your own');
  await page.locator('button[aria-haspopup=menu]', { hasText: 'My film 2' }).waitFor();
  await menu('Rename this project');
  await page.getByLabel('Name of the project').fill('Renamed');
  await page.keyboard.press('Enter');
  await page.locator('button[aria-haspopup=menu]', { hasText: 'Renamed' }).waitFor();
  console.log(await page.evaluate(`[document.activeElement.outerHTML.slice(0,120), document.body.outerHTML.slice(0,200), [...document.querySelectorAll('[role=menu],[role=dialog],[data-state=open]')].map(x=>x.outerHTML.slice(0,150))]`));
  await page.keyboard.press('Control+z');
  await bench.settled();
  await page.screenshot({ path: '/tmp/look/a.png' });
  for (let i=0;i<3;i++){await page.keyboard.press('Control+z');await bench.settled();} console.log(await page.evaluate('document.body.innerText.slice(-300)'), bench.errors); await page.getByRole('button',{name:'Undo (Ctrl+Z)'}).click(); await bench.settled(); console.log(await page.evaluate('document.body.innerText.slice(0,30)'));
} catch (error) {
  console.log(error);
}
process.exit(0);
