/**
 * The live watch: what a check costs, when a bump is told, and whether ten minutes of a performer raise an alarm.
 * `npm run bench:watch`; `CHECKS=300 ROUNDS=20` for a short look. Every fault is rehearsed in as many seeded rounds,
 * each with another moment, performer, grain and pace of the watch, and so are takes in which nothing goes wrong.
 */
import { Rehearsal, tells } from '@/core/__tests__/rehearse';
import { faultKinds, undisturbed } from '@/core/practice/faults';
import { practiceRound } from '@/core/practice/round';
import { seeded } from '@/core/random';
import { prepareReference } from '@/core/footage/reference';
import { registerFrame } from '@/core/footage/register';
import { lumaOf } from '@/core/picture/image';
import { PracticeSet } from '@/core/practice/practice-set';
import { LiveWatch, type WatchFrame } from '@/core/watch/alarms';
import { readPicture } from '@/core/watch/reading';
import { watchReference } from '@/core/watch/reference';

const checks = Number(process.env.CHECKS ?? 3000);
const delivery = { width: 1280, height: 720 };
const frame: WatchFrame = {
  seams: [{ name: 'Join', from: [0.5, 0], to: [0.5, 1] }],
  copies: [{ name: 'Left', from: [0.2, 0.35], to: [0.5, 1] }],
};
const cpu = () => process.cpuUsage().user / 1000;
const middle = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1];

const set = new PracticeSet(delivery);
const plate = watchReference(
  [0, 1, 2, 3].map((index) => set.frame('nobody', 0, 0, 90_000 + index, undisturbed)),
);
const picture = set.frame('works', 0, 2, 5, undisturbed);

// The yardstick of the same run: one full registration at the picture's own size, as measuring a take does.
const luma = lumaOf(picture);
const full = prepareReference(lumaOf(set.frame('nobody', 0, 0, 1, undisturbed)));
const costs: number[] = [];
const yard: number[] = [];
for (let round = 0; round < 40; round++) {
  const start = cpu();
  readPicture(plate, picture, delivery);
  const between = cpu();
  registerFrame(full, luma);
  costs.push(between - start);
  yard.push(cpu() - between);
}
const [cost, yardstick] = [middle(costs.slice(10)), middle(yard.slice(10))];

const bumps = [0.5, -0.5].flatMap((dx) =>
  [3, 9, 14].map((take) => {
    const watch = new LiveWatch(frame, delivery);
    for (let check = 0; check < 6; check++) {
      const wrong = { ...undisturbed, dx: check >= 2 ? dx : 0 };
      const told = watch.push(
        readPicture(plate, set.frame('works', take, check / 5, check, wrong), delivery),
        check / 5,
      );
      if (told.some(({ code }) => code === 'watch.moved')) return check - 1;
    }
    return Infinity;
  }),
);

let alarms = 0;
let most = 0;
for (let check = 0; check < checks;) {
  // Takes of eight seconds, five checks a second, left and right, each with its own variation.
  const take = Math.floor(check / 40);
  const role = take % 2 === 0 ? 'works' : 'stands';
  const watch = new LiveWatch(
    {
      ...frame,
      copies: [
        {
          name: role,
          from: role === 'works' ? [0.2, 0.35] : [0.5, 0.35],
          to: role === 'works' ? [0.5, 1] : [0.8, 1],
        },
      ],
    },
    delivery,
  );
  for (let within = 0; within < 40 && check < checks; within++, check++) {
    const reading = readPicture(plate, set.frame(role, take, within / 5, check, undisturbed), delivery);
    most = Math.max(most, reading.move);
    alarms += watch.push(reading, within / 5).length;
  }
}

const rounds = Number(process.env.ROUNDS ?? 300);
// A set with a grain of its own is drawn anew for every thirty rounds.
const rehearsals = Array.from({ length: Math.ceil(rounds / 30) }, (_, index) => new Rehearsal(index + 1));
const table = [...faultKinds, null].map((fault) => {
  let [found, alarms, slowest] = [0, 0, 0];
  for (let seed = 1; seed <= rounds; seed++) {
    const [first] = practiceRound(seed);
    // A busy phone looks once a second, an idle one four times.
    const apart = 0.25 + 0.75 * seeded(seed)();
    const { codes, after } = rehearsals[Math.floor((seed - 1) / 30)].take(
      { ...first, fault },
      fault ? 0.7 : 0,
      apart,
    );
    if (fault && codes.some((code) => tells[fault].includes(code))) {
      found++;
      slowest = Math.max(slowest, after);
    } else alarms += codes.length;
  }
  return { fault: fault ?? 'nothing', rounds, found, alarms, slowest: `${slowest.toFixed(2)} s` };
});
console.table(table);
const missed = table.reduce((sum, row) => sum + (row.fault === 'nothing' ? 0 : rounds - row.found), 0);
const untrue = table.reduce((sum, row) => sum + row.alarms, 0);

const limits = [
  { name: `${rounds} rounds of every fault: ${missed} missed`, holds: missed === 0, most: 'none' },
  { name: `the same and as many good takes: ${untrue} false alarms`, holds: untrue === 0, most: 'none' },
  { name: `One check of 1280 × 720: ${cost.toFixed(1)} ms of one core`, holds: cost <= 100, most: '100 ms' },
  {
    name: `against registering it at full size: ${(cost / yardstick).toFixed(2)} times`,
    holds: cost / yardstick <= 3,
    most: '3 times',
  },
  {
    name: `A bump of 0.5 px is told at check ${Math.max(...bumps)} after it (${bumps.length} tries)`,
    holds: Math.max(...bumps) <= 2,
    most: 'the second',
  },
  {
    name: `${checks} checks of a performer: ${alarms} alarms, at most ${most.toFixed(3)} px measured`,
    holds: alarms === 0,
    most: 'none',
  },
];
for (const { name, holds, most: allowed } of limits)
  console.log(`${name} (allowed: ${allowed}) ${holds ? 'holds' : 'DOES NOT HOLD'}`);
process.exit(limits.every(({ holds }) => holds) ? 0 : 1);
