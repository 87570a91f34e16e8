import type { Finding } from '../finding/finding';
import type { PlannedMoment } from '../plan/shots';
import type { Board, BoardRow } from './board';
import type { ShootCode } from './shoot-words';

/** What striking a set now gives up, the gravest first: each moment once, then what only costs work. */
export function strikeCosts(board: Board, moments: readonly PlannedMoment[]): Finding<ShootCode>[] {
  const findings: Finding<ShootCode>[] = [];
  const where = { setup: board.setup };
  const given = new Map<string, string[]>();
  const good = (share: string) => board.rows.some(({ shot, good }) => shot?.share === share && good > 0);
  const add = (row: BoardRow, code: ShootCode, severity: Finding['severity'], facts = {}) =>
    findings.push({
      code,
      severity,
      where: { ...where, shot: row.id },
      facts: { shot: row.title, ...facts },
    });
  for (const row of board.missing) {
    if (row.pickup) {
      add(row, 'strike.pickup', 'fix', { why: row.pickup.why });
      continue;
    }
    const { shot } = row;
    if (!shot) continue;
    const lacking = row.variations.filter((one) => one.asked && one.good === 0).map(({ name }) => name);
    if (row.good > 0) add(row, 'strike.variation', 'watch', { names: lacking.join(', ') });
    else if (row.maybe > 0) add(row, 'strike.maybe', 'fix');
    else if (shot.share === 'last plate' && good('first plate')) add(row, 'strike.drift', 'watch');
    else if (shot.share === 'first plate' && good('last plate')) add(row, 'strike.late-plate', 'watch');
    else if (shot.what === 'plate' || shot.what === 'patch')
      add(row, 'strike.plate', 'fix', { moments: shot.moments.length });
    else if (shot.what === 'sound') add(row, 'strike.sound', 'watch');
    else if (shot.what === 'pass') add(row, 'strike.pass', 'watch');
    else for (const moment of shot.moments) given.set(moment, [...(given.get(moment) ?? []), row.title]);
  }
  for (const { moment, seconds, frames } of moments) {
    const lacks = given.get(moment.id);
    if (!lacks) continue;
    const spent = board.rows.filter(({ shot }) => shot?.moments.includes(moment.id) && !shot.share);
    findings.push({
      code: 'strike.moment',
      severity: 'stop',
      where: { ...where, moment: moment.id },
      measured: { value: seconds, unit: 'seconds' },
      facts: {
        name: moment.name,
        lacks: lacks.join(', '),
        frames,
        takes: spent.reduce((sum, row) => sum + row.logs.length, 0),
      },
    });
  }
  return findings;
}
