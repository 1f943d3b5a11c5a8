/**
 * Room for bodies that are held at once: who comes when it is full waits, in order, and holds nothing
 * meanwhile.
 */
export class Room {
  private held = 0;
  private readonly waiting: { bytes: number; enter: () => void }[] = [];

  /** @param bytes held at once, at most; a body larger than that comes in alone */
  constructor(private readonly bytes: number) {}

  private hasRoom = (bytes: number) => this.held === 0 || this.held + bytes <= this.bytes;

  /** Waits for room, does the work, and gives the room back. */
  async within<T>(bytes: number, work: () => Promise<T>): Promise<T> {
    if (this.waiting.length > 0 || !this.hasRoom(bytes))
      await new Promise<void>((enter) => this.waiting.push({ bytes, enter }));
    else this.held += bytes;
    try {
      return await work();
    } finally {
      this.held -= bytes;
      for (let next = this.waiting[0]; next && this.hasRoom(next.bytes); next = this.waiting[0]) {
        this.waiting.shift();
        this.held += next.bytes;
        next.enter();
      }
    }
  }
}
