import { readFileSync, writeFileSync } from 'node:fs';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import { describe, expect } from 'vitest';
import { createMoment } from '@/store/commands/moments';
import { addSetup } from '@/store/commands/plan';
import { desktop, phone, type BenchPage, type Opening } from './support/bench-page';
import { ruled } from './support/film-set';
import { demoFilm } from './support/films';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** The demo's plan, everything measured. */
const withPlan = async (
  open: (how?: Opening) => Promise<BenchPage>,
  part: 'needs' | 'room' | 'numbers' | 'order' | 'along',
  how: Opening = {},
) => {
  const bench = await open({ seed: demoFilm(), at: `station=plan&part=${part}`, ...how });
  await bench.settled();
  return bench;
};
/** Waits until every shot that the page counts has its knot: a long order comes a few at a time. */
const allDrawn = async ({ page }: BenchPage) => {
  const said = await page
    .getByText(/\d+ moments? · \d+ shots?/)
    .first()
    .innerText();
  await expect.poll(() => page.locator('[data-knot]').count()).toBe(Number(/(\d+) shot/.exec(said)?.[1]));
};

const part = async ({ page }: BenchPage, name: string) => {
  const tab = page.getByRole('tab', { name, exact: true });
  await tab.click();
  await tab.and(page.locator('[aria-selected=true]')).waitFor();
};

