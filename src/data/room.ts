interface Waiting {
  amount: number;
  caller: string;
  enter: () => void;
}

/**
 * Room for what is held at once, shared among callers: a counting semaphore. A caller holds its share at most, and
 * who holds least comes next; of one caller, first come, first served. Nobody holds anything while waiting.
 */
export class Room {
  private held = 0;
  private readonly heldBy = new Map<string, number>();
  private queue: Waiting[] = [];

  /**
   * @param size  held at once, at most; something larger comes in alone
   * @param share held at once by one caller, at most; its first comes in whatever its size
   */
  constructor(
    private readonly size: number,
    private readonly share = size,
  ) {}

  /** How many wait. */
  get waiting(): number {
    return this.queue.length;
  }

  private of = (caller: string) => this.heldBy.get(caller) ?? 0;

  private hasRoom = ({ amount }: Waiting) => this.held === 0 || this.held + amount <= this.size;

  /** Whether a caller may hold this beside what it holds: else it waits for itself, and for nobody else. */
  private isInShare({ amount, caller }: Waiting): boolean {
    const own = this.of(caller);
    return own === 0 || own + amount <= this.share;
  }

  /** Who could come next: the first of every caller that its own share doesn't hold up. */
  private candidates(): Waiting[] {
    const seen = new Set<string>();
    const first = this.queue.filter(({ caller }) => !seen.has(caller) && seen.add(caller));
    return first.filter((each) => this.isInShare(each));
  }

  private take({ amount, caller }: Waiting): void {
    this.held += amount;
    this.heldBy.set(caller, this.of(caller) + amount);
  }

  private give({ amount, caller }: Waiting): void {
    this.held -= amount;
    const left = this.of(caller) - amount;
    if (left > 0) this.heldBy.set(caller, left);
    else this.heldBy.delete(caller);
    this.admit();
  }

  private admit(): void {
    for (;;) {
      const [next] = this.candidates().sort((a, b) => this.of(a.caller) - this.of(b.caller));
      // Room is kept for whoever is next: a large one isn't passed by small ones for ever.
      if (!next || !this.hasRoom(next)) return;
      this.queue = this.queue.filter((each) => each !== next);
      this.take(next);
      next.enter();
    }
  }

  /**
   * Waits for room, and takes it.
   * @param signal gives the place in the queue up; room that was taken is given back by whoever took it
   * @returns gives the room back; calling it again changes nothing
   * @throws the signal's reason, where it is aborted while waiting
   */
  async enter(amount: number, caller: string, signal?: AbortSignal): Promise<() => void> {
    signal?.throwIfAborted();
    const asked: Waiting = { amount, caller, enter: () => {} };
    const isNext =
      this.hasRoom(asked) &&
      this.isInShare(asked) &&
      this.candidates().length === 0 &&
      !this.queue.some((each) => each.caller === caller);
    if (isNext) this.take(asked);
    else
      await new Promise<void>((resolve, reject) => {
        const gone = () => {
          this.queue = this.queue.filter((each) => each !== asked);
          reject(signal?.reason as Error);
          this.admit();
        };
        asked.enter = () => {
          signal?.removeEventListener("abort", gone);
          resolve();
        };
        signal?.addEventListener("abort", gone, { once: true });
        this.queue.push(asked);
      });
    let isGiven = false;
    return () => {
      if (isGiven) return;
      isGiven = true;
      this.give(asked);
    };
  }
}
