/** as many painted pictures stay at hand, so that a short loop and a step back need no painting */
export const mostKept = 96;

/** Painted pictures of one tree by their frames; another tree has others. */
export class KeptPictures {
  private pictures = new Map<number, ImageBitmap>();
  private of: readonly unknown[] = [];

  /** Lets go of all pictures where they show something else than is asked for now. */
  about(...what: readonly unknown[]): void {
    if (what.every((one, index) => one === this.of[index]) && what.length === this.of.length) return;
    this.clear();
    this.of = what;
  }

  at(frame: number): ImageBitmap | null {
    return this.pictures.get(frame) ?? null;
  }

  keep(frame: number, picture: ImageBitmap): void {
    const [oldest] = this.pictures.keys();
    if (this.pictures.size >= mostKept) {
      this.pictures.get(oldest)?.close();
      this.pictures.delete(oldest);
    }
    this.pictures.set(frame, picture);
  }

  clear(): void {
    for (const picture of this.pictures.values()) picture.close();
    this.pictures.clear();
    this.of = [];
  }
}
