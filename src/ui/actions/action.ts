/** Where keys act: at every station, or only where what they change is on the screen. */
export type Scope = 'everywhere' | 'song' | 'plan' | 'set' | 'picture';

export const scopeTitles: Record<Scope, string> = {
  everywhere: 'Everywhere',
  song: 'The song',
  plan: 'The plan',
  set: 'On the set',
  picture: 'The picture',
};

/** Something that can be done, with its keys; all of them are listed and searched in one place. */
export type Action = {
  id: string;
  text: string;
  scope: Scope;
  /** "mod+z" (Ctrl, on a Mac Command), "t", "space"; the first one is shown */
  keys?: readonly string[];
  /** goes on while its key is held */
  repeats?: boolean;
  run: () => void;
};

const names: Record<string, string> = { mod: 'Ctrl', shift: 'Shift', space: 'Space' };

/** "Ctrl+Z" for "mod+z". */
export const sayKeys = (keys: string): string =>
  keys
    .split('+')
    .map((key) => names[key] ?? key.toUpperCase())
    .join('+');
