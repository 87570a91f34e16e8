import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import type { Browser, Locator } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { startServer } from './support/server';

const folder = mkdtempSync(join(tmpdir(), 'plan-'));
const file = (name: string) => join(folder, name);

describe('the plan, on the demo', () => {
  let browser: Browser;
  let server: Awaited<ReturnType<typeof startServer>>;
  let bench: BenchPage;

  beforeAll(async () => {
    server = await startServer(4390);
    browser = await openBrowser();
    bench = await BenchPage.open(browser, server.url);
    await bench.page.locator('[data-moment]').nth(5).waitFor({ timeout: 180_000 });
    await bench.settled();
    await bench.go('Plan');
  });
  afterAll(async () => {
    await bench?.close();
    await browser?.close();
    await server?.stop();
  });

  const press = (name: string) => bench.page.getByRole('button', { name, exact: true }).first().click();
  const part = async (name: string) => {
    await press(name);
    await bench.page.getByRole('button', { name, exact: true, pressed: true }).waitFor();
  };
  const type = async (field: Locator, text: string) => {
    await field.focus();
    await bench.page.keyboard.press('Enter');
    await bench.page.keyboard.type(text);
    await bench.page.keyboard.press('Enter');
  };
  const number = (name: string) => bench.page.getByRole('spinbutton', { name, exact: true });

  it('leads from six moments to a call sheet without a number typed', async () => {
    const { page } = bench;
    expect(await page.locator('[data-plan]').count()).toBe(6);
    await part('Take along');
    await press('Call sheet');
    const rows = await page
      .locator('tbody tr')
      .filter({ hasText: /\d\d:\d\d/ })
      .allInnerTexts();
    expect(rows.length).toBeGreaterThan(18);
    expect(rows[0]).toMatch(/10:00\s+Clean plate/);
    expect(rows.some((row) => row.includes('Powder falls'))).toBe(true);
    const text = await page.locator('main').innerText();
    expect(text).toMatch(/2026-11-28, call 09:30, wrap \d\d:\d\d/);
    expect(text).toMatch(/local rules and licensed practice come first/);
    for (const paper of ['Shot list', 'Setup sheets', 'Room and zones', 'Packing list']) {
      await press(paper);
      expect((await page.locator('main').innerText()).length).toBeGreaterThan(150);
    }
    await press('Back');
  });

  it('drags a mark in one view and reads it in the other', async () => {
    const { page } = bench;
    await part('Room');
    const above = page.getByRole('group', { name: 'The room from above' });
    const lens = page.getByRole('group', { name: /Through the lens/ });
    const mark = above.locator('[data-mark=Left]');
    expect(await mark.getAttribute('aria-label')).toMatch(/260 cm from the lens, at 31 % of the width/);
    await mark.focus();
    await page.keyboard.press('Shift+ArrowLeft');
    await expect.poll(() => mark.getAttribute('aria-label')).toMatch(/267 cm from the lens, at 25 %/);
    expect(await lens.locator('[data-mark=Left]').getAttribute('aria-label')).toMatch(/267 cm/);
    const box = await lens.locator('[data-mark=Right]').boundingBox();
    if (!box) throw new Error('The mark is not drawn.');
    // Taken by the head and let go on the floor a little left: the tape says where that is.
    await page.mouse.move(box.x + box.width / 2, box.y + 14);
    await page.mouse.down();
    const frame = await lens.boundingBox();
    if (!frame) throw new Error('There is no picture.');
    await page.mouse.move(frame.x + frame.width * 0.6, frame.y + frame.height * 0.95, { steps: 4 });
    await page.mouse.up();
    // 95 % down: 1.25 m below the lens at 0.45 · 20.25 / 24 of the distance is 3.29 m away.
    await expect
      .poll(() => above.locator('[data-mark=Right]').getAttribute('aria-label'))
      .toMatch(/3[23]\d cm .* 60 %/);
    for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
    await expect.poll(() => mark.getAttribute('aria-label')).toMatch(/260 cm/);
  });

  it('answers while one types: a wide aperture blurs a mark, the finding mends it', async () => {
    await type(number('Aperture'), 'f/1.4');
    await type(number('Focus'), '1 m');
    await bench.finding('plan.unsharp').waitFor();
    expect(await bench.finding('plan.unsharp').innerText()).toMatch(/focused at 250 cm holds every mark/);
    await bench.finding('plan.unsharp').getByRole('button', { name: 'Set it so' }).click();
    await bench.finding('plan.sharp').waitFor();
    await type(number('Shutter'), '1/60');
    await bench.finding('plan.flicker').getByRole('button').click();
    await expect.poll(() => number('Shutter').innerText()).toBe('1/50 s');
  });

  it('refuses lenses that cannot be, in a sentence, and keeps what was there', async () => {
    const { page } = bench;
    for (const text of ['0', '-24']) {
      await type(number('Focal length'), text);
      await page
        .getByText(/give the focal length in millimetres, more than 0/)
        .first()
        .waitFor();
      expect(await number('Focal length').innerText()).toBe('24 mm');
    }
    writeFileSync(file('no-picture.png'), 'This is no picture.');
    await page.getByTestId('still').setInputFiles(file('no-picture.png'));
    await page.getByText(/no picture that this browser can read/).waitFor();
  });

  it('draws zones on the picture and finds what moves under a join', async () => {
    const { page } = bench;
    await bench.finding('zone.clear').waitFor();
    await press('thing that moves');
    const frame = await page.getByRole('group', { name: /Through the lens/ }).boundingBox();
    if (!frame) throw new Error('There is no picture.');
    await page.mouse.move(frame.x + frame.width * 0.47, frame.y + frame.height * 0.4);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width * 0.55, frame.y + frame.height * 0.55, { steps: 4 });
    await page.mouse.up();
    await bench.finding('zone.moving').waitFor();
    await part('Moments');
    expect(await page.locator('[data-plan]').first().innerText()).toMatch(/something moves under the join/);
    await page.keyboard.press('Control+z');
    await part('Room');
    await bench.finding('zone.clear').waitFor();
    // The same with the keyboard alone.
    await page.getByRole('button', { name: 'thing that moves', exact: true }).focus();
    await page.keyboard.press('Enter');
    await bench.finding('zone.moving').waitFor();
    const end = page.getByRole('button', { name: /^New thing that moves, first end/ });
    await end.focus();
    const before = await end.getAttribute('cx');
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => end.getAttribute('cx')).not.toBe(before);
    for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z');
    await bench.finding('zone.clear').waitFor();
  });

  it('shows every number with its drawing, and lets each follow what it depends on', async () => {
    const { page } = bench;
    await part('Numbers');
    const card = (name: string) => page.locator(`[data-number="${name}"]`);
    const names = await page
      .locator('[data-number]')
      .evaluateAll((all) => all.map((one) => one.getAttribute('data-number')));
    expect(names).toHaveLength(10);
    for (const name of names)
      expect(
        await card(name ?? '')
          .locator('svg')
          .count(),
      ).toBe(1);
    expect(await card('Field of view').innerText()).toMatch(/73\.7°/);
    // The answer stands there before Enter, and goes again with Escape.
    await number('Focal length of the field').focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type('35');
    await expect.poll(() => card('Field of view').innerText()).toMatch(/54\.4°/);
    await page.keyboard.type('0000000');
    await expect.poll(() => card('Field of view').innerText()).toMatch(/73\.7°/);
    await page.keyboard.press('Escape');
    expect(await number('Focal length of the field').innerText()).toBe('24 mm');
    // What each depends on, and a value that has to change what it says.
    const changes: [string, string, string, RegExp][] = [
      // 24 mm at f/1.4 focused at 1.5 m, c = 0.0288 mm: 1.36 m to 1.67 m (thin lens).
      ['Depth of field', 'Focus distance', '150 cm', /sharp from 136 cm to 167 cm/],
      ['Field of view', 'Focal length of the field', '50', /39\.6°/],
      ['Shutter and mains', 'Shutter part of a second', '1/60', /144°/],
      ['Motion blur', 'Shutter part of a second', '1/25', /px/],
      ['Storage and battery', 'Megabits a second', '400', /GB/],
    ];
    for (const [name, field, value, says] of changes) {
      const before = await card(name).innerText();
      await type(number(field), value);
      await expect.poll(() => card(name).innerText(), { message: name }).not.toBe(before);
      expect(await card(name).innerText()).toMatch(says);
      await page.keyboard.press('Control+z');
      await expect.poll(() => card(name).innerText()).toBe(before);
    }
    const screen = await card('Screen colour').innerText();
    await card('Screen colour').getByRole('button').click();
    await page.keyboard.type('#d228a0 #28aa46');
    await page.keyboard.press('Enter');
    await expect.poll(() => card('Screen colour').innerText()).not.toBe(screen);
    expect(await card('Screen colour').innerText()).toMatch(/Furthest from them: (yellow|blue|red)/);
    await page.keyboard.press('Control+z');
    await page.getByRole('combobox', { name: 'Setup' }).click();
    await page.getByRole('option', { name: 'Yard' }).click();
    expect(await card('Capture rate').innerText()).toMatch(/40\.0 % without doubling[\s\S]*set: 250 %/);
    expect(await card('Picture reserve').innerText()).toMatch(/steadying 110 % × following 108 % = 119 %/);
    expect(await card('Upright cut').innerText()).toMatch(/405\.0 px of 1280/);
    const sun = await card('Sun').innerText();
    await type(number('Latitude'), '90');
    await expect.poll(() => card('Sun').innerText()).not.toBe(sun);
    await page.keyboard.press('Control+z');
    await expect.poll(() => card('Sun').innerText()).toBe(sun);
  });

  it('locks a place with keys, names what contradicts it, and frees it', async () => {
    const { page } = bench;
    await part('Order');
    await bench.finding('order.fits').waitFor();
    const knots = page.locator('[data-knot]');
    const order = () => knots.evaluateAll((all) => all.map((one) => one.getAttribute('data-knot')));
    const before = await order();
    const at = before.indexOf('The pose');
    await knots.nth(at).focus();
    await page.keyboard.press('ArrowRight');
    await expect.poll(order).not.toEqual(before);
    expect((await order())[at + 1]).toBe('The pose');
    const last = before.indexOf('Clean plate again');
    await knots.nth(last).focus();
    await page.keyboard.press('ArrowLeft');
    await bench.finding('order.conflict').waitFor();
    expect(await bench.finding('order.conflict').innerText()).toMatch(/“.+” .*after “.+”.*locked by hand/);
    await page.getByRole('button', { name: /^Free all 2 locked places/ }).click();
    await expect.poll(order).toEqual(before);
  });

  it('warns of a day that is too short, and takes one over midnight', async () => {
    const { page } = bench;
    const set = async (name: RegExp, text: string) => {
      await page.getByTestId('day').getByRole('button', { name }).click();
      await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    };
    await set(/^Until/, '11');
    await bench.finding('order.over').waitFor();
    await set(/^From/, '22:30');
    await set(/^Until/, '5:00');
    await expect.poll(() => page.locator('tbody tr').first().innerText()).toMatch(/23:00/);
    // The yard needs the sun, which rises after five.
    expect(await bench.finding('order.late').count()).toBe(2);
    await set(/^Time zone/, 'Nowhere/City');
    await page.getByText(/no time zone that this device knows/).waitFor();
    for (let step = 0; step < 3; step++) await page.keyboard.press('Control+z');
    await expect.poll(() => page.locator('tbody tr').first().innerText()).toMatch(/10:00/);
  });

  it('hands the shot list and the timetable over', async () => {
    await (await bench.save('Shot list (CSV)')).saveAs(file('shots.csv'));
    await (await bench.save('Timetable (calendar)')).saveAs(file('day.ics'));
    const rows = Papa.parse<Record<string, string>>(readFileSync(file('shots.csv'), 'utf8'), {
      header: true,
    }).data;
    const calendar = new ICAL.Component(ICAL.parse(readFileSync(file('day.ics'), 'utf8')));
    const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events.map((event) => event.summary)).toEqual(rows.map((row) => row.Shot));
    // Lisbon keeps UTC in November.
    expect(events[0].startDate.toJSDate().toISOString()).toBe('2026-11-28T10:00:00.000Z');
    expect(rows[0].From).toBe('10:00');
  });

  it('says which shots go with a moment, and brings all back', async () => {
    const { page } = bench;
    const shots = async () => Number(/(\d+) shots/.exec(await page.locator('header').innerText())?.[1]);
    const before = await shots();
    await part('Moments');
    await page.locator('[data-plan]').nth(1).getByRole('button', { name: 'Look' }).click();
    await press('Remove the moment');
    const going = await page.getByTestId('going').locator('li').allInnerTexts();
    expect(going).toEqual(expect.arrayContaining(['Before the change', 'After the change', 'What falls']));
    expect(going).not.toContain('Clean plate');
    expect(await page.getByTestId('staying').innerText()).toMatch(/Clean plate/);
    await press('Remove');
    await expect.poll(shots).toBe(before - going.length);
    await page.keyboard.press('Control+z');
    await expect.poll(shots).toBe(before);
  });

  it('asks once what a moment is for, and takes another kind', async () => {
    const { page } = bench;
    const asked = bench.finding('style.story');
    const count = await asked.count();
    expect(count).toBeGreaterThan(0);
    await asked.first().getByRole('button').click();
    await expect.poll(() => asked.count()).toBe(count - 1);
    const first = page.locator('[data-plan]').nth(2);
    await first.getByRole('combobox', { name: /^Kind of/ }).click();
    await page.getByRole('option', { name: 'Build-up' }).click();
    await first.getByRole('button', { name: 'Look' }).click();
    await expect.poll(() => first.innerText()).toMatch(/Object 5 of 5, from the back/);
    await bench.go('Build');
    await page.getByText(/is planned, not built here yet/).waitFor();
    await bench.go('Plan');
    await page.getByRole('combobox', { name: 'Add a moment' }).click();
    await page.getByRole('option', { name: 'Ghost trail' }).click();
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(7);
    for (let step = 0; step < 3; step++) await page.keyboard.press('Control+z');
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(6);
    await expect.poll(() => asked.count()).toBe(count);
  });

  it('switches between metric and imperial everywhere', async () => {
    const { page } = bench;
    await press('Lengths are metric. Switch');
    for (const name of ['Room', 'Numbers', 'Take along']) {
      await part(name);
      const text = await page.locator('main').innerText();
      expect(text, name).not.toMatch(/\d (cm|m)\b/);
      expect(text, name).toMatch(/\d′ |\d″/);
    }
    for (const paper of ['Setup sheets', 'Room and zones']) {
      await press(paper);
      const text = await page.locator('main').innerText();
      expect(text).toMatch(/\d′ /);
      expect(text).not.toMatch(/\d cm\b/);
    }
    await press('Back');
    await press('Lengths are imperial. Switch');
  });

  it('keeps ticks and things of one’s own over a reload in the middle', async () => {
    const { page } = bench;
    await page.getByLabel('Something of your own to pack').fill('thermos');
    await page.keyboard.press('Enter');
    await page.getByLabel('thermos, packed').click();
    await page.getByLabel('The blow aims to miss').click();
    await page.locator('input:checked').nth(1).waitFor();
    await page.reload();
    await page.getByLabel('thermos, packed').waitFor({ timeout: 60_000 });
    expect(await page.getByLabel('thermos, packed').isChecked()).toBe(true);
    expect(await page.getByLabel('The blow aims to miss').isChecked()).toBe(true);
    expect(await page.getByLabel('thermos, back again').isChecked()).toBe(false);
  });

  it('reads well on a phone and at night; axe finds nothing', async () => {
    const { page } = bench;
    for (const size of [
      { width: 390, height: 844 },
      { width: 1280, height: 800 },
    ]) {
      await page.setViewportSize(size);
      await page.mouse.move(2, 500);
      for (const name of ['Moments', 'Room', 'Numbers', 'Order', 'Take along']) {
        await part(name);
        await page.waitForTimeout(300);
        const { violations } = await new AxeBuilder({ page }).analyze();
        expect(violations.map((one) => `${name} ${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
        const wide = await page.evaluate('document.documentElement.scrollWidth - innerWidth');
        expect(wide, name).toBeLessThanOrEqual(0);
      }
      await page.keyboard.press('n');
    }
    await press('Call sheet');
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(violations.map((one) => one.id)).toEqual([]);
    await press('Back');
  });

  it('says what to do while there is nothing, and without a setup', async () => {
    const { page } = bench;
    await bench.go('Song');
    await bench.ownProject();
    await bench.go('Plan');
    await page.getByText('Nothing is planned yet').waitFor();
    await bench.go('Song');
    await press('Work without a song');
    await press('Moment here');
    await bench.go('Plan');
    await part('Moments');
    await bench.finding('plan.no-setup').waitFor();
    await part('Room');
    await press('Add a setup');
    await page.getByRole('group', { name: 'The room from above' }).waitFor();
    await bench.finding('plan.sharp').waitFor();
    await part('Order');
    expect(await page.locator('[data-knot]').count()).toBe(4);
    await press('Timetable (calendar)');
    await page.getByText(/Give the day a date first/).waitFor();
  });
});
