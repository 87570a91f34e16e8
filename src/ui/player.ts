/** Plays the song. Its clock leads; pictures follow. */
export class Player {
  private readonly audio = new Audio();
  private readonly listeners = new Set<() => void>();
  private url: string | null = null;
  private timer = 0;
  private loop: { from: number; to: number } | null = null;
  private shown = 0;

  constructor() {
    this.audio.preload = 'auto';
    this.audio.preservesPitch = true;
    for (const event of ['play', 'pause', 'seeked', 'ended', 'ratechange'])
      this.audio.addEventListener(event, () => this.tell());
  }

  /** Takes a song as a WAV; null for none. The needle stays where it is. */
  load(song: Blob | null): void {
    if (this.url) URL.revokeObjectURL(this.url);
    this.url = song && URL.createObjectURL(song);
    this.audio.pause();
    if (this.url) {
      this.audio.src = this.url;
      this.audio.currentTime = this.shown;
    } else {
      this.audio.removeAttribute('src');
    }
    this.tell();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Seconds of the song where the needle stands. */
  readonly time = (): number => this.shown;
  readonly playing = (): boolean => Boolean(this.url) && !this.audio.paused;
  readonly speed = (): number => this.audio.playbackRate;

  private tell(): void {
    if (!this.audio.paused || this.audio.seeking === false)
      this.shown = this.url ? this.audio.currentTime : this.shown;
    this.listeners.forEach((listener) => listener());
    cancelAnimationFrame(this.timer);
    if (!this.playing()) return;
    this.timer = requestAnimationFrame(() => {
      if (this.loop && this.audio.currentTime >= this.loop.to) this.audio.currentTime = this.loop.from;
      this.tell();
    });
  }

  seek(seconds: number): void {
    this.shown = Math.max(0, Math.min(seconds, this.audio.duration || seconds));
    if (this.url) this.audio.currentTime = this.shown;
    this.listeners.forEach((listener) => listener());
  }

  async toggle(): Promise<void> {
    if (!this.url) return;
    if (this.playing()) this.audio.pause();
    else await this.audio.play().catch(() => undefined);
  }

  pause(): void {
    this.audio.pause();
  }

  setSpeed(speed: number): void {
    this.audio.playbackRate = speed;
    this.tell();
  }

  /** Plays a passage over and over; null ends that. */
  setLoop(loop: { from: number; to: number } | null): void {
    this.loop = loop;
  }
}
