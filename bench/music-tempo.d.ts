declare module 'music-tempo' {
  /** Beats of mono samples at 44.1 kHz. */
  export default class MusicTempo {
    constructor(samples: Float32Array);
    readonly beats: number[];
  }
}
