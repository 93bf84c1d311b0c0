/** Writers that bring large libraries with them: loaded by themselves, when a file is asked for. */
export { writeDxf } from './format/dxf.js';
export { writeOnePage } from './format/pdf-sheet.js';
export { writeArrangement } from './format/pdf-arrangement.js';
export { writeTemplates } from './format/pdf-templates.js';
export type { TrueSizeFile } from './format/pdf-true-size.js';
export type { PdfFonts } from './format/pdf-page.js';
