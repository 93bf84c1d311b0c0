/** Writers that bring large libraries with them: loaded by themselves, when a file is asked for. */
export { writeDxf } from './format/dxf.js';
export { writeOnePage } from './format/pdf-sheet.js';
export { writeTemplates, type TemplateFile } from './format/pdf-templates.js';
export type { PdfFonts } from './format/pdf-page.js';
