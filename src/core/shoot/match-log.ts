/** A file from another camera: when it says it was begun, and how long it runs; seconds. */
export type CameraFile = { id: string; started: number; length: number };
/** A log line; seconds, by the device's clock. */
export type LogLine = { id: string; started: number; length: number };
export type FilePair = {
  file: string;
  log: string;
  /** seconds that the camera's clock is ahead of the log's */
  offset: number;
  /** seconds that the pair is away from that offset */
  off: number;
};

/** A camera runs on before and after its take is logged. Common practice, no published source. */
const longer = { least: -1.5, most: 20 };
/** Somebody presses two buttons: the begin of a file and of its line lie within some seconds of one another. */
const reach = 12;

const fits = (file: CameraFile, line: LogLine) => {
  const more = file.length - line.length;
  return more >= longer.least && more <= Math.max(longer.most, line.length * 0.5);
};

/**
 * Finds which file belongs to which log line, without anybody having set the clocks alike. Each camera clock that
 * the files show (one, or several where it jumped) is the offset on which most files and lines of like length
 * agree; the pairs of an offset are then the nearest in time, each file and line once.
 * @returns pairs in the order of the lines; files or lines without a partner are left out
 */
export function matchLog(files: readonly CameraFile[], lines: readonly LogLine[]): FilePair[] {
  let [leftFiles, leftLines] = [[...files], [...lines]];
  const pairs: FilePair[] = [];
  for (;;) {
    const votes: number[] = [];
    for (const file of leftFiles)
      for (const line of leftLines) if (fits(file, line)) votes.push(file.started - line.started);
    if (votes.length === 0) break;
    votes.sort((a, b) => a - b);
    let [best, offset] = [0, votes[0]];
    for (let from = 0, to = 0; from < votes.length; from++) {
      while (to < votes.length && votes[to] - votes[from] <= reach) to++;
      const centre = votes[from + ((to - from) >> 1)];
      // Of clocks that explain as much, the one nearest to right.
      if (to - from > best || (to - from === best && Math.abs(centre) < Math.abs(offset)))
        [best, offset] = [to - from, centre];
    }
    // Clips of another day agree by chance with a line or two: a clock that is far off has to explain half of them.
    const enough = Math.max(2, Math.ceil(Math.min(leftFiles.length, leftLines.length) / 2));
    if (best < enough && Math.abs(offset) > 90) break;
    const near = leftFiles
      .flatMap((file) => leftLines.filter((line) => fits(file, line)).map((line) => ({ file, line })))
      .map(({ file, line }) => ({ file, line, off: file.started - line.started - offset }))
      .filter(({ off }) => Math.abs(off) <= reach)
      .sort((a, b) => cost(a) - cost(b));
    const [usedFiles, usedLines] = [new Set<string>(), new Set<string>()];
    for (const { file, line, off } of near) {
      if (usedFiles.has(file.id) || usedLines.has(line.id)) continue;
      usedFiles.add(file.id);
      usedLines.add(line.id);
      pairs.push({ file: file.id, log: line.id, offset, off });
    }
    if (usedFiles.size === 0) break;
    leftFiles = leftFiles.filter(({ id }) => !usedFiles.has(id));
    leftLines = leftLines.filter(({ id }) => !usedLines.has(id));
  }
  const place = new Map(lines.map((line, index) => [line.id, index]));
  return pairs.sort((a, b) => (place.get(a.log) ?? 0) - (place.get(b.log) ?? 0));
}

const cost = ({ file, line, off }: { file: CameraFile; line: LogLine; off: number }) =>
  Math.abs(off) + 0.5 * Math.abs(file.length - line.length);
