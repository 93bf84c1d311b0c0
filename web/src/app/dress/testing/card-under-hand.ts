import type { InputSignal, OutputEmitterRef, Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { evaluate, newCard, type CardDocument, type Evaluation } from '@diptychon/core';
import type { CardChange } from '../../bench/card-change';

/** A list of what a card wears. */
interface WornList {
  card: InputSignal<CardDocument>;
  evaluation: InputSignal<Evaluation | undefined>;
  changed: OutputEmitterRef<CardChange>;
}

/** A card of two leaves of 100 × 140 mm that wears nothing. */
export const folded = newCard({ id: 'f', name: 'f', base: { mechanism: 'folded-card', sizes: { depth: 100, length: 140 } } });

/** A list as a maker has it before them: what is pressed or typed changes the card, which is shown again as it then is. */
export class CardUnderHand<T extends WornList> {
  /** names of the changes, in their order */
  readonly heard: string[] = [];
  card: CardDocument = folded;
  readonly fixture: ComponentFixture<T>;

  constructor(list: Type<T>) {
    this.fixture = TestBed.createComponent(list);
    this.fixture.componentInstance.changed.subscribe(({ what, apply }) => {
      this.heard.push(what);
      this.card = apply(this.card);
    });
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement;
  }

  /** what is read, blanks as one space */
  get text(): string {
    return this.element.textContent!.replace(/\s+/g, ' ');
  }

  input(id: string): HTMLInputElement {
    return this.element.querySelector<HTMLInputElement>(`#${id}`)!;
  }

  async show(next: CardDocument = this.card): Promise<void> {
    this.card = next;
    const outcome = evaluate(next);
    if (!outcome.ok) throw new Error(outcome.problems[0]!.says);
    this.fixture.componentRef.setInput('card', next);
    this.fixture.componentRef.setInput('evaluation', outcome.evaluation);
    await this.fixture.whenStable();
  }

  async press(words: RegExp): Promise<void> {
    [...this.element.querySelectorAll('button')].find(({ textContent }) => words.test(textContent!.trim()))!.click();
    await this.show();
  }

  async type(id: string, typed: string): Promise<void> {
    this.input(id).value = typed;
    this.input(id).dispatchEvent(new Event('input'));
    this.input(id).dispatchEvent(new Event('change'));
    await this.show();
  }
}
