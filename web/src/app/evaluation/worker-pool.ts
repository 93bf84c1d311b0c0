/** What is under the hand goes first, small pictures last. */
export type Priority = 'hand' | 'beside' | 'picture';
const ORDER: readonly Priority[] = ['hand', 'beside', 'picture'];

/** A thread of the pool. */
export interface PoolWorker<A> {
  api: A;
  stop: () => void;
  /** resolves once it can work: starting up is no part of a task's time */
  ready?: Promise<unknown>;
  /** resolves, with what is known of the reason, if it ends by itself */
  died?: Promise<string>;
}

/** A thread at work or waiting, and who is told when it ends by itself. */
interface Thread<A> extends PoolWorker<A> {
  endedBy?: ThreadDied;
  whenDead?: (error: ThreadDied) => void;
}

interface Task<A> {
  /** tasks of one channel replace each other: only the latest is wanted */
  channel?: string;
  priority: Priority;
  work: (api: A) => Promise<unknown>;
  /** how long it may take (ms); for ever where left out */
  limit?: number;
  /** ends it: nobody wants it any more */
  signal?: AbortSignal;
  done: (value: unknown) => void;
  failed: (error: unknown) => void;
}

/** A task was overtaken by a newer one of its channel: nobody waits for it any more. */
export class Overtaken extends Error {
  constructor() {
    super('A newer one is on its way.');
  }
}

/** A task took longer than it may: its thread was ended. */
export class TookTooLong extends Error {
  constructor(readonly limit: number) {
    super(`The calculation took more than ${Math.round(limit / 1000)} seconds.`);
  }
}

/** A task was called off: its thread was ended where it had begun. */
export class CalledOff extends Error {
  constructor() {
    super('The calculation was called off.');
  }
}

/** The thread ended in the middle of a task. */
export class ThreadDied extends Error {
  constructor(why: string) {
    super(`The calculation stopped by itself${why ? ` (${why})` : ''}.`);
  }
}

/** How long a thread may take to start (ms). */
const START_LIMIT = 30_000;

/**
 * Work for a few threads. At most one task of a channel runs and one waits: a newer one takes the waiting one's place,
 * so that a drag never leaves a queue behind. What is under the hand never waits for what is not: where that has all threads,
 * there is one more.
 */
export class WorkerPool<A> {
  private readonly idle: Thread<A>[] = [];
  private readonly waiting: Task<A>[] = [];
  private readonly busyChannels = new Set<string>();
  private made = 0;
  /** tasks at work that are not under the hand */
  private beside = 0;
  private closed = false;

  /** @param most threads at the most, the one more for the hand left out; each is made when there is work for it */
  constructor(
    private readonly most: number,
    private readonly make: () => PoolWorker<A>,
  ) {}

  /**
   * @param limit ms that the task may take once its thread works; then the thread is ended, and the next task gets a new one
   * @throws Overtaken when a newer task of the same channel takes its place
   * @param signal ends the task, and with it its thread where it has begun
   * @throws TookTooLong, ThreadDied, CalledOff
   */
  run<T>(priority: Priority, work: (api: A) => Promise<T>, channel?: string, limit?: number, signal?: AbortSignal): Promise<T> {
    return new Promise<T>((done, failed) => {
      const same = channel === undefined ? -1 : this.waiting.findIndex((task) => task.channel === channel);
      if (same >= 0) this.waiting.splice(same, 1)[0]!.failed(new Overtaken());
      this.waiting.push({
        priority,
        work,
        done: done as (value: unknown) => void,
        failed,
        ...(channel !== undefined && { channel }),
        ...(limit !== undefined && { limit }),
        ...(signal && { signal }),
      });
      // One that waits is let go of as soon as it is called off.
      signal?.addEventListener('abort', () => this.next(), { once: true });
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
    for (const task of this.waiting.filter(({ signal }) => signal?.aborted)) {
      this.waiting.splice(this.waiting.indexOf(task), 1);
      task.failed(new CalledOff());
    }
    const task = this.pick();
    if (!task) return;
    const worker = this.idle.pop() ?? (this.made < this.most ? this.begin() : undefined);
    if (!worker) {
      if (task.priority === 'hand' && this.beside >= this.most && this.made === this.most) this.addSpare();
      return;
    }
    if (task.priority !== 'hand') this.beside++;
    this.waiting.splice(this.waiting.indexOf(task), 1);
    if (task.channel !== undefined) this.busyChannels.add(task.channel);
    void this.watched(worker, task)
      .then(task.done, (error: unknown) => {
        task.failed(error);
        return error;
      })
      .then((error) => {
        if (task.channel !== undefined) this.busyChannels.delete(task.channel);
        if (task.priority !== 'hand') this.beside--;
        if (error instanceof TookTooLong || error instanceof ThreadDied || error instanceof CalledOff) {
          worker.stop();
          this.made--;
        } else if (this.closed) return worker.stop();
        else this.idle.push(worker);
        this.next();
      });
    this.next();
  }

  /** A task at work, until it is done, its time is over, or its thread is no more. */
  private async watched(thread: Thread<A>, { work, limit, signal }: Task<A>): Promise<unknown> {
    let clock: ReturnType<typeof setTimeout> | undefined;
    const inTime = (ms: number): Promise<never> =>
      new Promise((_, failed) => {
        clock = setTimeout(() => failed(new TookTooLong(ms)), ms);
      });
    const dead = new Promise<never>((_, failed) => {
      if (thread.endedBy) failed(thread.endedBy);
      thread.whenDead = failed;
    });
    let callOff: (() => void) | undefined;
    const calledOff = new Promise<never>((_, failed) => {
      callOff = (): void => failed(new CalledOff());
      signal?.addEventListener('abort', callOff);
    });
    try {
      await Promise.race([thread.ready, dead, calledOff, inTime(START_LIMIT)]);
      clearTimeout(clock);
      return await Promise.race([work(thread.api), dead, calledOff, ...(limit === undefined ? [] : [inTime(limit)])]);
    } finally {
      clearTimeout(clock);
      if (callOff) signal?.removeEventListener('abort', callOff);
      calledOff.catch(() => undefined);
      delete thread.whenDead;
      dead.catch(() => undefined);
    }
  }

  /** The most pressing task that may run: one of a channel at a time, so that answers come in order. */
  private pick(): Task<A> | undefined {
    const ready = this.waiting.filter(
      ({ channel, priority }) =>
        (channel === undefined || !this.busyChannels.has(channel)) && (priority === 'hand' || this.beside < this.most),
    );
    return ORDER.map((priority) => ready.find((task) => task.priority === priority)).find((task) => task !== undefined);
  }

  /** One more thread for what is under the hand: the task that waits is begun by whichever thread can first. */
  private addSpare(): void {
    const spare = this.begin();
    void Promise.resolve(spare.ready).then(
      () => {
        if (this.closed) return spare.stop();
        this.idle.push(spare);
        this.next();
      },
      () => {
        spare.stop();
        this.made--;
      },
    );
  }

  private begin(): Thread<A> {
    this.made++;
    const thread: Thread<A> = this.make();
    // Listened to once: each task that waited for it by itself would be held, with all it gave, for as long as the thread lives.
    void thread.died?.then((why) => {
      thread.endedBy = new ThreadDied(why);
      thread.whenDead?.(thread.endedBy);
    });
    return thread;
  }
}
