import { describe, expect } from 'vitest';
import type { BenchPage } from './support/bench-page';
import { planned } from './support/film-set';
import { seeded } from './support/seeds';
import { test } from './support/test';

const menu = async (bench: BenchPage, name: string) => {
  await bench.page.locator('button[aria-haspopup=menu]').first().click();
  await bench.page.getByRole('menuitem', { name }).click();
};
const project = (bench: BenchPage) => new URL(bench.page.url()).searchParams.get('project');
const titled = (bench: BenchPage, name: string) =>
  bench.page.locator('button[aria-haspopup=menu]', { hasText: name }).waitFor();

async function rename(bench: BenchPage, name: string): Promise<void> {
  await menu(bench, 'Rename this project');
  await bench.page.getByLabel('Name of the project').fill(name);
  await bench.page.keyboard.press('Enter');
  await titled(bench, name);
}

describe('projects', () => {
  test('end where they begin: undo never leaves one for another', async ({ open }) => {
    const bench = await open({ seed: await seeded() });
    const first = project(bench);
    await menu(bench, 'Start a project of your own');
    await expect.poll(() => project(bench)).not.toBe(first);
    await titled(bench, 'My film 2');
    const second = project(bench);
    await rename(bench, 'Renamed');
    await bench.undo(4);
    await titled(bench, 'My film 2');
    await bench.page.getByText('There is nothing to undo.').first().waitFor();
    await bench.page.reload();
    await titled(bench, 'My film 2');
    expect(project(bench)).toBe(second);
    await bench.page.keyboard.press('Control+y');
    await titled(bench, 'Renamed');
  });

  test('are removed, brought back and deleted for good; another tab goes on elsewhere', async ({ open }) => {
    const bench = await open({ seed: await seeded() });
    const first = project(bench) as string;
    await rename(bench, 'The first');
    await menu(bench, 'Start a project of your own');
    await titled(bench, 'My film');
    const second = project(bench) as string;
    const other = await bench.another();
    await menu(bench, 'Remove this project …');
    await bench.press('Remove');
    await titled(bench, 'The first');
    await titled(other, 'The first');
    expect(project(other)).toBe(first);
    await menu(bench, 'Removed projects …');
    expect(await bench.audit()).toEqual([]);
    await bench.press('Bring back My film');
    await titled(bench, 'My film');
    expect(project(bench)).toBe(second);
    await bench.undo(1);
    await titled(bench, 'My film');

    await menu(bench, 'Remove this project …');
    await bench.press('Remove');
    await titled(bench, 'The first');
    await menu(bench, 'Removed projects …');
    await bench.press('Delete for good …: My film');
    await bench.press('Delete for good: My film');
    await bench.page.getByText('Nothing waits here.').waitFor();
    await bench.page.goto(bench.page.url().replace(first, second));
    await titled(bench, 'The first');
    await other.page.close();
  });

  test('are copied with all that is in them, and each goes on by itself', async ({ open }) => {
    const bench = await open({ seed: await planned() });
    const first = project(bench);
    const name = await bench.page.locator('button[aria-haspopup=menu]').innerText();
    await menu(bench, 'Copy this project');
    await expect.poll(() => project(bench)).not.toBe(first);
    await bench.settled();
    const moments = () => bench.page.locator('[data-moment]').count();
    await expect.poll(moments).toBeGreaterThan(0);
    await rename(bench, 'The other cut');
    await menu(bench, name);
    await titled(bench, name);
    expect(project(bench)).toBe(first);
  });

  test('leave an empty one when the last is removed', async ({ open }) => {
    const bench = await open({ seed: await seeded() });
    const only = project(bench);
    await rename(bench, 'The only one');
    await menu(bench, 'Remove this project …');
    await bench.press('Remove');
    await titled(bench, 'My film');
    expect(project(bench)).not.toBe(only);
    await bench.page.reload();
    await titled(bench, 'My film');
  });
});
