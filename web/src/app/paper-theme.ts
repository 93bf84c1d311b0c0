import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/aura/base';
import badge from '@primeuix/themes/aura/badge';
import button from '@primeuix/themes/aura/button';
import checkbox from '@primeuix/themes/aura/checkbox';
import dialog from '@primeuix/themes/aura/dialog';
import iconfield from '@primeuix/themes/aura/iconfield';
import inputtext from '@primeuix/themes/aura/inputtext';
import ripple from '@primeuix/themes/aura/ripple';
import select from '@primeuix/themes/aura/select';
import selectbutton from '@primeuix/themes/aura/selectbutton';
import textarea from '@primeuix/themes/aura/textarea';
import toast from '@primeuix/themes/aura/toast';
import togglebutton from '@primeuix/themes/aura/togglebutton';
import tooltip from '@primeuix/themes/aura/tooltip';
import virtualscroller from '@primeuix/themes/aura/virtualscroller';

const moss = {
  50: '#f3f6ec',
  100: '#e3ebd3',
  200: '#c9d8ac',
  300: '#a8be7f',
  400: '#86a257',
  500: '#66833b',
  600: '#4f682d',
  700: '#405426',
  800: '#354521',
  900: '#2d3a1e',
  950: '#172010',
};
const paper = {
  0: '#fffdf8',
  50: '#faf6ec',
  100: '#f3ecdd',
  200: '#e4dac5',
  300: '#cfc3aa',
  400: '#a89e8a',
  500: '#7f786a',
  600: '#635e53',
  700: '#4c4840',
  800: '#33312b',
  900: '#24231f',
  950: '#191815',
};

/** The ready-made controls that are used, and those inside them: the whole set would be loaded before anything is shown. */
const CONTROLS = {
  badge,
  button,
  checkbox,
  dialog,
  iconfield,
  inputtext,
  ripple,
  select,
  selectbutton,
  textarea,
  toast,
  togglebutton,
  tooltip,
  virtualscroller,
};

/** Paper, ink, moss and chanterelle for the ready-made controls; our own sheets use the same colours as CSS variables. */
export const paperTheme = definePreset(
  { ...base, components: CONTROLS },
  {
    semantic: {
      primary: moss,
      colorScheme: {
        light: {
          surface: paper,
          primary: { color: '{primary.700}', contrastColor: '#ffffff', hoverColor: '{primary.800}', activeColor: '{primary.900}' },
        },
        dark: {
          surface: paper,
          primary: { color: '{primary.300}', contrastColor: '#191815', hoverColor: '{primary.200}', activeColor: '{primary.100}' },
        },
      },
      focusRing: { width: '3px', style: 'solid', color: '{primary.color}', offset: '2px' },
    },
    components: {
      button: {
        // The usual secondary buttons are too pale for small text on paper.
        colorScheme: {
          light: { outlined: { secondary: { color: '{surface.700}' } }, text: { secondary: { color: '{surface.700}' } } },
          dark: { outlined: { secondary: { color: '{surface.200}' } }, text: { secondary: { color: '{surface.200}' } } },
        },
      },
    },
  },
);
