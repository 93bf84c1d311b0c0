import { CalledOff, Overtaken, ThreadDied, TookTooLong, WorkerPool } from './worker-pool';

/** A task that ends when it is told to. */
function held() {
  let end!: (value: string) => void;
  const promise = new Promise<string>((done) => (end = done));
  return { work: () => promise, end };
}
const turn = (): Promise<void> => new Promise((done) => setTimeout(done));

describe('WorkerPool', () => {
  let made: number;
  let stopped: number;
  const pool = (most: number) =>
    new WorkerPool<string>(most, () => {
      made++;
      return { api: `thread ${made}`, stop: () => stopped++ };
    });

  beforeEach(() => ([made, stopped] = [0, 0]));

  it('of 300 drags works only the first and the last out, and leaves no queue', async () => {
    const threads = pool(3);
    const begun: number[] = [];
    const first = held();
    const results = [threads.run('hand', () => (begun.push(0), first.work()), 'bench')];
    for (let i = 1; i < 300; i++) {
      results.push(threads.run('hand', () => Promise.resolve(String(begun.push(i))), 'bench'));
      expect(threads.queued).toBeLessThanOrEqual(1);
    }
    const ended = Promise.allSettled(results);
    first.end('first');
    const outcomes = await ended;
    expect(begun).toEqual([0, 299]);
    expect(outcomes.filter(({ status }) => status === 'fulfilled')).toHaveLength(2);
    expect(outcomes.slice(1, -1).every((o) => o.status === 'rejected' && o.reason instanceof Overtaken)).toBe(true);
    expect(threads.queued).toBe(0);
    expect(made).toBe(1);
  });

  it('never lets what is under the hand wait for what is not: one more thread takes it', async () => {
    const threads = pool(1);
    const [search, picture] = [held(), held()];
    const all = [threads.run('beside', search.work), threads.run('picture', picture.work)];
    expect(await threads.run('hand', () => Promise.resolve('at once'))).toBe('at once');
    expect([made, threads.queued]).toEqual([2, 1]);
    // The spare thread is for the hand alone.
    await turn();
    expect(threads.queued).toBe(1);
    expect(await threads.run('hand', () => Promise.resolve('again'))).toBe('again');
    expect(made).toBe(2);
    search.end('done');
    picture.end('done');
    await Promise.all(all);
    threads.close();
    expect(stopped).toBe(2);
  });

  it('takes what is under the hand first and pictures last', async () => {
    const threads = pool(1);
    const blocking = held();
    const order: string[] = [];
    const all = [threads.run('hand', blocking.work)];
    for (const priority of ['picture', 'beside', 'hand'] as const) {
      all.push(threads.run(priority, () => (order.push(priority), Promise.resolve(priority))));
    }
    blocking.end('done');
    await Promise.all(all);
    expect(order).toEqual(['hand', 'beside', 'picture']);
  });

  it('never has more threads than it may, and uses each again', async () => {
    const threads = pool(2);
    const tasks = Array.from({ length: 5 }, held);
    const all = tasks.map(({ work }) => threads.run('picture', work));
    await turn();
    expect([made, threads.queued]).toEqual([2, 3]);
    for (const { end } of tasks) end('done');
    await Promise.all(all);
    expect(made).toBe(2);
  });

  it('goes on after a task that failed', async () => {
    const threads = pool(1);
    await expect(threads.run('hand', () => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    await expect(threads.run('hand', (api) => Promise.resolve(api))).resolves.toBe('thread 1');
  });

  it('ends every thread when it is closed, those at work once they are done', async () => {
    const threads = pool(2);
    const [one, two] = [held(), held()];
    const all = [threads.run('hand', one.work), threads.run('hand', two.work)];
    one.end('done');
    await all[0];
    await turn();
    threads.close();
    expect(stopped).toBe(1);
    two.end('done');
    await all[1];
    await turn();
    expect(stopped).toBe(2);
  });

  it('ends a thread whose task takes too long, says so, and goes on with a new one', async () => {
    const threads = pool(1);
    const never = threads.run('hand', () => new Promise(() => undefined), 'bench', 30);
    const next = threads.run('hand', (api) => Promise.resolve(api), 'bench');
    await expect(never).rejects.toThrow(TookTooLong);
    await expect(next).resolves.toBe('thread 2');
    expect([made, stopped]).toEqual([2, 1]);
  });

  it('ends the thread of what is called off, and never begins what was called off while it waited', async () => {
    const threads = pool(1);
    const [first, second] = [new AbortController(), new AbortController()];
    const running = threads.run('hand', () => new Promise(() => undefined), 'search', undefined, first.signal);
    let begun = false;
    const waiting = threads.run('hand', () => Promise.resolve((begun = true)), 'other', undefined, second.signal);
    second.abort();
    await expect(waiting).rejects.toThrow(CalledOff);
    first.abort();
    await expect(running).rejects.toThrow(CalledOff);
    await turn();
    expect([begun, stopped, threads.queued]).toEqual([false, 1, 0]);
    await expect(threads.run('hand', (api) => Promise.resolve(api))).resolves.toBe('thread 2');
  });

  it('calls nothing off that is done', async () => {
    const threads = pool(1);
    const own = new AbortController();
    await expect(threads.run('hand', (api) => Promise.resolve(api), 'search', undefined, own.signal)).resolves.toBe('thread 1');
    own.abort();
    await turn();
    expect(stopped).toBe(0);
    await expect(threads.run('hand', (api) => Promise.resolve(api))).resolves.toBe('thread 1');
  });

  it('does not count the time that a thread takes to start', async () => {
    const ready = new Promise((done) => setTimeout(done, 60));
    const threads = new WorkerPool<string>(1, () => ({ api: 'late', stop: () => undefined, ready }));
    await expect(threads.run('hand', (api) => Promise.resolve(api), undefined, 30)).resolves.toBe('late');
  });

  it('tells the task of a thread that died, and begins another', async () => {
    let die!: (why: string) => void;
    const threads = new WorkerPool<string>(1, () => ({
      api: `thread ${++made}`,
      stop: () => stopped++,
      died: new Promise<string>((done) => (die = done)),
    }));
    const lost = threads.run('hand', () => new Promise(() => undefined));
    await turn();
    die('out of memory');
    await expect(lost).rejects.toThrow(ThreadDied);
    await expect(threads.run('hand', (api) => Promise.resolve(api))).resolves.toBe('thread 2');
  });

  it('holds nothing of a task that is done for as long as its thread lives', async () => {
    const died = new Promise<string>(() => undefined);
    const listened = vi.spyOn(died, 'then');
    const threads = new WorkerPool<string>(1, () => ({ api: 'thread', stop: () => undefined, died }));
    for (let i = 0; i < 20; i++) expect(await threads.run('hand', () => Promise.resolve(i))).toBe(i);
    expect(listened).toHaveBeenCalledTimes(1);
  });

  it('tells the next task of a thread that died while it had nothing to do', async () => {
    let die!: (why: string) => void;
    const threads = new WorkerPool<number>(1, () => ({
      api: ++made,
      stop: () => stopped++,
      died: new Promise<string>((done) => (die = done)),
    }));
    await threads.run('hand', () => Promise.resolve());
    die('out of memory');
    await turn();
    await expect(threads.run('hand', () => new Promise(() => undefined))).rejects.toThrow(ThreadDied);
    expect(await threads.run('hand', (api) => Promise.resolve(api))).toBe(2);
  });

  it('goes on after a task that threw before it began', async () => {
    const threads = pool(1);
    const throwing = (): Promise<never> => {
      throw new Error('at once');
    };
    await expect(threads.run('hand', throwing)).rejects.toThrow('at once');
    await expect(threads.run('hand', (api) => Promise.resolve(api))).resolves.toBe('thread 1');
  });
});
