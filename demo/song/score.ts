/** The song "Left-Hand Thread": sections of whole bars, four beats each. */
export const sections = [
  { name: 'Intro', bars: 4, energy: 0.45 },
  { name: 'Verse', bars: 8, energy: 0.7 },
  { name: 'Chorus', bars: 6, energy: 1 },
  { name: 'Verse 2', bars: 4, energy: 0.72 },
  { name: 'Chorus 2', bars: 4, energy: 1 },
] as const;

export const beatsPerBar = 4;
const tempo = 104.3;
const lead = 0.36;

/** Seconds of every beat: the players hurry a little into choruses and lean back in verses. */
export function songBeats(): number[] {
  const bars = sections.reduce((sum, section) => sum + section.bars, 0);
  const beats: number[] = [];
  let time = lead;
  for (let beat = 0; beat < bars * beatsPerBar; beat++) {
    beats.push(time);
    const breath = 0.011 * Math.sin((2 * Math.PI * beat) / 44) + 0.003 * Math.sin(beat * 1.7);
    time += (60 / tempo) * (1 + breath);
  }
  return beats;
}

/** Energy 0..1 of the section that a bar belongs to. */
export function energyOf(bar: number): number {
  let left = bar;
  for (const section of sections) {
    if (left < section.bars) return section.energy;
    left -= section.bars;
  }
  return 0.5;
}
