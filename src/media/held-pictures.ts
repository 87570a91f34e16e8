import { softenedYuv } from '@/core/picture/gaussian';
import { mediaIn, secondsAt, showsAt, type Media, type Node } from '@/core/picture/node';
import type { YuvImage } from '@/core/picture/planes';
import { regrained } from '@/core/picture/regrain';
import { wishOf, type Wanted } from '@/core/picture/wanted';

/** pixels of a picture by which it is not seen to be softened */
const unseen = 0.15;

/** Makes pictures that are held on a frame as soft and as grainy as their layers say. */
export class HeldPictures {
  private tree: Node | null = null;
  private frame = 0;
  /** the contents that are held on this frame, by what they wish for */
  private contents: ReadonlyMap<string, Media> = new Map();
  /** softened pictures, which stay the same from frame to frame, and this frame's with their grain */
  private readonly softened = new Map<string, YuvImage>();
  private readonly grained = new Map<string, YuvImage>();

  begin(tree: Node, frame: number): void {
    if (tree !== this.tree) this.softened.clear();
    this.grained.clear();
    this.tree = tree;
    this.frame = frame;
    const contents = new Map<string, Media>();
    for (const node of mediaIn(tree)) {
      const { content } = node;
      const { media, between } = content;
      if ((content.grain || content.softened) && showsAt(node, frame))
        contents.set(wishOf({ media, seconds: secondsAt(node, frame), between }), content);
    }
    this.contents = contents;
  }

  /** A picture as it shows on this frame; itself where nothing is to be done. */
  evened(wish: Wanted, picture: YuvImage): YuvImage {
    const key = wishOf(wish);
    const content = this.contents.get(key);
    if (!content) return picture;
    const known = this.grained.get(key);
    if (known) return known;
    const soft = this.soft(key, picture, content);
    const evened = content.grain ? regrained(soft, content.grain, this.frame) : soft;
    this.grained.set(key, evened);
    return evened;
  }

  private soft(key: string, picture: YuvImage, { softened = 0, size }: Media): YuvImage {
    const deviation = (softened * picture.width) / size.width;
    if (deviation < unseen) return picture;
    const known = this.softened.get(key);
    if (known) return known;
    const soft = softenedYuv(picture, deviation);
    this.softened.set(key, soft);
    return soft;
  }
}
