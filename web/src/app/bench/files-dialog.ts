import { ChangeDetectionStrategy, Component, computed, inject, input, model, signal } from '@angular/core';
import {
  drawingsOf,
  PAPER_IDS,
  PAPERS,
  verdictLine,
  writeCardFile,
  writeCsv,
  writeFold,
  writeSvg,
  type CardDocument,
  type Evaluation,
} from '@diptychon/core';
import type { PdfFonts } from '@diptychon/core/files';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import type { WrittenFile } from '../evaluation/evaluation-api';
import { Evaluator } from '../evaluation/evaluator';
import { ChoiceRow } from '../fields/choice-row';
import { filmOf, pictureOf } from './card-film';
import { DialogFocus } from '../frame/dialog-focus';
import { download, fileName } from '../frame/download';
import { Preferences } from '../frame/preferences';
import { WorkshopStore } from '../workshop/workshop-store';

/** Everything that can be printed, cut from or kept as a file. Files of a card that does not work are made only when asked twice. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-files-dialog',
  imports: [Button, ChoiceRow, Dialog, DialogFocus],
  templateUrl: './files-dialog.html',
  styleUrl: './files-dialog.scss',
})
export class FilesDialog {
  readonly evaluation = input.required<Evaluation>();
  /** the card as it is now, which may not be the one that could be worked out */
  readonly card = input.required<CardDocument>();
  /** why the evaluation is not of that card, in a sentence */
  readonly unjudged = input<string>();
  readonly visible = model(false);
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly preferences = inject(Preferences);
  protected readonly paper = computed(
    () => PAPER_IDS.find((id) => id === this.preferences.paper()) ?? (this.workshop().region === 'inch' ? 'letter' : 'a4'),
  );
  protected readonly folds = signal<'score' | 'perforation'>('score');
  /** the SVG is printed first, and cut by its marks */
  protected readonly printed = signal(false);
  protected readonly busy = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly verdict = computed(() => {
    const unjudged = this.unjudged();
    return unjudged
      ? { works: false, says: `${unjudged} Files are made of the last card that could be worked out.` }
      : verdictLine(this.evaluation());
  });
  /** pieces that the bed of my cutter does not hold */
  protected readonly tooLarge = computed(() =>
    drawingsOf(this.evaluation(), this.workshop())
      .filter(({ larger }) => larger)
      .flatMap(({ placed }) => placed.map(({ sheet }) => sheet.piece.name))
      .join(', '),
  );
  /** what was asked for of a card that does not work, until the maker has said yes or no */
  protected readonly asked = signal<{ name: string; make: () => Promise<void> } | undefined>(undefined);
  protected readonly papers = PAPER_IDS.map((value) => ({ value, label: PAPERS[value].name }));
  protected readonly foldWays = [
    { value: 'score', label: 'score lines' },
    { value: 'perforation', label: 'perforations (no score tool)' },
  ] as const;

  protected onePage(): Promise<void> {
    return this.pdf('one-page', 'The one page', 'sheet.pdf');
  }

  protected templates(): Promise<void> {
    return this.pdf('templates', 'The templates', 'templates.pdf');
  }

  protected arrangement(): Promise<void> {
    return this.pdf('arrangement', 'The sheet of toppers', 'toppers.pdf');
  }

  /** The standing card as it is drawn now. */
  protected picture(): Promise<void> {
    return this.make('picture', 'The picture', async () => {
      const { sharedScene } = await import('./paper-scene');
      download(fileName(this.judged.name, 'png'), 'image/png', await pictureOf(sharedScene()));
    });
  }

  protected film(): Promise<void> {
    return this.make('film', 'The film', async () => {
      const { sharedScene } = await import('./paper-scene');
      download(fileName(this.judged.name, 'webm'), 'video/webm', await filmOf(sharedScene(), this.evaluation().design.base.rest.at));
    });
  }

  protected dxf(): Promise<void> {
    return this.make('dxf', 'The DXF', async () => {
      await this.give(await this.evaluator.write(this.judged, { kind: 'dxf', folds: this.folds() }), 'dxf', 'image/vnd.dxf');
    });
  }

  protected svg(): Promise<void> {
    return this.make('svg', 'The SVG', async () => {
      const files = drawingsOf(this.evaluation(), this.workshop()).map((drawing): WrittenFile => {
        const text = writeSvg(drawing, this.judged.name, { folds: this.folds(), printed: this.printed() }, this.judged.images);
        return { suffix: drawing.suffix, bytes: new TextEncoder().encode(text) };
      });
      await this.give(files, 'svg', 'image/svg+xml');
    });
  }

  protected csv(dialect: 'point' | 'comma'): Promise<void> {
    return this.make('csv', 'The measures', () =>
      Promise.resolve(download(fileName(this.judged.name, 'csv'), 'text/csv', writeCsv(this.evaluation(), dialect))),
    );
  }

  protected fold(): Promise<void> {
    return this.make('fold', 'The crease pattern', () =>
      Promise.resolve(download(fileName(this.judged.name, 'fold'), 'application/json', writeFold(this.evaluation()))),
    );
  }

  protected everything(): Promise<void> {
    return this.make('everything', 'The archive', async () => {
      const { everythingOf } = await import('./everything-archive');
      const wishes = { paper: this.paper(), folds: this.folds(), fonts: await printFonts(), workshop: this.workshop() };
      download(fileName(this.judged.name, 'zip'), 'application/zip', await everythingOf(this.evaluation(), this.evaluator, wishes));
    });
  }

  /** Always there at once: it is how a card is kept, whether it works or not. */
  protected cardFile(): void {
    download(fileName(this.card().name, 'card.json'), 'application/json', writeCardFile(this.card()));
  }

  protected async makeAnyway(): Promise<void> {
    const make = this.asked()?.make;
    this.asked.set(undefined);
    await make?.();
  }

  private get judged(): CardDocument {
    return this.evaluation().design.card;
  }

  private pdf(kind: 'one-page' | 'templates' | 'arrangement', name: string, ending: string): Promise<void> {
    return this.make(kind, name, async () => {
      const [file] = await this.evaluator.write(this.judged, { kind, paper: this.paper(), fonts: await printFonts() });
      download(fileName(this.judged.name, ending), 'application/pdf', file!.bytes as Uint8Array<ArrayBuffer>);
    });
  }

  /** One file as it is, several in one archive, each named by its stock. */
  private async give(files: readonly WrittenFile[], ending: string, type: string): Promise<void> {
    const { name } = this.judged;
    const [only] = files;
    if (files.length === 1) return download(fileName(name, ending), type, only!.bytes as Uint8Array<ArrayBuffer>);
    const { zipSync } = await import('fflate');
    const named = files.map(({ suffix, bytes }) => [fileName(`${name} ${suffix}`, ending), bytes] as const);
    download(fileName(name, `${ending}.zip`), 'application/zip', zipSync(Object.fromEntries(named)) as Uint8Array<ArrayBuffer>);
  }

  private async make(what: string, name: string, work: () => Promise<void>): Promise<void> {
    const make = async (): Promise<void> => {
      this.busy.set(what);
      this.trouble.set(undefined);
      try {
        await work();
      } catch (error) {
        this.trouble.set(`The file could not be made. ${error instanceof Error ? error.message : ''}`);
      } finally {
        this.busy.set(undefined);
      }
    };
    if (this.verdict().works) return make();
    this.asked.set({ name, make });
  }
}

const LETTERS = ['latin', 'latin-ext'] as const;

/** The letters that go into a PDF, from this machine. */
async function printFonts(): Promise<PdfFonts> {
  const font = async (letters: string, weight: number): Promise<Uint8Array> => {
    const answer = await fetch(`print-fonts/atkinson-hyperlegible-next-${letters}-${weight}-normal.woff`);
    if (!answer.ok) throw new Error('Its letters could not be loaded.');
    return new Uint8Array(await answer.arrayBuffer());
  };
  const all = (weight: number): Promise<Uint8Array[]> => Promise.all(LETTERS.map((letters) => font(letters, weight)));
  const [regular, bold] = await Promise.all([all(400), all(700)]);
  return { regular: regular!, bold: bold! };
}
