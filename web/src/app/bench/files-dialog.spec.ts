import { ComponentFixture, TestBed } from '@angular/core/testing';
import { DEMO_CARDS, evaluate, readCardFile, setSize, undressed } from '@diptychon/core';
import { unzipSync } from 'fflate';
import { Evaluator } from '../evaluation/evaluator';
import { Preferences } from '../frame/preferences';
import { FilesDialog } from './files-dialog';

const easel = undressed(DEMO_CARDS[0]!);
const outcome = evaluate(easel);
if (!outcome.ok) throw new Error('sizes refused');
const { evaluation } = outcome;

describe('FilesDialog', () => {
  let fixture: ComponentFixture<FilesDialog>;
  let written: { kind: string; folds?: string; paper?: string }[];
  let fails: boolean;
  let files: { name: string; blob: Blob }[];
  let click: { mockRestore: () => void };
  const press = async (label: string): Promise<void> => {
    [...document.body.querySelectorAll('button')].find((b) => b.textContent!.trim() === label)!.click();
    // The worker's answer comes a turn later than the click.
    await new Promise((done) => setTimeout(done));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    localStorage.clear();
    [written, files, fails] = [[], [], false];
    const blobs: Blob[] = [];
    URL.createObjectURL = (blob: Blob) => `blob:${blobs.push(blob) - 1}`;
    click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      files.push({ name: this.download, blob: blobs[Number(this.href.split(':')[1])]! });
    });
    const write = (_: unknown, file: { kind: string; folds?: string }): Promise<{ bytes: Uint8Array }[]> => {
      written.push(file);
      return fails ? Promise.reject(new Error('The worker stopped.')) : Promise.resolve([{ bytes: new Uint8Array([1, 2, 3]) }]);
    };
    TestBed.configureTestingModule({ providers: [{ provide: Evaluator, useValue: { write } }] });
    fixture = TestBed.createComponent(FilesDialog);
    fixture.componentRef.setInput('evaluation', evaluation);
    fixture.componentRef.setInput('card', easel);
    fixture.componentRef.setInput('visible', true);
    await fixture.whenStable();
  });
  afterEach(() => {
    click.mockRestore();
    fixture.destroy();
  });

  it('gives back the very card as a card file', async () => {
    await press('Card file');
    expect(files[0]!.name).toBe('thank-you-easel-for-the-foray-guide.card.json');
    expect(readCardFile(await files[0]!.blob.text())).toEqual({ ok: true, card: easel });
  });

  it('prints on the paper that was chosen, and on the usual one of the region where that is none', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(new Uint8Array([1]))));
    for (const paper of ['legal', 'papyrus']) {
      TestBed.inject(Preferences).paper.set(paper);
      await fixture.whenStable();
      await press('One page with everything');
      await vi.waitFor(() => expect(written.at(-1)?.kind).toBe('one-page'));
      await vi.waitFor(() => expect(files.length).toBe(written.length));
    }
    expect(written.map(({ paper }) => paper)).toEqual(['legal', 'a4']);
    vi.unstubAllGlobals();
  });

  it('writes measures with a point, or with a comma for who calculates so', async () => {
    await press('Measures, decimal point');
    await press('Measures, decimal comma');
    const [point, comma] = await Promise.all(files.map(({ blob }) => blob.text()));
    expect(point!.split('\n')[0]).toContain(',');
    expect(comma!.split('\n')[0]).toContain(';');
    expect(point!.split('\n')).toHaveLength(comma!.split('\n').length);
  });

  it('writes the crease pattern as JSON with its folded frames', async () => {
    await press('Crease pattern (FOLD)');
    expect(files[0]!.name).toMatch(/\.fold$/);
    expect(JSON.parse(await files[0]!.blob.text())).toMatchObject({ file_spec: expect.any(Number), file_frames: expect.any(Array) });
  });

  it('has the DXF made elsewhere, with the folds as chosen', async () => {
    await press('DXF');
    expect(written).toEqual([{ kind: 'dxf', folds: 'score' }]);
    expect(files[0]).toMatchObject({ name: 'thank-you-easel-for-the-foray-guide.dxf' });
    expect(files[0]!.blob.size).toBe(3);
  });

  it('says when a file could not be made, and can be asked again', async () => {
    fails = true;
    await press('DXF');
    expect(document.body.querySelector('.trouble')!.textContent).toBe('The file could not be made. The worker stopped.');
    expect(files).toEqual([]);
    fails = false;
    await press('DXF');
    expect(document.body.querySelector('.trouble')).toBeNull();
    expect(files).toHaveLength(1);
  });

  it('gives everything in one archive, each kind in its place, and the card as it is', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(new Uint8Array([1]))));
    await press('Everything in one archive');
    await vi.waitFor(() => expect(files).toHaveLength(1));
    vi.unstubAllGlobals();
    expect(files[0]!.name).toBe('thank-you-easel-for-the-foray-guide.zip');
    const entries = unzipSync(new Uint8Array(await files[0]!.blob.arrayBuffer()));
    const stem = 'thank-you-easel-for-the-foray-guide';
    expect(Object.keys(entries).sort()).toEqual(
      [
        `${stem}.card.json`,
        `${stem}-measures.csv`,
        `${stem}-steps.json`,
        `${stem}.fold`,
        ...['card-250-1', 'card-250-2', 'foam'].map((stock) => `cutter/${stem}-${stock}.svg`),
        `cutter/${stem}.dxf`,
        `print/${stem}-page.pdf`,
        `print/${stem}-templates.pdf`,
        `${stem}-what-is-here.txt`,
      ].sort(),
    );
    const text = (name: string): string => new TextDecoder().decode(entries[name]);
    expect(readCardFile(text(`${stem}.card.json`))).toEqual({ ok: true, card: easel });
    expect(JSON.parse(text(`${stem}-steps.json`))).toMatchObject({
      steps: expect.arrayContaining([expect.objectContaining({ id: 'trim-base' })]),
    });
  });

  it('gives drawings for several stocks in one archive, each named by its stock', async () => {
    await press('SVG');
    expect(files[0]!.name).toBe('thank-you-easel-for-the-foray-guide.svg.zip');
    const entries = unzipSync(new Uint8Array(await files[0]!.blob.arrayBuffer()));
    expect(Object.keys(entries)).toEqual([
      'thank-you-easel-for-the-foray-guide-card-250-1.svg',
      'thank-you-easel-for-the-foray-guide-card-250-2.svg',
      'thank-you-easel-for-the-foray-guide-foam.svg',
    ]);
    expect(new TextDecoder().decode(Object.values(entries)[0])).toContain('id="base-score-valley"');
  });

  it('asks before it makes a file of another card than the one as it is now, and keeps the one as it is now', async () => {
    const now = { ...easel, name: 'Not judged yet' };
    fixture.componentRef.setInput('card', now);
    fixture.componentRef.setInput('unjudged', 'Not judged: a size cannot be used.');
    await fixture.whenStable();
    expect(document.body.querySelector('.verdict')!.textContent).toContain('Files are made of the last card that could be worked out.');
    await press('SVG');
    expect(files).toEqual([]);
  });

  it('asks before it makes a file of a card that does not work, but always keeps the card', async () => {
    const wrong = evaluate(setSize(easel, 'base', 'displayHeight', 180));
    if (!wrong.ok) throw new Error('sizes refused');
    fixture.componentRef.setInput('evaluation', wrong.evaluation);
    await fixture.whenStable();
    expect(document.body.querySelector('.verdict')!.textContent).toContain('does not work yet: Closed, display sticks out 30 mm');
    await press('SVG');
    await press('One page with everything');
    expect(files).toEqual([]);
    expect(document.body.querySelector('.asked')!.textContent).toContain('The one page would be of a card that does not work');
    await press('Not yet');
    expect(document.body.querySelector('.asked')).toBeNull();
    await press('DXF');
    await press('Make it anyway');
    expect(written).toEqual([{ kind: 'dxf', folds: 'score' }]);
    await press('Card file');
    expect(files.map(({ name }) => name.split('.').slice(1).join('.'))).toEqual(['dxf', 'card.json']);
  });
});
