import {
  PDFDict,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  type PDFDocument,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';

/** What a stretch of a page is, for who has it read out. */
export type TagRole = 'H1' | 'H2' | 'P' | 'Figure';

/** One heading, paragraph or figure; it may go on over several lines. */
export interface TagElement {
  ref: PDFRef;
  pieces: { page: PDFPage; id: number }[];
  role: TagRole;
  alt?: string;
}

/** The order and meaning of what stands on the pages of a document (tagged PDF: ISO 32000, 14.7 and 14.8). */
export class PdfTags {
  private readonly elements: TagElement[] = [];
  private readonly pages = new Map<PDFPage, TagElement[]>();

  constructor(private readonly document: PDFDocument) {}

  element(role: TagRole, alt?: string): TagElement {
    const element: TagElement = { ref: this.document.context.nextRef(), pieces: [], role, ...(alt !== undefined && { alt }) };
    this.elements.push(element);
    return element;
  }

  /** Draws something as part of an element. */
  mark(page: PDFPage, element: TagElement, draw: () => void): void {
    const marked = this.pages.get(page) ?? [];
    this.pages.set(page, marked);
    const id = marked.push(element) - 1;
    element.pieces.push({ page, id });
    page.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [PDFName.of(element.role), `<</MCID ${id}>>`]));
    draw();
    page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }

  /** Draws something that is not read out: rules, frames, page numbers. */
  artifact(page: PDFPage, draw: () => void): void {
    page.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContent, [PDFName.of('Artifact')]));
    draw();
    page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }

  /** Writes the structure into the document: once, after everything has been drawn. */
  finish(): void {
    const { context, catalog } = this.document;
    const root = context.nextRef();
    const whole = context.nextRef();
    for (const { ref, pieces, role, alt } of this.elements) {
      const content = pieces.map(({ page, id }) => context.obj({ Type: 'MCR', Pg: page.ref, MCID: id }));
      const dict = context.obj({ Type: 'StructElem', S: role, P: whole, K: content }) as PDFDict;
      if (alt !== undefined) dict.set(PDFName.of('Alt'), PDFHexString.fromText(alt));
      context.assign(ref, dict);
    }
    const parents = [...this.pages].flatMap(([page, marked], i) => {
      page.node.set(PDFName.of('StructParents'), context.obj(i));
      page.node.set(PDFName.of('Tabs'), PDFName.of('S'));
      return [context.obj(i), context.obj(marked.map(({ ref }) => ref))];
    });
    context.assign(whole, context.obj({ Type: 'StructElem', S: 'Document', P: root, K: this.elements.map(({ ref }) => ref) }));
    const tree = context.obj({ Type: 'StructTreeRoot', K: [whole], ParentTree: { Nums: parents }, ParentTreeNextKey: this.pages.size });
    context.assign(root, tree);
    catalog.set(PDFName.of('StructTreeRoot'), root);
    catalog.set(PDFName.of('MarkInfo'), context.obj({ Marked: true }));
  }
}
