import { Component, inject, input, model, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { writeCardFile, writeCsv, writeFold, writeSvg, type Evaluation } from '@diptychon/core';
import type { PaperId, PdfFonts } from '@diptychon/core/files';
import { Button } from 'primeng/button';
import { Dialog } from 'primeng/dialog';
import { Select } from 'primeng/select';
import { Evaluator } from '../evaluation/evaluator';
import { download, fileName } from '../frame/download';
import { WorkshopStore } from '../workshop/workshop-store';

/** Everything that can be printed, cut from or kept as a file. */
@Component({
  selector: 'dip-files-dialog',
  imports: [Button, Dialog, FormsModule, Select],
  templateUrl: './files-dialog.html',
  styleUrl: './files-dialog.scss',
})
export class FilesDialog {
  readonly evaluation = input.required<Evaluation>();
  readonly visible = model(false);
  private readonly evaluator = inject(Evaluator);
  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly paper = signal<PaperId>(this.workshop().region === 'inch' ? 'letter' : 'a4');
  protected readonly folds = signal<'score' | 'perforation'>('score');
  protected readonly busy = signal<string | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly papers = [
    { value: 'a4', label: 'A4' },
    { value: 'letter', label: 'US Letter' },
  ];
  protected readonly foldWays = [
    { value: 'score', label: 'score lines' },
    { value: 'perforation', label: 'perforations (no score tool)' },
  ];

  protected onePage(): Promise<void> {
    return this.pdf('one-page', 'sheet.pdf');
  }

  protected templates(): Promise<void> {
    return this.pdf('templates', 'templates.pdf');
  }

  protected async dxf(): Promise<void> {
    await this.make('dxf', async () => {
      const bytes = await this.evaluator.write(this.card, { kind: 'dxf', folds: this.folds() });
      download(fileName(this.card.name, 'dxf'), 'image/vnd.dxf', bytes as Uint8Array<ArrayBuffer>);
    });
  }

  protected svg(): void {
    download(fileName(this.card.name, 'svg'), 'image/svg+xml', writeSvg(this.evaluation().sheets, this.card.name, { folds: this.folds() }));
  }

  protected csv(dialect: 'point' | 'comma'): void {
    download(fileName(this.card.name, 'csv'), 'text/csv', writeCsv(this.evaluation(), dialect));
  }

  protected fold(): void {
    download(fileName(this.card.name, 'fold'), 'application/json', writeFold(this.evaluation()));
  }

  protected cardFile(): void {
    download(fileName(this.card.name, 'card.json'), 'application/json', writeCardFile(this.card));
  }

  private get card(): Evaluation['design']['card'] {
    return this.evaluation().design.card;
  }

  private async pdf(kind: 'one-page' | 'templates', ending: string): Promise<void> {
    await this.make(kind, async () => {
      const bytes = await this.evaluator.write(this.card, { kind, paper: this.paper(), fonts: await printFonts() });
      download(fileName(this.card.name, ending), 'application/pdf', bytes as Uint8Array<ArrayBuffer>);
    });
  }

  private async make(what: string, work: () => Promise<void>): Promise<void> {
    this.busy.set(what);
    this.trouble.set(undefined);
    try {
      await work();
    } catch (error) {
      this.trouble.set(`The file could not be made. ${error instanceof Error ? error.message : ''}`);
    } finally {
      this.busy.set(undefined);
    }
  }
}

/** The letters that go into a PDF, from this machine. */
async function printFonts(): Promise<PdfFonts> {
  const font = async (weight: number): Promise<Uint8Array> => {
    const answer = await fetch(`print-fonts/atkinson-hyperlegible-next-latin-${weight}-normal.woff`);
    if (!answer.ok) throw new Error('Its letters could not be loaded.');
    return new Uint8Array(await answer.arrayBuffer());
  };
  const [regular, bold] = await Promise.all([font(400), font(700)]);
  return { regular: regular!, bold: bold! };
}
