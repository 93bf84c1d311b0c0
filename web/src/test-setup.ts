// What components ask of a browser and its simulation lacks. Set before each file, so that none lives on
// what another one left behind.
import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';

globalThis.indexedDB = new IDBFactory();
window.matchMedia = (() => ({ matches: false, addEventListener: () => undefined })) as unknown as typeof matchMedia;
globalThis.ResizeObserver = class {
  observe = (): void => undefined;
  unobserve = (): void => undefined;
  disconnect = (): void => undefined;
};
