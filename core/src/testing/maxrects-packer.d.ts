/** The package names a file that Node cannot load as a module; the one beside it can be, and is the same. */
declare module 'maxrects-packer/dist/maxrects-packer.mjs' {
  export { MaxRectsPacker } from 'maxrects-packer';
}
