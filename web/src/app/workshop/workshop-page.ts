import {
  ChangeDetectionStrategy,
  afterNextRender,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import {
  cannotTakeAway,
  LARGEST_WORKSHOP_FILE,
  newSupply,
  NOTATIONS,
  parseLength,
  readWorkshopFile,
  ROLE_NAMES,
  starterFor,
  STOCK_ROLES,
  SUPPLY_LIST_NAMES,
  SUPPLY_LISTS,
  withoutSupply,
  withSupply,
  writeWorkshopFile,
  type Notation,
  type StockRole,
  type Supply,
  type SupplyList,
  type Workshop,
} from '@diptychon/core';
import { UndoButtons } from '../frame/undo-buttons';
import { ChoiceRow } from '../fields/choice-row';
import { MessageService } from 'primeng/api';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { download } from '../frame/download';
import { ScreenBar } from '../frame/screen-bar';
import { lengthText } from './supply-text';
import { SupplyEditor, type SupplyChange } from './supply-editor';
import { WorkshopStore } from './workshop-store';

type Room = SupplyList | 'ways';

const HABITS: readonly { name: keyof Workshop['habits']; label: string; help: string }[] = [
  { name: 'border', label: 'Border of a layer', help: 'Shows on every side.' },
  { name: 'layerStep', label: 'From layer to layer', help: 'Each is smaller than the one below by this on every side.' },
  { name: 'clearance', label: 'Clearance', help: 'Between a glued tab and a fold.' },
  { name: 'tabWidth', label: 'Tab width', help: 'A new movement begins with it.' },
];
const HAND: readonly { name: keyof Workshop['hand']; label: string }[] = [
  { name: 'score', label: 'A score is off by' },
  { name: 'cut', label: 'A cut is off by' },
  { name: 'glue', label: 'A glued part is off by' },
];

/** What may hurt, said where such things are kept. */
const CUT = 'Cut away from your fingers, on a mat, with a fresh blade. Follow your local rules.';
const CAUTIONS: Partial<Record<SupplyList, string>> = {
  adhesives: 'Strong glues and sprays: open a window, keep them off skin, follow the label and your local rules.',
  magnets: 'Small magnets hurt badly when they are swallowed: keep them from children and from pacemakers. Follow your local rules.',
  trimmers: CUT,
  knives: CUT,
  cutters: 'Keep fingers and sleeves away while it runs. A laser burns and smokes: never leave it alone, and follow your local rules.',
  dies: 'Keep fingers out of the press and away from the edges. Follow your local rules.',
};

/** What the maker has and how the maker works: every list that the bench offers comes from here. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-workshop-page',
  imports: [Button, ChoiceRow, InputText, ScreenBar, SupplyEditor, UndoButtons],
  templateUrl: './workshop-page.html',
  styleUrl: './workshop-page.scss',
  host: { '(document:keydown)': 'shortcut($event)' },
})
export class WorkshopPage {
  /** a list to begin with, and whether to add to it at once: from a link on the bench */
  readonly list = input<string>();
  readonly new = input<string>();
  protected readonly store = inject(WorkshopStore);
  private readonly messages = inject(MessageService);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly workshop = this.store.workshop;
  protected readonly room = signal<Room>('stocks');
  protected readonly rooms: readonly { id: Room; title: string }[] = [
    ...SUPPLY_LISTS.map((id) => ({ id, title: SUPPLY_LIST_NAMES[id].title })),
    { id: 'ways', title: 'How I work' },
  ];
  protected readonly names = SUPPLY_LIST_NAMES;
  protected readonly cautions = CAUTIONS;
  protected readonly habits = HABITS;
  protected readonly hand = HAND;
  protected readonly notations = NOTATIONS.map(({ id, label }) => ({ value: id, label }));
  protected readonly regions: { value: Workshop['region']; label: string }[] = [
    { value: 'inch', label: 'inch envelopes and sheets' },
    { value: 'metric', label: 'metric envelopes and sheets' },
  ];
  protected readonly scorings = [
    { value: 'one-face', label: 'all scores from one face' },
    { value: 'flip', label: 'mountains from the other face' },
  ];
  protected readonly cuttings = [
    { value: 'trimmer', label: 'with a trimmer' },
    { value: 'knife', label: 'with a knife and a steel rule' },
  ];
  protected readonly roles = STOCK_ROLES.map((role) => ({ role, label: ROLE_NAMES[role] }));
  protected readonly problems = signal<Readonly<Record<string, string>>>({});

  protected readonly supplies = computed((): readonly Supply[] => {
    const room = this.room();
    return room === 'ways' ? [] : this.workshop()[room];
  });
  protected readonly shown = computed((): SupplyList | undefined => {
    const room = this.room();
    return room === 'ways' ? undefined : room;
  });
  private readonly chosenId = signal<string | undefined>(undefined);
  protected readonly chosen = computed(() => this.supplies().find(({ id }) => id === this.chosenId()) ?? this.supplies()[0]);
  protected readonly one = computed(() => {
    const list = this.shown();
    return list ? SUPPLY_LIST_NAMES[list].one : '';
  });
  protected readonly boards = computed(() => this.workshop().boards.map(({ id, name }) => ({ value: id, label: name })));
  protected readonly stocks = computed(() => this.workshop().stocks.map(({ id, name }) => ({ value: id, label: name })));

  constructor() {
    effect(() => {
      const wanted = SUPPLY_LISTS.find((id) => id === this.list());
      if (wanted) untracked(() => this.room.set(wanted));
    });
    afterNextRender(() => {
      if (this.new() && this.shown()) void this.store.ready.then(() => this.add());
    });
  }

  protected go(room: Room): void {
    this.room.set(room);
    this.chosenId.set(undefined);
    this.problems.set({});
  }

  protected choose({ id }: Supply): void {
    this.chosenId.set(id);
  }

  /** The numbers by which an entry is known in its list. */
  protected facts(entry: Supply): string {
    const length = (mm: number): string => lengthText(mm, this.workshop().notation);
    if ('caliper' in entry) return `${entry.caliper} mm, ${entry.weight} g/m²${entry.left === undefined ? '' : `, ${entry.left} left`}`;
    if ('pitch' in entry) return entry.free ? 'any position' : `every ${length(entry.pitch)}, ${length(entry.length)} long`;
    if ('long' in entry) return `${length(entry.long)} × ${length(entry.short)} inside`;
    if ('setMinutes' in entry) return entry.setMinutes === 0 ? 'holds at once' : `sets in ${entry.setMinutes} min`;
    if ('diameter' in entry) return `${length(entry.diameter)} wide, ${entry.thickness} mm thick`;
    if ('sizes' in entry) return `${entry.sizes.length} sizes, the largest ${length(entry.sizes[0]?.cut ?? 0)}`;
    if ('kerf' in entry) return `${length(entry.width)} × ${length(entry.height)}`;
    if ('guides' in entry) return `cuts up to ${length(entry.length)}`;
    if ('error' in entry) return `off by ${entry.error} mm`;
    return `${length(entry.width)} × ${length(entry.height)}`;
  }

  protected add(): void {
    const list = this.shown();
    if (!list) return;
    const entry = newSupply(list, this.workshop());
    this.store.change(`A new ${this.one()}`, (workshop) => withSupply(workshop, list, entry));
    this.chosenId.set(entry.id);
    setTimeout(() => this.host.nativeElement.querySelector<HTMLInputElement>('#supply-name')?.select());
  }

  protected edit({ what, id, apply }: SupplyChange): void {
    const list = this.shown()!;
    this.store.change(what, (workshop) => {
      const now = (workshop[list] as readonly Supply[]).find((entry) => entry.id === id);
      return now ? withSupply(workshop, list, apply(now)) : workshop;
    });
  }

  protected takeAway(entry: Supply): void {
    const list = this.shown()!;
    const cannot = cannotTakeAway(this.workshop(), list, entry.id);
    if (cannot) {
      this.messages.add({ severity: 'warn', summary: `${entry.name} stays`, detail: cannot, life: 8000 });
      return;
    }
    this.chosenId.set(undefined);
    this.store.change(`Take away ${entry.name}`, (workshop) => withoutSupply(workshop, list, entry.id));
  }

  protected setNotation(notation: Notation): void {
    this.store.change('Unit', (workshop) => ({ ...workshop, notation }));
  }

  protected setRegion(region: Workshop['region']): void {
    this.store.change('Region', (workshop) => ({ ...workshop, region }));
  }

  protected setSchool(name: keyof Workshop['schools'], value: string): void {
    this.store.change('How I work', (workshop) => ({ ...workshop, schools: { ...workshop.schools, [name]: value } }) as Workshop);
  }

  protected setUsualBoard(board: string): void {
    this.store.change('Usual board', (workshop) => ({ ...workshop, usual: { ...workshop.usual, board } }));
  }

  protected setUsualStock(role: StockRole, id: string): void {
    this.store.change(ROLE_NAMES[role], (workshop) => ({
      ...workshop,
      usual: { ...workshop.usual, stocks: { ...workshop.usual.stocks, [role]: id } },
    }));
  }

  protected habitText(name: keyof Workshop['habits']): string {
    return lengthText(this.workshop().habits[name], this.workshop().notation);
  }

  protected setHabit(name: keyof Workshop['habits'], label: string, typed: string): void {
    this.setLength(name, label, typed, this.workshop().notation, [name === 'tabWidth' ? 3 : 0, name === 'tabWidth' ? 60 : 20], (mm) => ({
      habits: { ...this.workshop().habits, [name]: mm },
    }));
  }

  protected setHand(name: keyof Workshop['hand'], label: string, typed: string): void {
    this.setLength(name, label, typed, 'mm', [0, 3], (mm) => ({ hand: { ...this.workshop().hand, [name]: mm } }));
  }

  private setLength(
    field: string,
    label: string,
    typed: string,
    notation: Notation,
    [min, max]: readonly [number, number],
    made: (mm: number) => Partial<Workshop>,
  ): void {
    const reading = parseLength(typed, notation, label);
    const within = reading.ok && reading.value >= min && reading.value <= max;
    if (!within) {
      const says = reading.ok ? `${label}: “${typed}” does not work; allowed is ${min} mm to ${max} mm.` : reading.problem;
      this.problems.update((all) => ({ ...all, [field]: says }));
      return;
    }
    this.problems.update(({ [field]: _, ...others }) => others);
    this.store.change(label, (workshop) => ({ ...workshop, ...made(reading.value) }));
  }

  protected beginAgain(notation: Notation): void {
    const words = notation.startsWith('inch') ? 'Starter workshop in inches' : 'Starter workshop in millimetres';
    this.store.replace(words, starterFor(notation));
    this.chosenId.set(undefined);
  }

  protected save(): void {
    download('diptychon-workshop.json', 'application/json', writeWorkshopFile(this.workshop()));
  }

  /** Gives away what could not be read of the workshop, as it is. */
  protected saveDamaged(): void {
    download('diptychon-workshop.unreadable.json', 'application/json', `${JSON.stringify(this.store.damaged(), null, 2)}\n`);
  }

  protected async open(file: HTMLInputElement): Promise<void> {
    const chosen = file.files?.[0];
    file.value = '';
    if (!chosen) return;
    const refuse = (detail: string): void => {
      this.messages.add({ severity: 'error', summary: 'Not opened', detail: `${chosen.name}: ${detail}`, sticky: true });
    };
    if (chosen.size > LARGEST_WORKSHOP_FILE) {
      refuse(`larger than ${LARGEST_WORKSHOP_FILE / 1024} kB, which no workshop file is.`);
      return;
    }
    const reading = readWorkshopFile(await chosen.text());
    if (reading.ok) this.store.replace(`Workshop from ${chosen.name}`, reading.workshop);
    else refuse(reading.problems.map(({ path, says }) => `${path} ${says}.`).join(' '));
  }

  protected shortcut(event: KeyboardEvent): void {
    const key = event.key.toLowerCase();
    const typing = (event.target as HTMLElement).closest('input, textarea');
    if (!(event.ctrlKey || event.metaKey) || typing || (key !== 'z' && key !== 'y')) return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) this.store.redo();
    else this.store.undo();
  }
}