describe('the plan, on the demo', () => {
  test('leads from eight moments to a call sheet without a number typed', async ({ open }) => {
    const bench = await withPlan(open, 'needs');
    const { page } = bench;
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(8);
    await part(bench, 'Take along');
    await bench.press('Call sheet');
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
      await bench.press(paper);
      expect((await page.locator('main').innerText()).length).toBeGreaterThan(150);
    }
    await bench.press('Back');
  });

  test('drags a mark in one view and reads it in the other', async ({ open }) => {
    const bench = await withPlan(open, 'room');
    const { page } = bench;
    await part(bench, 'Room');
    const above = page.getByRole('group', { name: 'The room from above' });
    const lens = page.getByRole('group', { name: /Through the lens/ });
    const mark = above.locator('[data-mark=Left]');
    expect(await mark.getAttribute('aria-label')).toMatch(/260 cm from the lens, at 31 % of the width/);
    await mark.focus();
    await page.keyboard.press('Shift+ArrowLeft');
    await expect.poll(() => mark.getAttribute('aria-label')).toMatch(/267 cm from the lens, at 25 %/);
    expect(await lens.locator('[data-mark=Left]').getAttribute('aria-label')).toMatch(/267 cm/);
    const box = await lens.locator('[data-mark=Right] path').first().boundingBox();
    const frame = await lens.boundingBox();
    if (!box || !frame) throw new Error('The mark is not drawn.');
    // Taken by the chest and moved until the feet stand a little left and nearer: the tape says where that is.
    const [x, feet, chest] = [box.x + box.width / 2, box.y + box.height, box.y + box.height * 0.2];
    await page.mouse.move(x, chest);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width * 0.6, frame.y + frame.height * 0.95 + chest - feet, {
      steps: 4,
    });
    await page.mouse.up();
    // 95 % down: 1.25 m below the lens at 0.45 · 20.25 / 24 of the distance is 3.29 m away.
    await expect
      .poll(() => above.locator('[data-mark=Right]').getAttribute('aria-label'))
      .toMatch(/3[23]\d cm .* 60 %/);
    await bench.undo(2);
    await expect.poll(() => mark.getAttribute('aria-label')).toMatch(/260 cm/);
  });

  test('answers while one types: a wide aperture blurs a mark, the finding mends it', async ({ open }) => {
    const bench = await withPlan(open, 'room');
    await bench.type('Aperture', 'f/1.4');
    await bench.type('Focus', '1 m');
    await bench.found('plan.unsharp');
    expect(await bench.finding('plan.unsharp').innerText()).toMatch(/focused at 250 cm holds every mark/);
    await bench.finding('plan.unsharp').getByRole('button', { name: 'Set it so' }).click();
    await bench.found('plan.sharp');
    await bench.type('Shutter', '1/60');
    await bench.finding('plan.flicker').getByRole('button').click();
    await expect.poll(() => bench.number('Shutter').innerText()).toBe('1/50 s');
  });

  test('refuses lenses that cannot be, in a sentence, and keeps what was there', async ({ open, file }) => {
    const bench = await withPlan(open, 'room');
    const { page } = bench;
    for (const text of ['0', '-24']) {
      await bench.type('Focal length', text);
      await page
        .getByText(/give the focal length in millimetres, more than 0/)
        .first()
        .waitFor();
      await expect.poll(() => bench.number('Focal length').innerText()).toBe('24 mm');
    }
    writeFileSync(file('no-picture.png'), 'This is no picture.');
    await page.getByTestId('still').setInputFiles(file('no-picture.png'));
    await page.getByText(/no picture that this browser can read/).waitFor();
  });

  test('draws zones on the picture and finds what moves under a join', async ({ open }) => {
    const bench = await withPlan(open, 'room');
    const { page } = bench;
    await bench.found('zone.clear');
    await bench.press('thing that moves');
    const frame = await page.getByRole('group', { name: /Through the lens/ }).boundingBox();
    if (!frame) throw new Error('There is no picture.');
    await page.mouse.move(frame.x + frame.width * 0.47, frame.y + frame.height * 0.4);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width * 0.55, frame.y + frame.height * 0.55, { steps: 4 });
    await page.mouse.up();
    await bench.found('zone.moving');
    await part(bench, 'Moments');
    expect(await page.locator('[data-plan]').first().innerText()).toMatch(/something moves under the join/);
    await page.keyboard.press('Control+z');
    await part(bench, 'Room');
    await bench.found('zone.clear');
    // The same with the keyboard alone.
    await page.getByRole('button', { name: 'thing that moves', exact: true }).focus();
    await page.keyboard.press('Enter');
    await bench.found('zone.moving');
    const end = page.getByRole('button', { name: /^New thing that moves, first end/ });
    await end.focus();
    const before = await end.getAttribute('cx');
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => end.getAttribute('cx')).not.toBe(before);
    await bench.undo(2);
    await bench.found('zone.clear');
  });

  test('shows every number with its drawing, and lets each follow what it depends on', async ({ open }) => {
    const bench = await withPlan(open, 'room');
    const { page } = bench;
    await bench.type('Aperture', 'f/1.4');
    await part(bench, 'Numbers');
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
    await bench.number('Focal length of the field').focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type('35');
    await expect.poll(() => card('Field of view').innerText()).toMatch(/54\.4°/);
    await page.keyboard.type('0000000');
    await expect.poll(() => card('Field of view').innerText()).toMatch(/73\.7°/);
    await page.keyboard.press('Escape');
    await expect.poll(() => bench.number('Focal length of the field').innerText()).toBe('24 mm');
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
      await bench.type(field, value);
      await bench.settled();
      const after = await card(name).innerText();
      expect(after, name).not.toBe(before);
      expect(after).toMatch(says);
      await page.keyboard.press('Control+z');
      await expect.poll(() => card(name).innerText()).toBe(before);
    }
    const screen = await card('Screen colour').innerText();
    await card('Screen colour').getByRole('button').click();
    await page.keyboard.type('#d228a0 #28aa46');
    await page.keyboard.press('Enter');
    await expect
      .poll(() => card('Screen colour').innerText())
      .toMatch(/Furthest from them: (yellow|blue|red)/);
    expect(await card('Screen colour').innerText()).not.toBe(screen);
    await page.keyboard.press('Control+z');
    await page.getByRole('combobox', { name: 'Setup' }).click();
    await page.getByRole('option', { name: 'Yard' }).click();
    await expect
      .poll(() => card('Capture rate').innerText())
      .toMatch(/40\.0 % without doubling[\s\S]*set: 250 %/);
    expect(await card('Spare picture').innerText()).toMatch(/steadying 110 % × following 108 % = 119 %/);
    expect(await card('Upright cut').innerText()).toMatch(/405\.0 px of 1280/);
    const sun = await card('Sun').innerText();
    await bench.type('Latitude', '90');
    await expect.poll(() => card('Sun').innerText()).not.toBe(sun);
    await page.keyboard.press('Control+z');
    await expect.poll(() => card('Sun').innerText()).toBe(sun);
  });

  test('locks a place with keys, names what contradicts it, and frees it', async ({ open }) => {
    const bench = await withPlan(open, 'order');
    const { page } = bench;
    await part(bench, 'Order');
    await bench.found('order.fits');
    const knots = page.locator('[data-knot]');
    const order = () => knots.evaluateAll((all) => all.map((one) => one.getAttribute('data-knot')));
    await allDrawn(bench);
    const before = await order();
    // Places are counted as the timetable counts them.
    await page.getByRole('combobox', { name: 'Place in the order' }).click();
    const offered = await page.getByRole('option', { name: /^straight after/ }).allInnerTexts();
    await page.keyboard.press('Escape');
    expect(offered).toHaveLength(before.length - 1);
    for (const text of offered) {
      const [, place, title] = /^straight after (\d+): (.+)$/.exec(text) ?? [];
      expect(before[Number(place) - 1]).toBe(title);
    }
    const at = before.indexOf('The pose');
    await knots.nth(at).focus();
    await page.keyboard.press('ArrowRight');
    await expect.poll(order).not.toEqual(before);
    expect((await order())[at + 1]).toBe('The pose');
    const last = before.indexOf('Clean plate again');
    await knots.nth(last).focus();
    await page.keyboard.press('ArrowLeft');
    await bench.found('order.conflict');
    expect(await bench.finding('order.conflict').innerText()).toMatch(/“.+” .*after “.+”.*locked by hand/);
    expect(await bench.finding('order.conflict').innerText()).toMatch(/” of .*Free a place that is locked/);
    await page.getByRole('button', { name: /^Free all 2 locked places/ }).click();
    await expect.poll(order).toEqual(before);
    // A shot's detail opens where it is pressed, beside the room as well.
    await part(bench, 'Room');
    await knots.nth(1).click();
    await page.locator('[data-detail]').getByText('Why here').waitFor();
  });

  test('locks a place on a phone, by a grip and a finger or by keys', async ({ open }) => {
    const bench = await withPlan(open, 'order', { size: phone });
    const { page } = bench;
    const lines = page.locator('[data-knot]');
    const order = () => lines.evaluateAll((all) => all.map((one) => one.getAttribute('data-knot')));
    await allDrawn(bench);
    const before = await order();
    const grip = (index: number) => lines.nth(index).getByRole('button', { name: /^Move / });
    await grip(2).focus();
    const heard = (words: RegExp) => page.getByText(words).waitFor({ state: 'attached' });
    await page.keyboard.press('Space');
    await heard(/is held\. Arrows move it/);
    // It listens to arrows a moment after it is held.
    const moved = page.getByText(/comes to the place of/);
    await expect
      .poll(async () => {
        await page.keyboard.press('ArrowUp');
        return moved.count();
      })
      .toBeGreaterThan(0);
    await page.keyboard.press('Space');
    await page
      .getByText(/· locked/)
      .first()
      .waitFor();
    await bench.undo(1);
    await expect.poll(order).toEqual(before);
  });

  test('goes on to the next day where one is too short, and takes one over midnight', async ({ open }) => {
    const bench = await withPlan(open, 'order');
    const { page } = bench;
    const set = async (name: string, text: string) => {
      await page.getByTestId('day').getByLabel(name, { exact: true }).fill(text);
      await page.keyboard.press('Enter');
    };
    await set('Until', '11:00');
    await bench.found('order.days');
    await set('From', '22:30');
    await set('Until', '05:00');
    await expect.poll(() => page.locator('tbody tr').first().innerText()).toMatch(/23:00/);
    // The yard needs the sun, which rises after five.
    await expect.poll(() => bench.finding('order.late').count()).toBe(2);
    await set('Time zone', 'Nowhere/City');
    await page.getByText(/no time zone that this device knows/).waitFor();
    for (let step = 0; step < 3; step++) await bench.press('Undo (Ctrl+Z)');
    await expect.poll(() => page.locator('tbody tr').first().innerText()).toMatch(/10:00/);
  });

  test('hands the shot list and the timetable over', async ({ open, file }) => {
    const bench = await withPlan(open, 'order');
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

  test('says which shots go with a moment, and brings all back', async ({ open }) => {
    const bench = await withPlan(open, 'needs');
    const { page } = bench;
    const shots = async () => Number(/(\d+) shots/.exec(await page.locator('header').innerText())?.[1]);
    const before = await shots();
    await part(bench, 'Moments');
    await page.locator('[data-plan]').nth(1).getByRole('button', { name: 'Look' }).click();
    await bench.press('Remove the moment');
    await page.getByRole('alertdialog').waitFor();
    const going = await page.getByTestId('going').locator('li').allInnerTexts();
    expect(going).toEqual(expect.arrayContaining(['Before the change', 'After the change', 'What falls']));
    expect(going).not.toContain('Clean plate');
    expect(await page.getByTestId('staying').innerText()).toMatch(/Clean plate/);
    await bench.press('Remove');
    await expect.poll(shots).toBe(before - going.length);
    await page.keyboard.press('Control+z');
    await expect.poll(shots).toBe(before);
  });

  test('asks once what a moment is for, and takes another kind', async ({ open }) => {
    const bench = await withPlan(open, 'needs');
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
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(9);
    await bench.undo(3);
    await expect.poll(() => page.locator('[data-plan]').count()).toBe(8);
    await expect.poll(() => asked.count()).toBe(count);
  });

  test('switches between metric and imperial everywhere', async ({ open }) => {
    const bench = await withPlan(open, 'needs');
    const { page } = bench;
    await bench.press('Lengths: metric');
    await page.getByRole('button', { name: 'Lengths: imperial' }).waitFor();
    for (const name of ['Room', 'Numbers', 'Take along']) {
      await part(bench, name);
      const text = await page.locator('main').innerText();
      expect(text, name).not.toMatch(/\d (cm|m)\b/);
      expect(text, name).toMatch(/\d′ |\d″/);
    }
    for (const paper of ['Setup sheets', 'Room and zones']) {
      await bench.press(paper);
      const text = await page.locator('main').innerText();
      expect(text).toMatch(/\d′ /);
      expect(text).not.toMatch(/\d cm\b/);
    }
    await bench.press('Back');
    await bench.press('Lengths: imperial');
  });

  test('keeps ticks and things of one’s own over a reload in the middle', async ({ open }) => {
    const bench = await withPlan(open, 'along');
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

  test.for(['phone', 'desktop'] as const)('reads well on a %s', async (name, { open }) => {
    const bench = await withPlan(open, 'needs', { size: name === 'phone' ? phone : desktop });
    // Colours are the same on every device.
    for (const theme of name === 'phone' ? ['one theme'] : ['one theme', 'the other']) {
      for (const one of ['Moments', 'Room', 'Numbers', 'Order', 'Take along']) {
        await part(bench, one);
        expect(await bench.audit(), `${one} ${theme}`).toEqual([]);
        expect(await bench.overflow(), one).toBeLessThanOrEqual(0);
      }
      await bench.page.keyboard.press('n');
    }
    await bench.press('Call sheet');
    expect(await bench.audit()).toEqual([]);
  });

  test('says what to do while there is nothing, and without a setup', async ({ open }) => {
    const bench = await open({ seed: await seeded(), at: 'station=plan' });
    await bench.page.getByText('Nothing is planned yet').waitFor();
    const bare = await open({ seed: await seeded(ruled), at: 'station=plan&part=needs' });
    await bare.found('plan.no-setup');
    await part(bare, 'Room');
    await bare.press('Add a setup');
    await bare.page.getByRole('group', { name: 'The room from above' }).waitFor();
    await bare.found('plan.sharp');
    await part(bare, 'Order');
    expect(await bare.page.locator('[data-knot]').count()).toBe(4);
    await bare.press('Timetable (calendar)');
    await bare.page.getByText(/Give the day a date first/).waitFor();
  });

  test('plans two setups, each with its own clone, and keeps their shots apart', async ({ open }) => {
    const seed = await seeded(async (store, project) => {
      await ruled(store, project);
      await createMoment(store, project, 20, 30);
      await addSetup(store, project);
      await addSetup(store, project);
    });
    const bench = await open({ seed, at: 'station=plan&part=needs' });
    const { page } = bench;
    const second = page.locator('[data-plan]').nth(1);
    await second.getByRole('button', { name: 'Look' }).click();
    await second.getByRole('combobox', { name: /^Setup of/ }).click();
    await page.getByRole('option', { name: 'Setup 2' }).click();
    await bench.settled();
    await part(bench, 'Order');
    // Plate, left, right and plate of each.
    await expect.poll(() => page.locator('[data-knot]').count()).toBe(8);
    await bench.undo();
    await expect.poll(() => page.locator('[data-knot]').count()).toBe(6);
  });

  test('moves a mark and a knot by every press, however quick', async ({ open }) => {
    const bench = await withPlan(open, 'room');
    const { page } = bench;
    await part(bench, 'Room');
    const mark = page.getByRole('group', { name: 'The room from above' }).locator('[data-mark=Left]');
    const x = async () => {
      const [left] = (await bench.records()).filter((one) => one.kind === 'mark' && one.name === 'Left');
      return (left as unknown as { x: number }).x;
    };
    const began = await x();
    await mark.evaluate((one) => {
      for (let press = 0; press < 3; press++)
        one.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
    });
    await expect.poll(x).toBeCloseTo(began - 0.15, 6);
    await part(bench, 'Order');
    await page.locator('[data-knot="The pose"]').evaluate((one) => {
      for (let press = 0; press < 2; press++)
        one.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    });
    // After one press it comes behind “Out of the first place”, after the second one behind the next shot.
    const before = async () => {
      const order = await page
        .locator('[data-knot]')
        .evaluateAll((all) => all.map((one) => one.getAttribute('data-knot')));
      return order[order.indexOf('The pose') - 1];
    };
    await expect.poll(before).toBe('Panel 1');
  });
});
