/** Plays a prepared slate. Its clock is what is heard: the sound card's, less the way to the loudspeaker. */
export class SlatePlayer {
  private context: AudioContext | null = null;
  private source: AudioBufferSourceNode | null = null;
  private begun = 0;
  private plain = 0;

  /** @param sound the whole slate as a WAV; null to run silently */
  constructor(private readonly sound: Blob | null) {}

  /** Begins; called from a press itself, before anything is awaited: browsers play nothing else. */
  async start(): Promise<void> {
    this.stop();
    this.plain = performance.now() / 1000;
    if (!this.sound) return;
    const context = new AudioContext();
    this.context = context;
    void context.resume();
    const buffer = await context.decodeAudioData(await this.sound.arrayBuffer());
    if (this.context !== context) return;
    this.source = context.createBufferSource();
    this.source.buffer = buffer;
    this.source.connect(context.destination);
    this.begun = context.currentTime + 0.1;
    this.source.start(this.begun);
  }

  /** Seconds since the slate began, as they are heard; below 0 until it sounds. */
  time(): number {
    if (!this.sound) return performance.now() / 1000 - this.plain;
    const { context } = this;
    if (!context || !this.source) return -1;
    return context.currentTime - this.begun - (context.outputLatency || context.baseLatency || 0);
  }

  stop(): void {
    this.source?.stop();
    this.source = null;
    void this.context?.close();
    this.context = null;
  }
}
