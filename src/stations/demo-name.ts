/** What the demo is called; a copy of it that somebody made has another name. */
export const demoName = 'Left-Hand Thread (demo)';
