import { spawn, type ChildProcess } from 'node:child_process';
import { chromium, type Browser, type BrowserContext } from '@playwright/test';

/** A browser as its user has it: with a profile that outlives it, and that can be killed like any program. */
export class RealBrowser {
  private constructor(
    private readonly process: ChildProcess,
    private readonly browser: Browser,
    readonly context: BrowserContext,
  ) {}

  /**
   * @param profile a folder that keeps what the browser keeps
   * @param flat whether it draws nothing in 3D, which costs a processor more than all the rest
   */
  static async open(profile: string, flat = false): Promise<RealBrowser> {
    const child = spawn(
      process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      [
        '--headless=new',
        '--no-sandbox',
        // A machine without a graphics card paints the page itself, whatever draws in 3D.
        '--disable-gpu-compositing',
        '--disable-gpu-rasterization',
        ...(flat ? ['--disable-3d-apis'] : ['--use-angle=swiftshader', '--enable-unsafe-swiftshader']),
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run',
        '--window-size=900,600',
        '--remote-debugging-port=0',
        `--user-data-dir=${profile}`,
        'about:blank',
      ],
      { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
    );
    const address = await new Promise<string>((done, failed) => {
      let said = '';
      child.stderr!.on('data', (words: Buffer) => {
        said += words.toString();
        const found = /DevTools listening on (ws:\S+)/.exec(said);
        if (found) done(found[1]!);
      });
      child.on('exit', () => failed(new Error(`the browser did not start: ${said.slice(-400)}`)));
    });
    const browser = await chromium.connectOverCDP(address);
    return new RealBrowser(child, browser, browser.contexts()[0]!);
  }

  /** Ends it as a power cut would: nothing of it runs on. */
  async kill(): Promise<void> {
    const gone = new Promise((done) => this.process.once('exit', done));
    process.kill(-this.process.pid!, 'SIGKILL');
    await gone;
    await this.browser.close().catch(() => undefined);
  }
}
