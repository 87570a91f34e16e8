/** A clock that goes where there is no sound: a ruler of seconds is walked along too. */
type Silent = { from: number; since: number };

/** What can be laid over the song. */
type Layer = 'clicks' | 'sounds';

/** Plays the song. Its clock leads; pictures follow. */
export class Player {
  private readonly audio = new Audio();
  private readonly listeners = new Set<() => void>();
  private url: string | null = null;
  private song: Blob | null = null;
  /** what is heard in the song's place: the song with something laid over it; clicks before sounds */
  private readonly laid: Record<Layer, Blob | null> = { clicks: null, sounds: null };
  private timer = 0;
  private loop: { from: number; to: number } | null = null;
  private shown = 0;
  private rate = 1;
  private silent: Silent | null = null;

  constructor() {
    this.audio.preload = 'auto';
    this.audio.preservesPitch = true;
    for (const event of ['play', 'pause', 'seeked', 'ended', 'ratechange'])
      this.audio.addEventListener(event, () => this.tell());
  }

  /** Takes a song as a WAV; null for none. The needle stays where it is, and the speed what it was. */
  load(song: Blob | null): void {
    this.song = song;
    this.laid.clicks = null;
    this.laid.sounds = null;
    this.open();
  }

  /**
   * Plays the song with something laid over it from here on; null takes that away again. It goes on if it played.
   * @param over the song with it, as a WAV
   */
  lay(layer: Layer, over: Blob | null): void {
    const [before, playing] = [this.heard(), this.playing()];
    this.laid[layer] = over;
    if (this.heard() === before) return;
    this.open();
    if (playing) void this.toggle();
  }

  private heard(): Blob | null {
    return this.laid.clicks ?? this.laid.sounds ?? this.song;
  }

  private open(): void {
    const sound = this.heard();
    if (this.url) URL.revokeObjectURL(this.url);
    this.url = sound && URL.createObjectURL(sound);
    this.audio.pause();
    this.silent = null;
    if (this.url) {
      this.audio.src = this.url;
      this.audio.currentTime = this.shown;
      this.audio.defaultPlaybackRate = this.rate;
      this.audio.playbackRate = this.rate;
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
  readonly playing = (): boolean => (this.url ? !this.audio.paused : this.silent !== null);
  readonly speed = (): number => this.rate;

  private tell(): void {
    if (this.silent)
      this.shown = this.silent.from + ((performance.now() - this.silent.since) / 1000) * this.rate;
    else if (!this.audio.paused || this.audio.seeking === false)
      this.shown = this.url ? this.audio.currentTime : this.shown;
    this.listeners.forEach((listener) => listener());
    cancelAnimationFrame(this.timer);
    if (!this.playing()) return;
    this.timer = requestAnimationFrame(() => {
      if (this.loop && this.shown >= this.loop.to) this.seek(this.loop.from);
      this.tell();
    });
  }

  seek(seconds: number): void {
    this.shown = Math.max(0, Math.min(seconds, this.audio.duration || seconds));
    if (this.url) this.audio.currentTime = this.shown;
    if (this.silent) this.silent = { from: this.shown, since: performance.now() };
    this.listeners.forEach((listener) => listener());
  }

  async toggle(): Promise<void> {
    if (this.playing()) this.pause();
    else if (this.url) await this.audio.play().catch(() => undefined);
    else {
      this.silent = { from: this.shown, since: performance.now() };
      this.tell();
    }
  }

  pause(): void {
    this.audio.pause();
    if (!this.silent) return;
    this.silent = null;
    this.tell();
  }

  /** @param speed 1 as it was recorded */
  setSpeed(speed: number): void {
    if (this.silent) this.silent = { from: this.shown, since: performance.now() };
    this.rate = speed;
    this.audio.defaultPlaybackRate = speed;
    this.audio.playbackRate = speed;
    this.tell();
  }

  /** Plays a passage over and over; null ends that. */
  setLoop(loop: { from: number; to: number } | null): void {
    this.loop = loop;
  }
}
