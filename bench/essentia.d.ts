declare module 'essentia.js' {
  /** A list of numbers in the package's own memory. */
  export type Vector = { size: () => number; delete: () => void };
  export const EssentiaWASM: unknown;
  export class Essentia {
    constructor(wasm: unknown);
    arrayToVector(values: Float32Array): Vector;
    vectorToArray(values: Vector): Float32Array;
    BeatTrackerMultiFeature(signal: Vector, maxTempo: number, minTempo: number): { ticks: Vector };
  }
}
