/** What is under the hand goes first, small pictures last. */
export type Priority = 'hand' | 'beside' | 'picture';
const ORDER: readonly Priority[] = ['hand', 'beside', 'picture'];

/** A thread of the pool. */
export interface PoolWorker<A> {
  api: A;
  stop: () => void;
}

interface Task<A> {
  /** tasks of one channel replace each other: only the latest is wanted */
  channel?: string;
  priority: Priority;
  work: (api: A) => Promise<unknown>;
  done: (value: unknown) => void;
  failed: (error: unknown) => void;
}

/** A task was overtaken by a newer one of its channel: nobody waits for it any more. */
export class Overtaken extends Error {
  constructor() {
    super('A newer one is on its way.');
  }
}

/**
 * Work for a few threads. At most one task of a channel runs and one waits: a newer one takes the waiting one's place,
 * so that a drag never leaves a queue behind.
 */
export class WorkerPool<A> {
  private readonly idle: PoolWorker<A>[] = [];
  private readonly waiting: Task<A>[] = [];
  private readonly busyChannels = new Set<string>();
  private made = 0;
  private closed = false;

  /** @param most threads at the most; each is made when there is work for it */
  constructor(
    private readonly most: number,
    private readonly make: () => PoolWorker<A>,
  ) {}

  /** @throws Overtaken when a newer task of the same channel takes its place */
  run<T>(priority: Priority, work: (api: A) => Promise<T>, channel?: string): Promise<T> {
    return new Promise<T>((done, failed) => {
      const same = channel === undefined ? -1 : this.waiting.findIndex((task) => task.channel === channel);
      if (same >= 0) this.waiting.splice(same, 1)[0]!.failed(new Overtaken());
      this.waiting.push({ priority, work, done: done as (value: unknown) => void, failed, ...(channel !== undefined && { channel }) });
      this.next();
    });
  }

  /** Tasks that wait, for tests and for showing that nothing piles up. */
  get queued(): number {
    return this.waiting.length;
  }

  /** Ends all threads: those at work as soon as they are done. Nothing that waits is begun. */
  close(): void {
    this.closed = true;
    for (const task of this.waiting.splice(0)) task.failed(new Overtaken());
    for (const worker of this.idle.splice(0)) worker.stop();
  }

  private next(): void {
    const task = this.pick();
    if (!task) return;
    const worker = this.idle.pop() ?? (this.made < this.most ? this.begin() : undefined);
    if (!worker) return;
    this.waiting.splice(this.waiting.indexOf(task), 1);
    if (task.channel !== undefined) this.busyChannels.add(task.channel);
    void task
      .work(worker.api)
      .then(task.done, task.failed)
      .finally(() => {
        if (task.channel !== undefined) this.busyChannels.delete(task.channel);
        if (this.closed) return worker.stop();
        this.idle.push(worker);
        this.next();
      });
    this.next();
  }

  /** The most pressing task that may run: one of a channel at a time, so that answers come in order. */
  private pick(): Task<A> | undefined {
    const ready = this.waiting.filter(({ channel }) => channel === undefined || !this.busyChannels.has(channel));
    return ORDER.map((priority) => ready.find((task) => task.priority === priority)).find((task) => task !== undefined);
  }

  private begin(): PoolWorker<A> {
    this.made++;
    return this.make();
  }
}
